import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import {
  checkPlan,
  type Condition,
  endOfDay,
  FIVE_DAY,
  isoDate,
  makeActivity,
  makeField,
  makePlan,
  type Plan,
  schedulePlan,
  startOfDay,
  weekdayOf,
} from '@clembo/core';
import { readTables, writePlanCsv, writePlanXlsx } from '@clembo/formats';
import { composeExhibit, createMeasure, defaultBrief, type FontMetrics, PROMISED, type Scene } from '@clembo/scene';
import { amountWords } from '@clembo/formats/amounts';
import { standingCommand } from '../../cli/src/commands/standing';
import { factsOf } from '../src/workers/answers/facts';
import { cellReader } from '../src/workers/answers/ledger';

// What is told of a plan is read back from everywhere that tells it, and compared with what a plain count gives, which
// knows nothing of schedules: the plans are as drawn, so that the days of their rows are those of the table itself.

const metrics = JSON.parse(readFileSync('packages/scene/fonts/metrics.json', 'utf8')) as FontMetrics;
const measure = createMeasure(metrics);
/** So many plans; all of the 2,000 with `CLEMBO_LONG`. */
const PLANS = process.env.CLEMBO_LONG ? 2000 : 150;

function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

interface Row {
  ref: string;
  area: string;
  point: boolean;
  first: number | null;
  last: number | null;
  promised: number | null;
  done: boolean;
}

const MONDAY = 20_457;

/** A table of random rows, as a plan and as plain days. */
function randomTable(seed: number): { plan: Plan; promised: Plan; rows: Row[]; status: number } {
  const random = seeded(seed);
  const chance = (p: number) => random() < p;
  const status = MONDAY + Math.floor(random() * 60);
  const n = 3 + Math.floor(random() * 14);
  const workday = (day: number): number => (weekdayOf(day) < 5 ? day : workday(day + 1));
  const rows = Array.from({ length: n }, (_, k): Row => {
    const point = chance(0.3);
    const first = workday(MONDAY + Math.floor(random() * 90));
    const last = point ? first : workday(first + Math.floor(random() * 20));
    const dated = chance(0.85);
    const promised = chance(0.85) ? workday(last + Math.floor(random() * 30) - 15) : null;
    return {
      ref: `R${k}`,
      area: chance(0.5) ? 'North' : 'South',
      point,
      first: dated ? first : null,
      last: dated ? last : null,
      promised,
      done: dated && last <= status && chance(0.6),
    };
  });
  const sides = rows.map(() => chance(0.5));
  const make = (first: number, last: number, r: Row, k: number) =>
    r.point
      ? sides[k]
        ? { kind: 'startMilestone' as const, start: startOfDay(first), duration: 0 }
        : { kind: 'finishMilestone' as const, finish: endOfDay(last), duration: 0 }
      : { start: startOfDay(first), finish: endOfDay(last) };
  const base = {
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    codeFields: [makeField({ id: 'area', name: 'Area' })],
    statusDate: startOfDay(status),
  };
  const plan = makePlan({
    ...base,
    name: 'Harvest',
    activities: rows.map((r, k) =>
      makeActivity({
        ref: r.ref,
        name: `Row ${k}`,
        codes: { area: r.area },
        ...(r.point && { kind: 'finishMilestone' as const, duration: 0 }),
        ...(r.first !== null && make(r.first, r.last!, r, k)),
        ...(r.done &&
          (r.point
            ? {
                actualStart: startOfDay(r.first!),
                ...(sides[k] ? {} : { actualStart: null, actualFinish: endOfDay(r.last!) }),
              }
            : { actualStart: startOfDay(r.first!), actualFinish: endOfDay(r.last!) })),
      }),
    ),
  });
  const promised = makePlan({
    ...base,
    name: 'Harvest',
    activities: rows.flatMap((r, k) =>
      r.promised === null
        ? []
        : [makeActivity({ ref: r.ref, name: `Row ${k}`, ...make(r.promised, r.promised, r, (k + 1) % n) })],
    ),
  });
  return { plan, promised, rows, status };
}

