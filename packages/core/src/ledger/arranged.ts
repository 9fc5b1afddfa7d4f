import type { Plan } from '../plan/schema';
import { addDone, doneReader, nothingDone, percentOf } from '../schedule/percent';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import {
  codeOfFieldId,
  type FieldReader,
  fieldReader,
  type FieldValue,
  isEmptyValue,
  type Promised,
  valueText,
  fieldType,
} from '../select/fields';
import { conditionHolds } from '../select/select';
import type { Day } from '../time/civil';
import { firstDayOf, lastDayOf } from '../time/days';
import { isMilestone } from '../plan/schema';
import type { Arrangement } from './arrangement';

/** What a closed row or group conceals that its reader would want to know of. */
export interface Concealed {
  rows: number;
  milestones: number;
  critical: number;
  /** Finished later than they should: a missed deadline or negative float. */
  late: number;
  /** Links that begin or end at a concealed row. */
  links: number;
}

/** What stands together in a group. */
export interface Totals {
  rows: number;
  first: Day | null;
  last: Day | null;
  /** Null where nothing says how much there is of it. */
  percent: number | null;
  effort: number;
  cost: number;
}

/** One line of the ledger: an activity by its position, or the heading of a group. */
export type LedgerLine =
  | { kind: 'row'; at: number; level: number; key: string; closed: boolean; concealed: Concealed | null }
  | {
      kind: 'group';
      key: string;
      field: string;
      /** The value that its rows share, as text. */
      value: string;
      title: string;
      level: number;
      closed: boolean;
      totals: Totals;
      concealed: Concealed | null;
    }
  | { kind: 'whole'; key: string; level: number; totals: Totals };

/** Keys of closed rows and groups. */
export type Closed = ReadonlySet<string>;

/**
 * The lines of the ledger: the rows that are wanted, in groups or in the outline, in their order.
 *
 * @param promised what fields about the promise compare with
 * @throws ConditionRefused when the arrangement asks for fields that the plan does not have
 */
export function arrange(
  plan: Plan,
  s: Schedule,
  arrangement: Arrangement,
  closed: Closed,
  promised: Promised | null = null,
): LedgerLine[] {
  const asks = arrangement.where.tests.length > 0 ? conditionHolds(plan, s, arrangement.where, promised) : null;
  const lines =
    arrangement.groups.length === 0 && arrangement.sort.length === 0
      ? byOutline(plan, s, arrangement, asks, closed)
      : byGroups(plan, s, arrangement, asks, closed, promised);
  if (!arrangement.whole) return lines;
  const leaves = Array.from({ length: plan.activities.length }, (_, i) => i).filter((i) => !s.outline.isSummary[i]);
  return [{ kind: 'whole', key: 'whole', level: 1, totals: totalsOf(plan, s, leaves) }, ...lines];
}

type Asks = ((i: number) => boolean) | null;

function byOutline(plan: Plan, s: Schedule, { summaries }: Arrangement, asks: Asks, closed: Closed): LedgerLine[] {
  const { order, level, parent, isSummary } = s.outline;
  const n = plan.activities.length;
  // What is wanted brings the groups that hold it.
  const wanted = new Uint8Array(n);
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    if (!wanted[i] && (asks === null || asks(i))) wanted[i] = 1;
    if (wanted[i] && parent[i] !== -1) wanted[parent[i]!] = 1;
  }
  const hidden = new Uint8Array(n);
  const holder = new Int32Array(n).fill(-1);
  const lines: LedgerLine[] = [];
  const lineOf = new Map<number, Extract<LedgerLine, { kind: 'row' }>>();
  for (const i of order) {
    if (!wanted[i]) continue;
    const up = parent[i]!;
    if (up !== -1 && (hidden[up] || closed.has(plan.activities[up]!.ref))) {
      hidden[i] = 1;
      holder[i] = hidden[up] ? holder[up]! : up;
      continue;
    }
    if (isSummary[i] && !summaries) continue;
    const key = plan.activities[i]!.ref;
    const line = {
      kind: 'row' as const,
      at: i,
      level: summaries ? level[i]! : 1,
      key,
      closed: isSummary[i] === true && closed.has(key),
      concealed: null,
    };
    if (line.closed) lineOf.set(i, line);
    lines.push(line);
  }
  if (lineOf.size === 0) return lines;
  const hides = new Map<number, number[]>();
  holder.forEach((h, i) => {
    if (h === -1) return;
    const list = hides.get(h);
    if (list) list.push(i);
    else hides.set(h, [i]);
  });
  const conceal = concealer(plan, s);
  for (const [h, list] of hides) {
    const line = lineOf.get(h);
    if (line) line.concealed = conceal(list);
  }
  return lines;
}

