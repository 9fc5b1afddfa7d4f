import { type Command, followersOf, type LinkType, isoDate, shownDays, workingDaysTo } from '@clembo/core';
import { drawn } from './drawn';
import type { Held } from './held';
import { typedCells } from './ledger';

/** What is done with the pointer on the strips. Days are day numbers. */
export type Dragging =
  | { do: 'move'; ref: string; by: number }
  | { do: 'finish'; ref: string; by: number }
  | { do: 'progress'; ref: string; percent: number }
  | { do: 'link'; from: string; to: string; type: LinkType };

/** What is dragged as a command; what follows goes along where that is wanted. Null where nothing changes. */
export function dragged(held: Held, dragging: Dragging, follow: boolean): Command | null {
  const command = alone(held, dragging);
  return command && follow ? withFollowers(held, command) : command;
}

/** A change, and with it what has to go later for the links to hold. */
export function withFollowers({ plan, schedule }: Held, command: Command): Command {
  const followers = followersOf(plan, schedule, command);
  return followers.length === 0 ? command : { do: 'all', commands: [command, ...followers] };
}

function alone(held: Held, dragging: Dragging): Command | null {
  const { plan, schedule: s } = held;
  if (dragging.do === 'link') {
    const { from, to, type } = dragging;
    if (from === to || plan.links.some((l) => l.from === from && l.to === to && l.type === type)) return null;
    return { do: 'addLink', link: { from, to, type, lag: 0, lagCalendar: 'successor' } };
  }
  const i = s.outline.indexOf.get(dragging.ref);
  const shown = i === undefined ? null : shownDays(s, i);
  if (i === undefined || !shown) return null;
  const type = (field: string, text: string) => typedCells(held, [{ ref: dragging.ref, field, text }]).command;
  switch (dragging.do) {
    case 'progress':
      return type('percent', String(dragging.percent));
    case 'finish':
      return type('finish', isoDate(Math.max(shown.first, shown.last + dragging.by)));
    case 'move':
      if (!s.outline.isSummary[i]) return type('start', isoDate(shown.first + dragging.by));
      return (
        drawn(held, {
          do: 'shift',
          ref: dragging.ref,
          days: workingDaysTo(plan, shown.first, shown.first + dragging.by),
        })?.command ?? null
      );
  }
}
