import { activityTime, lagMinutesPerDay, type Link, type LinkType, NONE, shownDays } from '@clembo/core';
import type { Held } from './held';
import type { Strip } from './ledger';

/** An activity at the other end of a link, with what the link says. */
export interface Neighbour {
  ref: string;
  name: string;
  type: LinkType;
  /** Working days of the lag, in the calendar that counts them. */
  lag: number;
  /** Minutes that a day of it has. */
  perDay: number;
  link: Link;
  /** How the link stands, in words: `no slack`, `4 d slack`, `broken by 2 d`. */
  slack: string;
  broken: boolean;
  driving: boolean;
  strip: Strip | null;
}

export interface Neighbours {
  before: Neighbour[];
  after: Neighbour[];
}

const MOST = 30;

/** What leads to an activity and what follows it, the tightest first. */
export function neighboursOf(held: Held, ref: string, stripOf: (i: number) => Strip | null): Neighbours {
  const { plan, schedule: s } = held;
  const one = (link: Link, other: string): Neighbour[] => {
    const [i, j] = [s.outline.indexOf.get(link.from), s.outline.indexOf.get(link.to)];
    const at = s.outline.indexOf.get(other);
    if (i === undefined || j === undefined || at === undefined) return [];
    const perDay = lagMinutesPerDay(plan, link);
    const days = slackDays(held, link, i, j);
    const broken = days !== null && days < 0;
    return [
      {
        ref: other,
        name: plan.activities[at]!.name || other,
        type: link.type,
        lag: Math.round((100 * link.lag) / perDay) / 100,
        perDay,
        link,
        slack: days === null ? '' : days === 0 ? 'no slack' : broken ? `broken by ${-days} d` : `${days} d slack`,
        broken,
        driving: days === 0,
        strip: stripOf(at),
      },
    ];
  };
  const tight = (list: Neighbour[]) =>
    list.sort((a, b) => Number(b.broken) - Number(a.broken) || Number(b.driving) - Number(a.driving)).slice(0, MOST);
  return {
    before: tight(plan.links.filter((l) => l.to === ref).flatMap((l) => one(l, l.from))),
    after: tight(plan.links.filter((l) => l.from === ref).flatMap((l) => one(l, l.to))),
  };
}

/** Working days between what a link asks for and where its successor stands, in the successor's calendar. */
function slackDays(held: Held, link: Link, i: number, j: number): number | null {
  const { plan, schedule: s } = held;
  if (s.start[i] === NONE || s.start[j] === NONE || shownDays(s, i) === null) return null;
  const time = activityTime(plan, s);
  const from = link.type === 'FS' || link.type === 'FF' ? s.finish[i]! : s.start[i]!;
  const to = link.type === 'FS' || link.type === 'SS' ? s.start[j]! : s.finish[j]!;
  const between = time.minutesBetween(j, from, to);
  const perDay = time.minutesPerDay(j);
  const lag = link.lagCalendar === 'elapsed' ? (link.lag / 1440) * perDay : link.lag;
  return Math.round((10 * (between - lag)) / perDay) / 10;
}
