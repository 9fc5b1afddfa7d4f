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
  makeLink,
  makePlan,
  parseIsoDate,
  type Plan,
  schedulePlan,
  SEVEN_DAY,
  SIX_DAY,
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
// knows nothing of schedules: of plans as drawn from the days of the table itself, of computed and mixed ones from the
// table that is written of them (core/tests/plain.test.ts and brute.test.ts check those days against other programs).

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
function counted(from: number, to: number, week = 5): number {
  let days = 0;
  for (let d = Math.min(from, to) + 1; d <= Math.max(from, to); d++) if (weekdayOf(d) < week) days++;
  return from <= to || days === 0 ? days : -days;
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
function plainEnd(rows: readonly Pick<Row, 'last' | 'promised' | 'done'>[]) {
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

/** A plan with links, lengths, several weeks, progress, fixed dates and holes; what was promised of it is another one. */
function randomNetwork(seed: number): { plan: Plan; promised: Plan; week: Map<string, number>; status: number } {
  const random = seeded(seed * 7919);
  const chance = (p: number) => random() < p;
  const source = chance(0.5) ? ('computed' as const) : ('given' as const);
  const weeks = new Map([FIVE_DAY, SIX_DAY, SEVEN_DAY].map((c, k) => [c.id, k + 5]));
  const status = MONDAY + Math.floor(random() * 40);
  const workday = (day: number, week: number): number => (weekdayOf(day) < week ? day : workday(day + 1, week));
  const n = 4 + Math.floor(random() * 14);
  const week = new Map<string, number>();
  const group = makeActivity({ ref: 'G', name: 'A group', kind: 'summary' });
  const works = Array.from({ length: n }, (_, k) => {
    const ref = `R${k}`;
    const calendar = chance(0.6) ? FIVE_DAY.id : chance(0.5) ? SIX_DAY.id : SEVEN_DAY.id;
    const own = weeks.get(calendar)!;
    week.set(ref, own);
    const point = chance(0.25);
    const first = workday(MONDAY + Math.floor(random() * 60), own);
    const last = point ? first : workday(first + Math.floor(random() * 15), own);
    const drawn = source === 'given' && chance(0.7);
    const side = chance(0.5);
    const percent = point || !chance(0.4) ? null : chance(0.4) ? 100 : Math.floor(random() * 99);
    return makeActivity({
      ref,
      name: `Row ${k}`,
      parent: chance(0.3) ? 'G' : null,
      calendar,
      codes: { area: chance(0.5) ? 'North' : 'South' },
      kind: point ? (side ? 'startMilestone' : 'finishMilestone') : 'activity',
      duration: point ? 0 : drawn ? null : (1 + Math.floor(random() * 12)) * 480,
      ...(drawn && (!point || side) && { start: startOfDay(first) }),
      ...(drawn && (!point || !side) && { finish: endOfDay(last) }),
      ...(!drawn &&
        chance(0.15) && {
          constraint: {
            kind: (['startNotEarlier', 'fixedStart', 'finishNotLater'] as const)[k % 3]!,
            moment: startOfDay(first),
          },
        }),
      ...(percent !== null &&
        first < status && {
          percent,
          actualStart: startOfDay(first),
          ...(percent === 100 && { actualFinish: endOfDay(Math.min(last, status)) }),
        }),
    });
  });
  const activities = [group, ...works];
  const links = works.flatMap((a, k) =>
    k > 0 && chance(0.7)
      ? [
          makeLink({
            from: `R${Math.floor(random() * k)}`,
            to: a.ref,
            type: (['FS', 'FS', 'SS', 'FF'] as const)[Math.floor(random() * 4)]!,
            lag: chance(0.3) ? Math.floor(random() * 4) * 480 : 0,
          }),
        ]
      : [],
  );
  const base = {
    name: 'Harvest',
    source,
    start: source === 'computed' ? startOfDay(MONDAY) : null,
    calendars: [FIVE_DAY, SIX_DAY, SEVEN_DAY],
    calendar: FIVE_DAY.id,
    codeFields: [makeField({ id: 'area', name: 'Area' })],
    statusDate: startOfDay(status),
    percentShown: 'time' as const,
  };
  const plan = makePlan({ ...base, activities, links });
  const promised = makePlan({
    ...base,
    activities: activities
      .filter((a) => a === group || chance(0.9))
      .map((a) => ({
        ...a,
        percent: null,
        actualStart: null,
        actualFinish: null,
        duration: a.duration === null ? null : Math.max(0, a.duration + (a.duration > 480 && chance(0.4) ? -480 : 0)),
      })),
    links: [],
    source: 'computed',
    start: startOfDay(MONDAY),
  });
  promised.links = links.filter((l) => [l.from, l.to].every((r) => promised.activities.some((a) => a.ref === r)));
  return { plan, promised, week, status };
}

async function tableOf(bytes: Uint8Array | string): Promise<string[][]> {
  const isText = typeof bytes === 'string';
  const [table] = await readTables(isText ? new TextEncoder().encode(bytes) : bytes, isText ? 'out.csv' : 'out.xlsx');
  return table!.rows;
}

/** The first and last day of each row of a written table. */
function daysIn([headings, ...lines]: string[][]): Map<
  string,
  { ref: string; first: number | null; last: number | null }
> {
  const [at, begins, ends] = ['Reference', 'Start', 'Finish'].map((h) => headings!.indexOf(h));
  const day = (text: string | undefined): number | null => {
    const found = /\d{4}-\d\d-\d\d/.exec(text ?? '');
    return found ? parseIsoDate(found[0]) : null;
  };
  return new Map(
    lines.map((cells) => {
      const [first, last] = [day(cells[begins!]), day(cells[ends!])];
      return [cells[at!]!, { ref: cells[at!]!, first: first ?? last, last: last ?? first }];
    }),
  );
}

const margin = (day: number): string => {
  const [y, m, d] = isoDate(day).split('-').map(Number) as [number, number, number];
  return `${d} ${MONTHS[m - 1]!.slice(0, 3)} ${y}`;
};

const lateWords = (late: number | null): string | null =>
  late === null
    ? null
    : late === 0
      ? 'as promised'
      : `${Math.abs(late)} working ${Math.abs(late) === 1 ? 'day' : 'days'} ${late > 0 ? 'later' : 'earlier'}`;

/** Percent of the working days of some rows that are gone by the evening of the status date; null where a length is not known. */
function plainShare(
  plan: Plan,
  status: number,
  rows: readonly { ref: string; first: number | null; last: number | null; week: number }[],
): number | null {
  let [all, gone, open] = [0, 0, 0];
  for (const { ref, first, last, week } of rows) {
    const a = plan.activities.find((x) => x.ref === ref)!;
    if (a.kind !== 'activity') continue;
    if (first === null || last === null) return null;
    const days = counted(first - 1, last, week);
    all += days;
    if (a.actualFinish !== null) gone += days;
    else if (a.actualStart !== null) gone += Math.min(days, counted(first - 1, status, week));
    if (a.actualFinish === null) open++;
  }
  // What is not complete is at most 99 % done.
  return all === 0 ? null : Math.min(open > 0 ? 99 : 100, (100 * gone) / all);
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

  test(`${PLANS} random plans, computed and mixed: title, page, standing, snapshot, slips, ledger, margin, files`, async () => {
    let read = 0;
    for (let seed = 1; seed <= PLANS; seed++) {
      const { plan, promised, week, status } = randomNetwork(seed);
      const schedule = schedulePlan(plan);
      const kept = { plan: promised, schedule: schedulePlan(promised), name: 'Promise' };
      const held = { plan, schedule, promised: kept };
      const is = (what: string, told: unknown, plain: unknown) => {
        read++;
        expect([seed, what, told]).toEqual([seed, what, plain]);
      };
      const [now, then] = await Promise.all([plan, promised].map(async (p) => daysIn(await tableOf(writePlanCsv(p)))));
      const book = daysIn(await tableOf(await writePlanXlsx(plan)));
      const works = plan.activities.filter((a) => a.kind !== 'summary');
      const rows = works.map((a) => ({
        ...now!.get(a.ref)!,
        area: a.codes.area!,
        done: (a.percent ?? 0) >= 100,
        promised: then!.get(a.ref)?.last ?? null,
        week: week.get(a.ref)!,
      }));
      const ledger = Object.fromEntries(['finish', 'late'].map((f) => [f, cellReader(held, f)!]));
      const standing = JSON.parse(standingCommand({ plan, promised: kept } as never, null, 'en-GB', true)) as {
        finish: { now: string; promised: string | null; late: number | null; without: number } | null;
        slips: { ref: string; late: number }[];
        percent: { time: number | null };
      };
      const slips = new Map(standing.slips.map((r) => [r.ref, r.late]));
      for (const r of rows) {
        const i = plan.activities.findIndex((a) => a.ref === r.ref);
        is(`workbook ${r.ref}`, book.get(r.ref)?.last ?? null, r.last);
        is(`ledger finish ${r.ref}`, ledger.finish!(i), r.last === null ? '' : short(r.last));
        const off = r.last === null || r.promised === null ? null : counted(r.promised, r.last, r.week);
        is(`slips ${r.ref}`, slips.get(r.ref) ?? 0, off ?? 0);
        is(`ledger late ${r.ref}`, ledger.late!(i), off === null ? '' : expect.anything());
        if (off !== null) is(`late ${r.ref}`, Number(ledger.late!(i).replace('−', '-')), off);
        const facts = factsOf(held, r.ref, { rows: () => new Map(), sources: [] } as never)!;
        const dated = facts.rows.find(([name]) => name === 'Finish' || name === 'Date')?.[1] ?? '';
        if (r.last !== null) is(`margin ${r.ref}`, dated.includes(margin(r.last)), true);
      }
      const whole = plainEnd(rows);
      if (whole.last !== null)
        is(
          'standing',
          [standing.finish!.now, standing.finish!.promised, standing.finish!.late, standing.finish!.without],
          [isoDate(whole.last), whole.then === null ? null : isoDate(whole.then), whole.late, whole.without],
        );
      const share = plainShare(plan, status, rows);
      if (share !== null) is('percent', standing.percent.time?.toFixed(4), share.toFixed(4));
      for (const area of [null, 'North']) {
        const chosen = rows.filter((r) => area === null || r.area === area);
        if (!chosen.some((r) => r.last !== null)) continue;
        const page = (
          kind: 'timeline' | 'snapshot' | 'slips',
          part: object,
          against: typeof kept | null = kept,
        ): Scene =>
          composeExhibit({
            plan,
            schedule,
            brief: {
              ...defaultBrief(kind),
              compare: against && PROMISED,
              where:
                area === null
                  ? { match: 'all', tests: [] }
                  : { match: 'all', tests: [{ field: 'code.area', is: 'is', values: [area] }] },
              ...part,
            } as never,
            measure,
            amounts: amountWords(plan, 'en-GB'),
            edition: 'Now',
            promised: against,
            editions: [kept],
          });
        const end = plainEnd(chosen);
        const timeline = page('timeline', { tells: 'end' });
        is('title: day', timeline.title.includes(long(end.last!)), true);
        is(
          'title: late',
          /(as promised)|(\d+) working days? (later|earlier)/.exec(timeline.title)?.[0] ?? null,
          lateWords(end.late),
        );
        for (const row of timeline.content.rows) {
          const own = rows.find((r) => r.ref === row.ref);
          if (own) is(`page ${row.ref}`, row.cells[3]!.includes(long(own.last!)), true);
        }
        const finish = page('snapshot', {}).content.rows.find((r) => r.cells[1] === 'Finish')!;
        is('snapshot', finish.cells[2]!.includes(short(end.last!)), true);
        const known = chosen.filter((r) => r.last !== null && r.promised !== null);
        const behind = known.filter((r) => counted(r.promised!, r.last!, r.week) > 0);
        if (behind.length > 0)
          is('slips', /(\d+) of (\d+) activities/.exec(page('slips', { least: 0 }).title)?.slice(1), [
            String(behind.length),
            String(known.length),
          ]);
        const part = plainShare(plan, status, chosen);
        const alone = page('timeline', { tells: 'end' }, null).title;
        const told = /(\d+) % /.exec(alone)?.[1] ?? null;
        if (told !== null && part !== null)
          is('title: percent', Number(told), part === 100 ? 100 : Math.min(99, Math.round(part)));
      }
    }
    expect(read).toBeGreaterThan(PLANS * 40);
  }, 600_000);
});