/** Working days behind one day, up to another, counted one by one. */
function counted(from: number, to: number): number {
  let days = 0;
  for (let d = Math.min(from, to) + 1; d <= Math.max(from, to); d++) if (weekdayOf(d) < 5) days++;
  return from <= to ? days : -days;
}

const MONTHS = 'January February March April May June July August September October November December'.split(' ');
const long = (day: number): string => {
  const [y, m, d] = isoDate(day).split('-').map(Number) as [number, number, number];
  return `${d} ${MONTHS[m - 1]} ${y}`;
};
const short = (day: number): string => {
  const [y, m, d] = isoDate(day).split('-').map(Number) as [number, number, number];
  return `${d} ${MONTHS[m - 1]!.slice(0, 3)} ${String(y).slice(2)}`;
};

/** What a plain count knows of the end of some rows. */
function plainEnd(rows: readonly Row[]) {
  const dated = rows.filter((r) => r.last !== null);
  const last = dated.length === 0 ? null : Math.max(...dated.map((r) => r.last!));
  const promised = rows.flatMap((r) => r.promised ?? []);
  const then = promised.length === 0 ? null : Math.max(...promised);
  const without = rows.filter((r) => r.last === null && !r.done).length;
  return { last, without, then, late: last === null || then === null || without > 0 ? null : counted(then, last) };
}

/** A title as the plain count would write it. */
function plainTitle(rows: readonly Row[], all: number, name: string): string {
  const about =
    rows.length < all ? `${name} (${rows.length} of ${all} ${all === 1 ? 'activity' : 'activities'})` : name;
  const { last, without, late } = plainEnd(rows);
  if (last === null) return about;
  if (without > 0)
    return `${about} is known to ${long(last)}; ${without} of ${rows.length} ${without === 1 ? 'has' : 'have'} no dates`;
  const runs = rows.every((r) => r.done) ? `${about} was completed on ${long(last)}` : `${about} runs to ${long(last)}`;
  if (late === null) return runs;
  const days = `${Math.abs(late)} working ${Math.abs(late) === 1 ? 'day' : 'days'}`;
  return late === 0 ? `${runs}, as promised` : `${runs}, ${days} ${late > 0 ? 'later' : 'earlier'} than promised`;
}

