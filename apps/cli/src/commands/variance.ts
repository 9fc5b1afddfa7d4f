import { earnedValue, schedulePlan, varianceAgainst, statusEnd } from '@clembo/core';
import { json } from '../findings';
import type { Loaded } from '../load';

/** The new file against the old one as its baseline; late is positive, in working days; amounts as ratios. */
export function varianceCommand(old: Loaded, now: Loaded, asJson: boolean): string {
  const [b, s] = [schedulePlan(old.plan), schedulePlan(now.plan)];
  const activities = varianceAgainst(now.plan, s, old.plan, b);
  const priced = old.plan.activities.some((a) => a.cost !== null);
  const ev =
    priced && now.plan.statusDate !== null ? earnedValue(now.plan, s, old.plan, b, statusEnd(now.plan)!) : null;
  if (asJson) {
    const money = ['pv', 'ev', 'ac', 'bac', 'cv', 'sv', 'eac', 'etc', 'vac'];
    const inUnits =
      ev && Object.fromEntries(Object.entries(ev).map(([k, v]) => [k, v !== null && money.includes(k) ? v / 100 : v]));
    return json({ tolerance: now.plan.tolerance, tolerances: now.plan.tolerances, activities, earnedValue: inUnits });
  }
  const days = (n: number | null) => (n === null ? '' : `${n > 0 ? '+' : ''}${n}`);
  const rows = activities.map(
    (v) =>
      `${v.ref.padEnd(12)}${days(v.startDays).padStart(8)}${days(v.finishDays).padStart(8)}${days(v.durationDays).padStart(10)}  ${v.band ?? ''}`,
  );
  return `${'ref'.padEnd(12)}${'start'.padStart(8)}${'finish'.padStart(8)}${'duration'.padStart(10)}  band\n${rows.join('\n')}\n`;
}