function byGroups(
  plan: Plan,
  s: Schedule,
  a: Arrangement,
  asks: Asks,
  closed: Closed,
  promised: Promised | null,
): LedgerLine[] {
  const leaves: number[] = [];
  for (const i of s.outline.order) if (!s.outline.isSummary[i] && (asks === null || asks(i))) leaves.push(i);
  const sorted = inOrder(plan, s, leaves, a.sort, promised);
  const readers = a.groups.map((field) => ({ field, ...groupReader(plan, s, field, promised) }));
  const conceal = concealer(plan, s);
  const lines: LedgerLine[] = [];
  const put = (list: number[], depth: number, path: string): void => {
    const reader = readers[depth];
    if (!reader) {
      for (const at of list)
        lines.push({
          kind: 'row',
          at,
          level: depth + 1,
          key: plan.activities[at]!.ref,
          closed: false,
          concealed: null,
        });
      return;
    }
    const groups = new Map<string, number[]>();
    for (const i of list) {
      const value = reader.value(i);
      const group = groups.get(value);
      if (group) group.push(i);
      else groups.set(value, [i]);
    }
    for (const value of [...groups.keys()].sort(reader.compare)) {
      const held = groups.get(value)!;
      const key = `${path}/${reader.field}=${value}`;
      const isClosed = closed.has(key);
      lines.push({
        kind: 'group',
        key,
        field: reader.field,
        value,
        title: reader.title(value),
        level: depth + 1,
        closed: isClosed,
        totals: totalsOf(plan, s, held),
        concealed: isClosed ? conceal(held) : null,
      });
      if (!isClosed) put(held, depth + 1, key);
    }
  };
  put(sorted, 0, '');
  return lines;
}

/** How a field sorts rows into groups: those of a code field in the order of its book, others by their values. */
function groupReader(plan: Plan, s: Schedule, field: string, promised: Promised | null) {
  const read = fieldReader(plan, s, field, promised);
  const type = fieldType(field);
  const book = plan.codeFields.find((f) => f.id === codeOfFieldId(field))?.values ?? [];
  const ranks = new Map(book.map((v, k) => [v.code, k]));
  const titles = new Map(book.map((v) => [v.code, v.title]));
  const value = (i: number): string => (read ? valueText(read(i), type) : '');
  const rank = (v: string): number => (v === '' ? Number.MAX_SAFE_INTEGER : (ranks.get(v) ?? book.length));
  const number = type === 'number';
  return {
    value,
    title: (v: string): string => titles.get(v) ?? (v === '' ? 'Without' : v),
    compare: (a: string, b: string): number => rank(a) - rank(b) || (number ? Number(a) - Number(b) : byText(a, b)),
  };
}

/** Texts by their characters, with the numbers in them by their size: the same everywhere, whatever the language. */
export function byText(a: string, b: string): number {
  const parts = (t: string) => t.toLowerCase().match(/\d+|\D+/g) ?? [];
  const [x, y] = [parts(a), parts(b)];
  for (let k = 0; k < Math.min(x.length, y.length); k++) {
    const [p, q] = [x[k]!, y[k]!];
    const [m, n] = [Number(p), Number(q)];
    if (!Number.isNaN(m) && !Number.isNaN(n)) {
      if (m !== n) return m - n;
    } else if (p !== q) return p < q ? -1 : 1;
  }
  return x.length - y.length;
}

