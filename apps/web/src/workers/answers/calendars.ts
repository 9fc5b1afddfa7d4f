import type { CalendarSpec, Command } from '@clembo/core';
import type { Held } from './held';

/** How many activities have each calendar: by its id, those that name it, and those that take the plan's own. */
export function calendarUse({ plan, schedule: s }: Held): Record<string, number> {
  const use: Record<string, number> = {};
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i]) return;
    const id = a.calendar ?? plan.calendar;
    use[id] = (use[id] ?? 0) + 1;
  });
  return use;
}

/** Another calendar in the place of the one with its id, beside what the plan has of them now. */
export const putCalendar = ({ plan }: Held, next: CalendarSpec): Command => ({
  do: 'setPlan',
  settings: { calendars: plan.calendars.map((c) => (c.id === next.id ? next : c)) },
});

/** Removes a calendar; what had it takes the plan's own. */
export function withoutCalendar({ plan }: Held, id: string): Command {
  return {
    do: 'all',
    commands: [
      ...plan.activities
        .filter((a) => a.calendar === id)
        .map((a) => ({ do: 'changeActivity' as const, ref: a.ref, part: { calendar: null } })),
      {
        do: 'setPlan',
        settings: {
          resources: plan.resources.map((r) => (r.calendar === id ? { ...r, calendar: null } : r)),
          calendars: plan.calendars.filter((c) => c.id !== id),
        },
      },
    ],
  };
}
