import {
  type Activity,
  type Command,
  datedOn,
  freeRef,
  indented,
  insertBehind,
  isMilestone,
  makeActivity,
  makeLink,
  movedBy,
  outdented,
  shiftedBy,
  shownDays,
  workingSpan,
} from '@clembo/core';
import type { Held } from './held';

/** What is done to a plan by drawing. Days are day numbers. */
export type Drawing =
  | { do: 'make'; kind: 'activity' | 'finishMilestone'; first: number; last: number; behind: string | null }
  | { do: 'place'; ref: string; first: number; last: number }
  | { do: 'shift'; ref: string; days: number }
  | { do: 'indent' | 'outdent' | 'up' | 'down'; ref: string };

/** A command, what it is about, and what is to be said of an activity that becomes a group by it. */
export interface Drawn {
  command: Command;
  ref: string;
  group: string | null;
}

/** The command of a drawing; null where it changes nothing. */
export function drawn(held: Held, drawing: Drawing): Drawn | null {
  const { plan, schedule } = held;
  const about = (ref: string, command: Command | null) =>
    command && { command, ref, group: becomesGroup(held, command) };
  switch (drawing.do) {
    case 'make': {
      const { kind, first, last, behind } = drawing;
      const ref = freeRef(plan, 'S');
      const activity: Activity = {
        ...makeActivity({ ref, kind }),
        // What is drawn lands on working days, milestones too.
        ...datedOn(
          plan,
          { kind, calendar: null },
          isMilestone(kind) ? workingSpan(plan, { calendar: null }, first, first).first : first,
          isMilestone(kind) ? workingSpan(plan, { calendar: null }, last, last).first : last,
        ),
      };
      return about(ref, insertBehind(plan, behind, activity));
    }
    case 'place': {
      const a = plan.activities[schedule.outline.indexOf.get(drawing.ref) ?? -1];
      if (!a) return null;
      const { duration, ...dates } = datedOn(plan, a, drawing.first, drawing.last);
      const part = isMilestone(a.kind) ? dates : { ...dates, duration };
      return about(a.ref, { do: 'changeActivity', ref: a.ref, part });
    }
    case 'shift':
      return about(drawing.ref, shiftedBy(plan, schedule, drawing.ref, drawing.days));
    case 'indent':
      return about(drawing.ref, indented(plan, drawing.ref));
    case 'outdent':
      return about(drawing.ref, outdented(plan, drawing.ref));
    case 'up':
    case 'down':
      return about(drawing.ref, movedBy(plan, drawing.ref, drawing.do === 'up' ? -1 : 1));
  }
}

/** That a command makes a group of an activity that has something of its own, in words; null where it does not. */
export function becomesGroup({ plan, schedule: { outline } }: Held, command: Command): string | null {
  const put = command.do === 'all' ? command.commands : [command];
  for (const c of put) {
    const parent = c.do === 'changeActivity' ? c.part.parent : null;
    const i = parent ? outline.indexOf.get(parent) : undefined;
    if (i === undefined || outline.children[i]!.length > 0) continue;
    const a = plan.activities[i]!;
    const own = [
      a.start !== null || a.finish !== null ? 'dates' : '',
      a.duration !== null && a.duration > 0 ? 'length' : '',
      a.percent !== null && a.percent > 0 ? 'progress' : '',
    ].filter((w) => w !== '');
    const isLinked = plan.links.some((l) => l.from === a.ref || l.to === a.ref);
    if (own.length === 0 && !isLinked) continue;
    const list = own.length < 2 ? own.join('') : `${own.slice(0, -1).join(', ')} and ${own.at(-1)}`;
    const words = [
      `“${a.name || a.ref}” is a group now.`,
      list === ''
        ? ''
        : `Its ${list} ${own.length === 1 && own[0] !== 'dates' ? 'comes' : 'come'} from the rows in it.`,
      isLinked ? 'Its links count for the rows in it.' : '',
    ];
    return words.filter((w) => w !== '').join(' ');
  }
  return null;
}

/** A milestone behind an activity, linked to its end, on the day on which it ends. */
export function milestoneBehind(held: Held, ref: string): { command: Command; ref: string } | null {
  const { plan, schedule } = held;
  const i = schedule.outline.indexOf.get(ref);
  if (i === undefined) return null;
  const shown = shownDays(schedule, i);
  const own = freeRef(plan, 'N');
  const dates =
    plan.source === 'given' && shown
      ? datedOn(plan, { kind: 'finishMilestone', calendar: null }, shown.last, shown.last)
      : {};
  const activity: Activity = {
    ...makeActivity({ ref: own, kind: 'finishMilestone', duration: 0 }),
    ...dates,
    codes: plan.activities[i]!.codes,
  };
  return {
    ref: own,
    command: {
      do: 'all',
      commands: [insertBehind(plan, ref, activity), { do: 'addLink', link: makeLink({ from: ref, to: own }) }],
    },
  };
}