function inOrder(
  plan: Plan,
  s: Schedule,
  list: number[],
  sort: Arrangement['sort'],
  promised: Promised | null,
): number[] {
  const keys = sort.flatMap(({ field, down }) => {
    const read = fieldReader(plan, s, field, promised);
    return read ? [{ ...keyOf(plan, field, read), down }] : [];
  });
  if (keys.length === 0) return list;
  return [...list].sort((a, b) => {
    for (const { of, down } of keys) {
      const [x, y] = [of(a), of(b)];
      // What has nothing stands last, whichever way it is sorted.
      const [none, other] = [isEmptyValue(x), isEmptyValue(y)];
      if (none || other) {
        if (none !== other) return none ? 1 : -1;
        continue;
      }
      const c = typeof x === 'number' && typeof y === 'number' ? x - y : byText(String(x), String(y));
      if (c !== 0) return down ? -c : c;
    }
    return 0;
  });
}

function keyOf(plan: Plan, field: string, read: FieldReader): { of: (i: number) => FieldValue } {
  const code = codeOfFieldId(field);
  if (code === null) {
    const type = fieldType(field);
    return { of: (i) => (type === 'text' ? valueText(read(i), type) : read(i)) };
  }
  const ranks = new Map(plan.codeFields.find((f) => f.id === code)?.values.map((v, k) => [v.code, k]));
  return {
    of: (i) => {
      const value = String(read(i));
      return value === '' ? null : (ranks.get(value) ?? ranks.size);
    },
  };
}

/** What stands together: span, percent by the plan's measure, sums. */
export function totalsOf(plan: Plan, s: Schedule, list: readonly number[]): Totals {
  let [first, last, effort, cost] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0, 0];
  const read = doneReader(plan, s, plan.percentShown);
  const done = nothingDone();
  for (const i of list) {
    const a = plan.activities[i]!;
    addDone(done, read(i));
    effort += a.effort ?? 0;
    cost += a.cost ?? 0;
    if (s.start[i] === NONE) continue;
    const span = { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 };
    first = Math.min(first, firstDayOf(span));
    last = Math.max(last, lastDayOf(span));
  }
  const percent = percentOf(done);
  return {
    rows: list.length,
    first: Number.isFinite(first) ? first : null,
    last: Number.isFinite(last) ? last : null,
    percent: Number.isNaN(percent) ? null : percent,
    effort,
    cost,
  };
}

function concealer(plan: Plan, s: Schedule): (list: readonly number[]) => Concealed {
  let linksOf: Map<string, number[]> | null = null;
  const links = (): Map<string, number[]> => {
    if (linksOf) return linksOf;
    linksOf = new Map();
    plan.links.forEach((l, k) => {
      for (const ref of l.from === l.to ? [l.from] : [l.from, l.to]) {
        const own = linksOf!.get(ref);
        if (own) own.push(k);
        else linksOf!.set(ref, [k]);
      }
    });
    return linksOf;
  };
  return (list) => {
    const result: Concealed = { rows: 0, milestones: 0, critical: 0, late: 0, links: 0 };
    const seen = new Set<number>();
    for (const i of list) {
      const a = plan.activities[i]!;
      for (const k of links().get(a.ref) ?? []) seen.add(k);
      if (s.outline.isSummary[i]) continue;
      result.rows++;
      if (isMilestone(a.kind)) result.milestones++;
      if (s.critical[i] === 1) result.critical++;
      const missed = a.deadline !== null && s.finish[i] !== NONE && s.finish[i]! > a.deadline;
      if (missed || (s.totalFloat[i] !== NONE && s.totalFloat[i]! < 0)) result.late++;
    }
    result.links = seen.size;
    return result;
  };
}