describe('one fact, one number, wherever it is told', () => {
  test(`${PLANS} random tables: title, page, standing, snapshot, slips, ledger, margin, files`, async () => {
    let read = 0;
    for (let seed = 1; seed <= PLANS; seed++) {
      const { plan, promised, rows, status } = randomTable(seed);
      const schedule = schedulePlan(plan);
      const kept = { plan: promised, schedule: schedulePlan(promised), name: 'Promise' };
      const held = { plan, schedule, promised: kept };
      const is = (what: string, told: unknown, plain: unknown) => {
        read++;
        expect([seed, what, told]).toEqual([seed, what, plain]);
      };
      const page = (kind: 'timeline' | 'snapshot' | 'slips', part: object): Scene =>
        composeExhibit({
          plan,
          schedule,
          brief: { ...defaultBrief(kind), compare: PROMISED, ...part } as never,
          measure,
          amounts: amountWords(plan, 'en-GB'),
          edition: 'Now',
          promised: kept,
          editions: [kept],
        });
      for (const area of [null, 'North']) {
        const chosen = rows.filter((r) => area === null || r.area === area);
        const where: Condition =
          area === null
            ? { match: 'all', tests: [] }
            : { match: 'all', tests: [{ field: 'code.area', is: 'is', values: [area] }] };
        if (!chosen.some((r) => r.last !== null)) continue;
        const timeline = page('timeline', { where, tells: 'end' });
        const title = timeline.title;
        const plain = plainTitle(chosen, rows.length, area ?? 'Harvest');
        // A milestone that is late may follow behind.
        is('title', title.slice(0, plain.length), plain);
        is('title ends there', /^(?:;.*)?$/.test(title.slice(plain.length)), true);
        for (const row of timeline.content.rows)
          is(`page ${row.ref}`, row.cells[3], long(rows.find((r) => r.ref === row.ref)!.last!));
        const end = plainEnd(chosen);
        const finish = page('snapshot', { where }).content.rows.find((r) => r.cells[1] === 'Finish')!;
        is('snapshot', finish.cells[2], `${end.without > 0 ? 'known to ' : ''}${short(end.last!)}`);
        const off =
          end.late === null
            ? '–'
            : end.late === 0
              ? 'on the day'
              : `${Math.abs(end.late)} ${Math.abs(end.late) === 1 ? 'day' : 'days'} ${end.late > 0 ? 'late' : 'ahead'}`;
        is('snapshot off by', finish.cells[6], off);
        const known = chosen.filter((r) => r.last !== null && r.promised !== null);
        const behind = known.filter((r) => counted(r.promised!, r.last!) > 0);
        const slips = page('slips', { where, least: 0 }).title;
        if (behind.length > 0)
          is('slips', /(\d+) of (\d+) activities/.exec(slips)?.slice(1), [String(behind.length), String(known.length)]);
      }
      const standing = JSON.parse(standingCommand({ plan, promised: kept } as never, null, 'en-GB', true)) as {
        finish: { now: string; promised: string | null; late: number | null; without: number } | null;
        slips: { ref: string; late: number }[];
      };
      const whole = plainEnd(rows);
      if (whole.last !== null)
        is(
          'standing',
          [standing.finish!.now, standing.finish!.promised, standing.finish!.late, standing.finish!.without],
          [isoDate(whole.last), whole.then === null ? null : isoDate(whole.then), whole.late, whole.without],
        );
      const late = new Map(standing.slips.map((r) => [r.ref, r.late]));
      const ledger = Object.fromEntries(['finish', 'late'].map((f) => [f, cellReader(held, f)!]));
      // From the bytes of the workbook, and from those of the text.
      const bytes = [await writePlanXlsx(plan), new TextEncoder().encode(writePlanCsv(plan))];
      const files = await Promise.all(
        bytes.map(async (file, k) => {
          const [table] = await readTables(file, k === 0 ? 'out.xlsx' : 'out.csv');
          const headings = table!.rows[0]!;
          const [at, on, begins] = ['Reference', 'Finish', 'Start'].map((h) => headings.indexOf(h));
          return new Map(table!.rows.slice(1).map((cells) => [cells[at!], cells[on!] || cells[begins!] || '']));
        }),
      );
      rows.forEach((r, i) => {
        const off = r.last === null || r.promised === null ? null : counted(r.promised, r.last);
        is(`ledger finish ${r.ref}`, ledger.finish!(i), r.last === null ? '' : short(r.last));
        is(`slips ${r.ref}`, late.get(r.ref) ?? 0, off ?? 0);
        if (off !== null) is(`ledger late ${r.ref}`, Number(ledger.late!(i).replace('−', '-')), off);
        const facts = factsOf(held, r.ref, { rows: () => new Map(), sources: [] } as never)!;
        const dated = facts.rows.find(([name]) => name === 'Finish' || name === 'Date');
        const [year, month, date] = r.last === null ? [] : isoDate(r.last).split('-').map(Number);
        is(
          `margin ${r.ref}`,
          dated?.[1].includes(`${date} ${MONTHS[(month ?? 0) - 1]?.slice(0, 3)} ${year}`) ?? false,
          r.last !== null,
        );
        for (const file of files)
          is(`file ${r.ref}`, file.get(r.ref), r.last === null ? '' : expect.stringContaining(isoDate(r.last)));
      });
      // What was due by the evening of the status date and is not done lies in the past, and nothing else does.
      const past = checkPlan(plan, schedule).flatMap((f) => (f.code === 'plannedInThePast' ? f.refs : []));
      is(
        'planned in the past',
        past.sort(),
        rows
          .filter((r) => !r.done && r.first !== null && (r.point ? r.last! : r.first!) <= status)
          .map((r) => r.ref)
          .sort(),
      );
    }
    expect(read).toBeGreaterThan(PLANS * 50);
  }, 600_000);
});
