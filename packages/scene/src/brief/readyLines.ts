import { dayOf, isFloors, type Plan, startOfDay } from '@clembo/core';
import { LinearBrief } from './linear';
import { namesAlong } from './lineNames';
import { PROMISED } from './parts';
import type { Ready } from './ready';

const QUARTER = 91;

/** Ready-made pages of the lines of a plan that have work on them. */
export function readyLines(plan: Plan, editions: number): Ready[] {
  const [first] = plan.lines;
  const base = LinearBrief.parse({ kind: 'linear', page: 'A3 landscape' });
  const colour = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null;
  return plan.lines.flatMap((line): Ready[] => {
    const works = plan.activities.filter(
      (a) => a.from !== null && a.to !== null && a.from !== a.to && (a.line ?? first?.id) === line.id,
    );
    if (works.length === 0) return [];
    const name = line.name || 'The line';
    const brief: LinearBrief = {
      ...base,
      line: line === first ? null : line.id,
      axes: isFloors(line.unit) ? 'up' : 'across',
      names: namesAlong(plan, line.id),
      colour,
    };
    const zone = line.zones.find((z) =>
      works.some((a) => Math.min(a.from!, a.to!) < z.to && Math.max(a.from!, a.to!) > z.from),
    );
    const today = plan.statusDate;
    return [
      {
        name: isFloors(line.unit) ? `${name}, floor by floor` : `${name}, the whole line`,
        about: isFloors(line.unit)
          ? 'How the trades follow each other upwards, and where one waits for another'
          : 'Who works where and when, and where they get in each other’s way',
        brief,
      },
      ...(today === null
        ? []
        : [
            {
              name: `${name}, the next three months`,
              about: 'What goes on along the line from the status date on',
              brief: {
                ...brief,
                from: startOfDay(dayOf(today)),
                to: startOfDay(dayOf(today) + QUARTER),
                only: 'open' as const,
                names: 'each' as const,
              },
            },
          ]),
      ...(zone && line.zones.length > 1
        ? [
            {
              name: `${name}, ${zone.name} enlarged`,
              about: 'One zone, with every work in it named',
              brief: { ...brief, fromPlace: zone.from, toPlace: zone.to, names: 'each' as const, gaps: true },
            },
          ]
        : []),
      ...(editions > 0
        ? [
            {
              name: `${name}, promised against now`,
              about: 'Where everything was promised, dashed, and where it runs now',
              brief: { ...brief, compare: PROMISED },
            },
          ]
        : []),
    ];
  });
}
