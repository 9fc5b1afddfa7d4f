import {
  behindReader,
  type Changes,
  compareEditions,
  dayOf,
  type FieldChange,
  finishDayOf,
  isoDate,
  keyOfFields,
  matchByKey,
  type Matching,
  type Plan,
  schedulePlan,
  withEarlierReferences,
} from '@clembo/core';
import { UsageError } from '../fail';
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
export function changesCommand(old: Loaded, later: Loaded, match: string | undefined, asJson: boolean): string {
  const matching =
    match === undefined ? null : matchByKey(old.plan, later.plan, keyOfFields(readKey(match, later.plan)));
  const now = matching ? { ...later, plan: withEarlierReferences(old.plan, later.plan, matching) } : later;
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
    doubtful: matching?.doubtful ?? [],
  };
  return asJson ? json(result) : lines(result, changes);
}

/** The ids of the fields that `--match` names. */
function readKey(match: string, plan: Plan): string[] {
  return match.split(',').map((part) => {
    const wanted = part.trim().toLowerCase();
    if (wanted === 'name') return 'name';
    const field = plan.codeFields.find((f) => f.name.toLowerCase() === wanted || f.id.toLowerCase() === wanted);
    if (field) return field.id;
    const known = ['name', ...plan.codeFields.map((f) => f.name)].join(', ');
    throw new UsageError(`--match: there is no field “${part.trim()}”. The fields are: ${known}.`);
  });
}

/** Working days by which the dates shown of an activity moved, in its calendar in the new file. */
function movedDays(
  old: Loaded,
  now: Loaded,
): (ref: string) => { startMoved: number | null; finishMoved: number | null } {
  const [a, b] = [schedulePlan(old.plan), schedulePlan(now.plan)];
  const behind = behindReader(now.plan, b, { schedule: a });
  return (ref) => {
    const off = behind(b.outline.indexOf.get(ref)!, a.outline.indexOf.get(ref)!);
    return { startMoved: off?.start ?? null, finishMoved: off?.finish ?? null };
  };
}

interface Result {
  added: { ref: string; name: string }[];
  removed: { ref: string; name: string }[];
  changed: { ref: string; kinds: string[]; finishMoved: number | null }[];
  doubtful: Matching['doubtful'];
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
    ...r.doubtful.map(
      (d) => `doubtful  “${d.key}”: ${d.before.join(', ')} in the old file, ${d.after.join(', ')} in the new one`,
    ),
  ];
  return out.length === 0 ? 'no changes\n' : `${out.join('\n')}\n`;
}
