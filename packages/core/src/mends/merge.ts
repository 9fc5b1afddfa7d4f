import type { Command } from '../commands/command';
import type { Activity, Link, Plan } from '../plan/schema';

/** What one activity has and another lacks: taken over when the two become one. */
const OPEN_FIELDS = [
  'calendar',
  'duration',
  'start',
  'finish',
  'actualStart',
  'actualFinish',
  'percent',
  'remaining',
  'constraint',
  'deadline',
  'effort',
  'actualEffort',
  'cost',
  'actualCost',
  'from',
  'to',
  'line',
  'quantity',
  'output',
  'rate',
  'crews',
] as const satisfies readonly (keyof Activity)[];

const key = (l: Link): string => JSON.stringify([l.from, l.to, l.type, l.lag, l.lagCalendar]);

/**
 * Makes one of several activities: the one that is kept has the links of all, and wherever it says nothing, what the
 * others say; people, assignments and notes of all. Links between them fall away, and what the others held it holds.
 */
export function mergeActivities(plan: Plan, keep: string, others: readonly string[]): Command {
  const gone = new Set(others.filter((ref) => ref !== keep));
  const kept = plan.activities.find((a) => a.ref === keep)!;
  const going = plan.activities.filter((a) => gone.has(a.ref));
  const known = new Set(plan.links.map(key));
  const links: Link[] = [];
  for (const l of plan.links) {
    if (!gone.has(l.from) && !gone.has(l.to)) continue;
    const moved = { ...l, from: gone.has(l.from) ? keep : l.from, to: gone.has(l.to) ? keep : l.to };
    if (moved.from === moved.to || known.has(key(moved))) continue;
    known.add(key(moved));
    links.push(moved);
  }
  return {
    do: 'all',
    commands: [
      { do: 'changeActivity', ref: keep, part: together(kept, going) },
      ...plan.activities
        .filter((a) => a.parent !== null && gone.has(a.parent) && a.ref !== keep && !gone.has(a.ref))
        .map((a): Command => ({ do: 'changeActivity', ref: a.ref, part: { parent: keep } })),
      ...links.map((link): Command => ({ do: 'addLink', link })),
      ...going.map((a): Command => ({ do: 'removeActivity', ref: a.ref })),
    ],
  };
}

function together(kept: Activity, others: readonly Activity[]): Partial<Omit<Activity, 'ref'>> {
  const all = [kept, ...others];
  const part: Record<string, unknown> = {};
  for (const field of OPEN_FIELDS) {
    const said = all.find((a) => a[field] !== null);
    if (kept[field] === null && said) part[field] = said[field];
  }
  const notes = [...new Set(all.map((a) => a.notes.trim()).filter((n) => n !== ''))].join('\n').slice(0, 10_000);
  const assignments = [
    ...new Map(
      all
        .flatMap((a) => a.assignments)
        .reverse()
        .map((x) => [x.resource, x]),
    ).values(),
  ];
  return {
    ...part,
    codes: Object.assign({}, ...[...all].reverse().map((a) => filled(a.codes))),
    responsible: [...new Set(all.flatMap((a) => a.responsible))].slice(0, 50),
    assignments: assignments.reverse().slice(0, 100),
    ...(notes !== kept.notes && { notes }),
    ...(kept.stretches.length === 0 && { stretches: others.find((a) => a.stretches.length > 0)?.stretches ?? [] }),
  };
}

const filled = (codes: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(codes).filter(([, code]) => code !== ''));
