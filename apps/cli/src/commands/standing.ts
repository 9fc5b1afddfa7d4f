import {
  amountsOff,
  bandOfDays,
  comingUp,
  isoDate,
  paymentsByMonth,
  schedulePlan,
  slipsOf,
  standingOf,
  type Ends,
  linkedToEnd,
  notCounted,
  statusEnd,
  wholePercent,
} from '@clembo/core';
import { amountWords } from '@clembo/formats/amounts';
import { snapshotLines } from '@clembo/scene';
import { UsageError } from '../fail';
import { json } from '../findings';
import type { Loaded } from '../load';

/** How far ahead is told what comes up. */
const DAYS_AHEAD = 28;

/** The end in words: how far it is known, or when it comes and how that stands. */
function endLine({ last, openWithout, of, expected, late }: Ends): string {
  if (last === null) return 'no dates';
  if (openWithout > 0) return `known to ${isoDate(last)}; ${openWithout} of ${of} without dates`;
  const finish = `${expected === null ? 'finish' : 'expected finish'} ${isoDate(last)}`;
  if (late === null) return `${finish}, not in the promise`;
  if (late === 0) return `${finish}, as promised`;
  return `${finish}, ${Math.abs(late)} working ${Math.abs(late) === 1 ? 'day' : 'days'} ${late > 0 ? 'late' : 'ahead'}`;
}

/** How a plan stands at its status date against what was promised: in another file, or in the file itself. */
export function standingCommand(
  { plan, promised }: Loaded,
  against: Loaded | null,
  locale: string | undefined,
  asJson: boolean,
): string {
  const baseline = against?.plan ?? promised?.plan;
  if (!baseline) throw new UsageError('Nothing says what was promised. Name the file that does with --against FILE.');
  const { statusDate } = plan;
  if (statusDate === null)
    throw new UsageError(
      'The file has no status date. Say the day up to which progress is reported: --status-date 2026-09-14.',
    );
  const [s, b] = [schedulePlan(plan), schedulePlan(baseline)];
  const moment = statusEnd(plan)!;
  const st = standingOf(plan, s, baseline, b, moment);
  const { ends } = st;
  const linked = linkedToEnd(plan, s);
  const words = amountWords(plan, locale);
  const slips = slipsOf(st.rows);
  const snapshot = snapshotLines(st, plan.tolerance, words);
  const day = (d: number | null) => (d === null ? null : isoDate(d));
  if (asJson) {
    const units = (v: number | null, of: 'cost' | 'effort') => (v === null ? null : v / (of === 'cost' ? 100 : 60));
    const value = (of: 'cost' | 'effort') => {
      const e = st.earned[of];
      return (
        e && {
          ...e,
          ...Object.fromEntries(
            (['pv', 'ev', 'ac', 'bac', 'cv', 'sv', 'eac', 'etc', 'vac'] as const).map((k) => [k, units(e[k], of)]),
          ),
        }
      );
    };
    return json({
      statusDate: isoDate(Math.floor(statusDate / 1440)),
      activities: st.rows.length,
      start:
        ends.first === null ? null : { now: day(ends.first), promised: day(ends.promisedFirst), late: ends.startLate },
      finish:
        ends.last === null
          ? null
          : {
              now: day(ends.last),
              promised: day(ends.promised),
              late: ends.late,
              ref: plan.activities[ends.lastOf!]!.ref,
              /** Open activities without a finish: with any, the last day is only as far as is known. */
              without: ends.openWithout,
              /** How the last finish came about where it is not stated. */
              expected: ends.expected,
              band: ends.late === null ? null : bandOfDays(ends.late, plan.tolerance),
            },
      linked: { lead: linked.lead, of: linked.of },
      percent: st.percent,
      /** Cost in units of the currency, effort in hours. */
      currency: plan.currency,
      earned: { cost: value('cost'), effort: value('effort') },
      status: st.counts,
      bands: st.bands,
      snapshot,
      slips: slips.map((r) => ({
        ref: r.ref,
        name: r.name,
        finish: day(r.last),
        promised: day(r.promised),
        late: r.late,
        band: r.band,
      })),
      amounts: Object.fromEntries(
        (['effort', 'cost'] as const).map((of) => [
          of,
          amountsOff(baseline, b, st.rows, of)
            .filter((a) => a.ratio !== 1)
            .map((a) => ({ ...a, now: units(a.now, of), promised: units(a.promised, of) })),
        ]),
      ),
      next: comingUp(st.rows, moment, DAYS_AHEAD).map((r) => ({
        ref: r.ref,
        name: r.name,
        finish: day(r.last),
        promised: day(r.promised),
        late: r.late,
      })),
      payments: paymentsByMonth(plan, baseline, b, st.rows).map((p) => ({
        month: isoDate(p.month).slice(0, 7),
        promised: p.promised / 100,
        due: p.due / 100,
        earned: p.earned / 100,
        refs: p.refs,
      })),
    });
  }
  const percent = (n: number | null, of: string) => (n === null ? '' : `${wholePercent(n)} % ${of}`);
  const head = [
    endLine(ends),
    [
      percent(st.percent.time, 'by time'),
      percent(st.percent.effort, 'by effort'),
      percent(st.percent.planned, 'promised'),
      notCounted(st.percent.unknown),
    ]
      .filter(Boolean)
      .join(', '),
    ...(['effort', 'cost'] as const).flatMap((of) => {
      const e = st.earned[of];
      if (!e) return [];
      const at =
        e.eac === null
          ? ''
          : `, ${words.amount(e.eac, of)} at completion at this rate, budget ${words.amount(e.bac, of)}`;
      return [`${of}: SPI ${e.spi?.toFixed(2) ?? '-'}, CPI ${e.cpi?.toFixed(2) ?? '-'}${at}`];
    }),
  ];
  const table = [
    ['', 'now', 'promised', 'actual', 'to go', 'off by'],
    ...snapshot.map((l) => [l.name, l.now, l.promised, l.actual, l.toGo, l.off]),
  ];
  const widths = table[0]!.map((_, k) => Math.max(...table.map((r) => r[k]!.length)));
  const lines = table.map((r) => r.map((c, k) => (k === 0 ? c.padEnd(widths[k]!) : c.padStart(widths[k]!))).join('  '));
  const slipped = slips
    .slice(0, 12)
    .map((r) => `${String(r.late > 0 ? `+${r.late}` : r.late).padStart(6)} d  ${r.ref}  ${r.name}`);
  return `${[...head, '', ...lines, ...(slipped.length > 0 ? ['', `${slips.length} are off; most:`, ...slipped] : [])].join('\n')}\n`;
}
