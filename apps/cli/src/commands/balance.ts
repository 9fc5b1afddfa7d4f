import { balance, type Buffer, isoDate, linearWorks, schedulePlan } from '@clembo/core';
import { UsageError } from '../fail';
import { json } from '../findings';
import type { Loaded } from '../load';

/** Who along a line would start when, so that each keeps a buffer from those before: the changes, and the end. */
export function balanceCommand(
  { plan }: Loaded,
  days: string | undefined,
  distance: string | undefined,
  asJson: boolean,
): string {
  const buffer: Buffer = { days: readDays(days), distance: readDistance(distance) };
  const { works } = linearWorks(plan, schedulePlan(plan));
  const changes = balance(
    works.map((w) => [w]),
    { buffer, waits: true, inHours: plan.inHours },
  ).map((b) => ({
    ref: b.ref,
    name: plan.activities[b.position]!.name,
    line: b.line?.name ?? null,
    start: dateOf(b.start),
    newStart: dateOf(b.newStart),
    movedDays: tenth(b.newStart - b.start),
    finish: dateOf(b.finish - 1e-6),
    newFinish: dateOf(b.newFinish - 1e-6),
  }));
  const last = changes.reduce((end, c) => (c.newFinish > end ? c.newFinish : end), '');
  const result = { buffer: buffer.days, distance: buffer.distance, finish: last || null, changes };
  if (asJson) return json(result);
  if (changes.length === 0) return 'no activity goes from one place to another (fields from and to)\n';
  const lines = changes.map(
    (c) =>
      `${c.ref.padEnd(12)}${c.start} → ${c.newStart}  ${movedWords(c.movedDays).padEnd(14)}to ${c.newFinish}  ${c.name}`,
  );
  return `${lines.join('\n')}\nall done on ${last}\n`;
}

const dateOf = (day: number): string => isoDate(Math.floor(day + 1e-9));
const tenth = (n: number): number => Math.round(n * 10) / 10 + 0;
const movedWords = (days: number): string =>
  days === 0 ? 'stays' : `${Math.abs(days)} d ${days > 0 ? 'later' : 'earlier'}`;

/** Days, or weeks with their letter: `10`, `10d`, `4w`. */
function readDays(text: string | undefined): number {
  if (text === undefined) return 0;
  const m = /^(\d+(?:\.\d+)?)\s*(d|w)?$/i.exec(text.trim());
  if (!m) throw new UsageError(`--buffer takes days or weeks, as in 10d or 4w, not “${text}”.`);
  return Number(m[1]) * (m[2]?.toLowerCase() === 'w' ? 7 : 1);
}

function readDistance(text: string | undefined): number {
  const amount = text === undefined ? 0 : Number(text);
  if (!Number.isFinite(amount) || amount < 0) throw new UsageError(`--distance takes a number from 0, not “${text}”.`);
  return amount;
}
