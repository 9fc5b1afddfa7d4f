import {
  activityTime,
  type Changes,
  compareEditions,
  dayOf,
  type FieldChange,
  finishDayOf,
  isoDate,
  NONE,
  schedulePlan,
} from '@clembo/core';
import { json } from '../findings';
import type { Loaded } from '../load';

const STARTS = new Set(['start', 'actualStart']);
const FINISHES = new Set(['finish', 'actualFinish', 'deadline']);

/** Moments as dates; everything else as it is. */
function readable(f: FieldChange): { field: string; from: unknown; to: unknown } {
  const say = (value: unknown) =>
    typeof value !== 'number'
      ? value
      : STARTS.has(f.field)
        ? isoDate(dayOf(value))
        : FINISHES.has(f.field)
          ? isoDate(finishDayOf(value))
          : value;
  return { field: f.field, from: say(f.from), to: say(f.to) };
}

/** What changed from the old file to the new one, with by how many working days starts and finishes moved. */
export function changesCommand(old: Loaded, now: Loaded, asJson: boolean): string {
  const changes = compareEditions(old.plan, now.plan);
  const moved = movedDays(old, now);
  const result = {
    added: changes.added.map(({ activity }) => ({ ref: activity.ref, name: activity.name })),
    removed: changes.removed.map(({ activity }) => ({ ref: activity.ref, name: activity.name })),
    changed: changes.changed.map((c) => ({
      ref: c.ref,
      kinds: c.kinds,
      ...moved(c.ref),
      fields: c.fields.map(readable),
    })),
    linksAdded: changes.linksAdded.map((l) => l.link),
    linksRemoved: changes.linksRemoved.map((l) => l.link),
  };
  return asJson ? json(result) : lines(result, changes);
}

/** Working days by which the dates shown of an activity moved, in its calendar in the new file. */
function movedDays(
  old: Loaded,
  now: Loaded,
): (ref: string) => { startMoved: number | null; finishMoved: number | null } {
  const [a, b] = [schedulePlan(old.plan), schedulePlan(now.plan)];
  const time = activityTime(now.plan, b);
  return (ref) => {
    const [i, j] = [a.outline.indexOf.get(ref)!, b.outline.indexOf.get(ref)!];
    const days = (from: number, to: number) =>
      from === NONE || to === NONE ? null : Math.round(time.daysBetween(j, from, to) * 1000) / 1000;
    return { startMoved: days(a.start[i]!, b.start[j]!), finishMoved: days(a.finish[i]!, b.finish[j]!) };
  };
}

interface Result {
  added: { ref: string; name: string }[];
  removed: { ref: string; name: string }[];
  changed: { ref: string; kinds: string[]; finishMoved: number | null }[];
}

function lines(r: Result, changes: Changes): string {
  const out = [
    ...r.added.map((a) => `added     ${a.ref}  ${a.name}`),
    ...r.removed.map((a) => `removed   ${a.ref}  ${a.name}`),
    ...r.changed.map(
      (c) =>
        `changed   ${c.ref}  ${c.kinds.join(', ')}${c.finishMoved ? `, finish ${c.finishMoved > 0 ? '+' : ''}${c.finishMoved} working days` : ''}`,
    ),
    ...changes.linksAdded.map(({ link: l }) => `linked    ${l.from} → ${l.to} ${l.type}`),
    ...changes.linksRemoved.map(({ link: l }) => `unlinked  ${l.from} → ${l.to} ${l.type}`),
  ];
  return out.length === 0 ? 'no changes\n' : `${out.join('\n')}\n`;
}
