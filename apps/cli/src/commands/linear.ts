import {
  blockClashes,
  type Buffer,
  isoDate,
  linearBlocks,
  type LineClash,
  lineClashes,
  linearDuration,
  linearWorks,
  meetsBlock,
  type PlannedWork,
  schedulePlan,
  startsWithBuffer,
} from '@clembo/core';
import { UsageError } from '../fail';
import { type FindingRow, findingLines, findingRows, json } from '../findings';
import type { Loaded } from '../load';

/**
 * The linear work of a plan: flowlines through non-working time and closed windows, clashes with work and with
 * blocks, and starts that keep a buffer from the trade before, in the order of the plan.
 */
export function linearCommand(
  loaded: Loaded,
  days: string | undefined,
  distance: string | undefined,
  asJson: boolean,
): string {
  const { plan } = loaded;
  const buffer: Buffer = { days: readAmount(days, '--buffer'), distance: readAmount(distance, '--distance') };
  const s = schedulePlan(plan);
  const { works, findings } = linearWorks(plan, s);
  const blocks = linearBlocks(plan, s);
  const lines = [...new Set(works.map((w) => w.line))];
  const clashes = lines.flatMap((line) => lineClashes(works.filter((w) => w.line === line).map(named), [], buffer));
  const blocked = works.flatMap((w) =>
    blocks.flatMap((block) => {
      const met = meetsBlock(w.points, block);
      return met ? [{ refs: [w.work.ref, block.ref], place: round(met.place), date: dateOf(met.time) }] : [];
    }),
  );
  const result = {
    buffer: buffer.days,
    distance: buffer.distance,
    activities: works.map((w) => ({
      ref: w.work.ref,
      name: plan.activities[w.position]!.name,
      line: w.line?.name ?? null,
      unit: w.line?.unit ?? null,
      from: w.work.from,
      to: w.work.to,
      ratePerDay: w.work.rates[0]!.perDay * w.work.crews,
      workingDays: round(linearDuration(w.work)),
      points: w.points.map((p) => ({ date: dateOf(p.time), day: round(p.time), place: round(p.place) })),
    })),
    clashes: clashes.map(clashRow),
    blocked,
    blocks: blockClashes(blocks).map((c) => ({ ...c, start: dateOf(c.start), finish: dateOf(c.finish - 1e-6) })),
    withBuffer: keepingBuffer(works, buffer),
    findings: findingRows(loaded, [...s.findings, ...findings]),
  };
  return asJson ? json(result) : words(result);
}

function readAmount(text: string | undefined, option: string): number {
  const amount = text === undefined ? 0 : Number(text);
  if (!Number.isFinite(amount) || amount < 0) throw new UsageError(`${option} takes a number from 0, not “${text}”.`);
  return amount;
}

const round = (n: number): number => Math.round(n * 1e4) / 1e4 + 0;
const dateOf = (day: number): string => isoDate(Math.floor(day + 1e-9));

const named = ({ work, points }: PlannedWork) => ({ ref: work.ref, points });

const clashRow = (c: LineClash) => ({
  refs: c.refs,
  kind: c.kind,
  place: round(c.place),
  date: dateOf(c.time),
  gap: c.gap === null ? null : round(c.gap),
  measure: c.measure,
});

/** Starts that keep the buffer, line by line; each trade in its own calendar. */
function keepingBuffer(works: PlannedWork[], buffer: Buffer) {
  const lines = [...new Set(works.map((w) => w.line))];
  return lines.flatMap((line) => {
    const own = works.filter((w) => w.line === line);
    const earliest = Math.min(...own.map((w) => w.points[0]!.time));
    return startsWithBuffer(own, earliest, buffer).map((p) => ({
      ref: p.ref,
      line: line?.name ?? null,
      start: dateOf(p.start),
      finish: dateOf(p.finish - 1e-6),
      startDay: round(p.start - earliest),
      finishDay: round(p.finish - earliest),
    }));
  });
}

interface Result {
  buffer: number;
  distance: number;
  clashes: ReturnType<typeof clashRow>[];
  blocked: { refs: string[]; place: number; date: string }[];
  withBuffer: ReturnType<typeof keepingBuffer>;
  findings: FindingRow[];
}

function words(r: Result): string {
  const said = findingLines(r.findings);
  if (r.withBuffer.length === 0) return `${said}no activity goes from one place to another (fields from and to)\n`;
  const wanted = [`${r.buffer} days`, ...(r.distance > 0 ? [`${r.distance} of distance`] : [])].join(' and ');
  const out = [
    ...r.clashes.map((c) =>
      c.gap === null
        ? `clash     ${c.refs.join(' and ')} meet at ${c.place} on ${c.date}`
        : `buffer    ${c.refs.join(' and ')} at ${c.place} on ${c.date}: ${c.gap} ${c.measure === 'days' ? 'cal d' : 'of distance'} apart`,
    ),
    ...r.blocked.map((b) => `blocked   ${b.refs[0]} by ${b.refs[1]} at ${b.place} on ${b.date}`),
    `starts that keep ${wanted}:`,
    ...r.withBuffer.map((p) => `${p.ref.padEnd(12)}${p.start}  ${p.finish}${p.line ? `  ${p.line}` : ''}`),
  ];
  return `${said}${out.join('\n')}\n`;
}
