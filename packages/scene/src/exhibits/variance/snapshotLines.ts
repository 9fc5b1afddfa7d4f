import { type Band, bandOfDays, bandOfRatio, type Day, type Standing, type Tolerance } from '@clembo/core';
import type { AmountWords } from '../../text/amounts';
import { formatDay } from '../../text/dates';

/** A line of the snapshot: where something stands, was promised, has come, has to go, and by how much it is off. */
export interface SnapshotLine {
  name: string;
  now: string;
  promised: string;
  actual: string;
  toGo: string;
  off: string;
  band: Band | null;
}

const dayWords = (day: number | null): string => (day === null ? '–' : formatDay(day, 'medium'));
const days = (n: number): string => `${n} ${n === 1 ? 'day' : 'days'}`;
const lateWords = (n: number): string => (n === 0 ? 'on the day' : n > 0 ? `${days(n)} late` : `${days(-n)} ahead`);

/** The small table about a plan or a part of it: start, finish, working days, effort and cost, in words. */
export function snapshotLines(st: Standing, tolerance: Tolerance, words: AmountWords): SnapshotLine[] {
  const list: SnapshotLine[] = [];
  const { ends, days: d, sums } = st;
  const begun = st.rows.some((r) => r.status === 'complete' || r.status === 'inProgress');
  const over = st.rows.length > 0 && st.rows.every((r) => r.status === 'complete');
  const end = (name: string, now: Day | null, promised: Day | null, late: number | null, happened: boolean) => {
    if (now === null) return;
    const known = name === 'Finish' && ends.openWithout > 0 ? `known to ${dayWords(now)}` : dayWords(now);
    const expected = name === 'Finish' && ends.openWithout === 0 && ends.expected !== null;
    list.push({
      name,
      now: expected ? `expected ${known}` : known,
      promised: dayWords(promised),
      actual: happened ? dayWords(now) : '–',
      toGo: '–',
      off: late === null ? '–' : lateWords(late),
      band: late === null ? null : bandOfDays(late, tolerance),
    });
  };
  end('Start', ends.first, ends.promisedFirst, ends.startLate, begun);
  end('Finish', ends.last, ends.promised, ends.late, over);
  if (d) {
    // How long it takes is not known before its end is.
    const off = d.promised === null || ends.openWithout > 0 ? null : d.now - d.promised;
    list.push({
      name: 'Working days',
      now: words.number(d.now),
      promised: d.promised === null ? '–' : words.number(d.promised),
      actual: words.number(d.gone),
      toGo: ends.openWithout > 0 ? '–' : words.number(d.now - d.gone),
      off: off === null ? '–' : off === 0 ? '0' : `${off > 0 ? '+' : '−'}${Math.abs(off)}`,
      band: off === null ? null : bandOfDays(off, tolerance),
    });
  }
  for (const amount of ['effort', 'cost'] as const) {
    const { now, promised, actual } = sums[amount];
    if (now === 0 && promised === 0) continue;
    const share = promised === 0 ? null : Math.round((100 * (now - promised)) / promised);
    list.push({
      name: amount === 'effort' ? 'Effort' : 'Cost',
      now: words.amount(now, amount),
      promised: words.amount(promised, amount),
      actual: words.amount(actual, amount),
      toGo: words.amount(Math.max(0, now - actual), amount),
      off: share === null ? '–' : share === 0 ? '0 %' : `${share > 0 ? '+' : '−'}${Math.abs(share)} %`,
      band: promised === 0 ? null : bandOfRatio(now / promised, tolerance[amount]),
    });
  }
  return list;
}
