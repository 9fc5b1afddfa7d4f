import { type Condition, dayOf, isMilestone, type Plan, type Schedule, startOfDay } from '@clembo/core';
import { decisive, type Grouping, groupings, liesWithin, meaning } from './fields';
import { PROMISED } from './parts';
import type { Ready } from './ready';
import { coarsestLevel, MOST_EACH, readableLevel } from './suggest';
import { defaultTimelineBrief, type TimelineBrief } from './timeline';

/** An edition that was kept, the latest first. */
export interface KeptEdition {
  id: string;
  name: string;
  baseline: boolean;
}

const only = (...tests: Condition['tests']): Condition => ({ match: 'all', tests });

/**
 * Ready-made timelines for questions that are asked often, in the fields of the plan; those that it has nothing to say
 * to are not offered.
 */
export function readyTimelines(plan: Plan, schedule: Schedule, editions: readonly KeptEdition[]): Ready[] {
  const fields = groupings(plan, schedule);
  const coded = fields.filter((f) => f.id !== 'outline');
  const lane = fields[0];
  const who = meaning(coded, 'who') ?? coded.find((f) => f !== lane && !f.answers && f.values >= 3 && f.values <= 12);
  const leaves = plan.activities.filter((_, i) => !schedule.outline.isSummary[i]);
  const points = leaves.filter((a) => isMilestone(a.kind));
  const payments = points.filter((a) => (a.cost ?? 0) !== 0);
  const outlined = schedule.outline.level.some((l) => l > 1);
  const promised = editions.some((e) => e.baseline);
  const last = editions.find((e) => !e.baseline);
  const level = readableLevel(schedule);
  const deep = nested(plan, coded);
  const base: TimelineBrief = {
    ...defaultTimelineBrief(),
    labels: promised ? ['name', 'finish', 'off'] : ['name', 'finish'],
    compare: promised ? PROMISED : null,
  };
  /** Of more than can be read, the work of each value of the innermost lanes is one bar. */
  const summed = (of: readonly string[]): Partial<TimelineBrief> =>
    outlined || leaves.length <= MOST_EACH || of.length === 0
      ? {}
      : {
          together: of.at(-1)!,
          lanes: of.slice(0, -1),
          folded: [],
          rows: 'each',
          ...(of.length === 1 && { colour: null }),
        };
  /** Lanes by a field, and colours by another one. */
  const lanes = (g: Grouping | undefined) => ({
    lanes: g ? [g.id] : [],
    colour: colourOf(plan, coded, g ? [g.id] : []),
  });
  const list: (Ready | null)[] = [
    outlined
      ? ready('Summary for executives', 'Phases as blocks, and how each stands against the promise', {
          ...base,
          level: coarsestLevel(schedule),
          rows: 'each',
          summaries: 'none',
          colour: null,
          page: 'wide slide',
        })
      : lane
        ? ready('Summary for executives', 'One row for each part', {
            ...base,
            lanes: [lane.id],
            folded: codesOf(plan, lane.id).map((code) => [code]),
            colour: null,
            page: 'wide slide',
            ...summed([lane.id]),
          })
        : null,
    points.length > 1
      ? ready('Milestones on a string', 'Every milestone by name and date, one line for each lane', {
          ...base,
          include: 'milestones',
          ...lanes(laneOfPoints(plan, points, fields)),
          rows: 'strand',
          compareBy: 'arrow',
          page: 'wide slide',
        })
      : null,
    deep.length > 1
      ? ready('Lanes within lanes', 'From the coarsest part to the finest', {
          ...base,
          tells: 'parts',
          lanes: deep,
          colour: colourOf(plan, coded, deep),
          level,
          page: 'A3 landscape',
          ...summed(deep),
        })
      : null,
    who
      ? ready(`By ${who.name.toLowerCase()}`, 'Who does what, and when', {
          ...base,
          tells: 'who',
          ...lanes(who),
          level,
          page: 'A3 landscape',
          ...summed([who.id, ...(lane && lane.id !== 'outline' && lane !== who ? [lane.id] : [])]),
        })
      : null,
    plan.statusDate !== null
      ? ready('Next six weeks', 'What is open and due in the six weeks after the status date', {
          ...base,
          only: 'next',
          weeks: 6,
          rows: 'each',
          ...lanes(who ?? lane),
          columns: ['start', 'finish', 'percent'],
          labels: ['name'],
          daysOff: true,
          from: startOfDay(dayOf(plan.statusDate) - 7),
          to: startOfDay(dayOf(plan.statusDate) + 49),
          page: 'A3 landscape',
        })
      : null,
    promised
      ? ready('Late against the promise', 'Only what is late, with by how much', {
          ...base,
          only: 'late',
          rows: 'each',
          ...lanes(lane),
          labels: ['name', 'off'],
          compareBy: 'both',
          columns: ['finish', 'late'],
          pages: 'several',
          page: 'A3 landscape',
        })
      : null,
    last
      ? ready('Changed since last time', `What moved, is new or is gone since ${last.name}`, {
          ...base,
          only: 'changed',
          compare: last.id,
          compareBy: 'both',
          gone: true,
          labels: ['name', 'finish', 'off'],
          ...lanes(lane),
          pages: 'several',
          page: 'A3 landscape',
        })
      : null,
    plan.links.length > 0 && decisive(plan, schedule).length > 1
      ? ready('The critical path', 'What decides the finish, in its order, with what leads to what', {
          ...base,
          only: 'critical',
          rows: 'each',
          ...lanes(lane),
          links: 'critical',
          labels: ['name', 'finish'],
          columns: ['days', 'float'],
          page: 'A3 landscape',
        })
      : null,
    payments.length > 1
      ? ready('Payments and gates', 'What is paid when, with its amount', {
          ...base,
          include: 'milestones',
          where: only({ field: 'cost', is: 'above', values: ['0'] }),
          rows: 'each',
          summaries: 'none',
          labels: ['name'],
          columns: ['finish', 'cost', ...(promised ? ['late'] : [])],
          page: 'wide slide',
        })
      : null,
    ready('For the public', 'One page without detail: what happens when', {
      ...base,
      tells: 'milestones',
      labels: ['name'],
      compare: null,
      level: outlined ? coarsestLevel(schedule) : null,
      lanes: outlined || !lane ? [] : [lane.id],
      colour: null,
      page: 'A4 landscape',
      ...(lane && summed([lane.id])),
    }),
    leaves.length > 40
      ? ready('All of it, on several pages', 'Every activity in a row of its own, with its dates', {
          ...base,
          tells: 'progress',
          rows: 'each',
          lanes: outlined ? ['outline'] : lane ? [lane.id] : [],
          colour: colourOf(plan, coded, []),
          columns: ['start', 'finish', 'days', 'percent'],
          labels: ['name'],
          pages: 'several',
          numbered: true,
          page: 'A3 landscape',
        })
      : null,
  ];
  return list.filter((r) => r !== null);
}

const ready = (name: string, about: string, brief: TimelineBrief): Ready => ({ name, about, brief });

/** Colours by a field of at most eight values that no lanes say already; else none. */
const colourOf = (plan: Plan, coded: readonly Grouping[], lanes: readonly string[]): string | null =>
  coded.find((g) => !lanes.includes(g.id) && plainColour(plan, g) !== null)?.id ?? null;

const plainColour = (plan: Plan, { id }: Grouping): string | null =>
  (plan.codeFields.find((f) => f.id === id)?.values.length ?? 99) <= 8 ? id : null;

/** The codes of a field that are used. */
const codesOf = (plan: Plan, id: string): string[] => [...new Set(plan.activities.map((a) => a.codes[id] ?? ''))];

/** Milestones often have codes of their own: the first field that splits them. */
function laneOfPoints(
  plan: Plan,
  points: readonly Plan['activities'][number][],
  fields: readonly Grouping[],
): Grouping | undefined {
  return fields.find(
    ({ id }) =>
      id !== 'outline' &&
      plan.codeFields.some((f) => f.id === id) &&
      new Set(points.map((a) => a.codes[id]).filter(Boolean)).size >= 2,
  );
}

/** More lanes than these of the innermost level are no overview. */
const MOST_LANES = 24;

/** As many of the fields, from the first, as make a readable number of lanes. */
function readable(plan: Plan, ids: string[]): string[] {
  for (let depth = Math.min(3, ids.length); depth > 1; depth--) {
    const own = ids.slice(0, depth);
    const lanes = new Set(plan.activities.map((a) => own.map((id) => a.codes[id] ?? '').join('\u0000')));
    if (lanes.size <= MOST_LANES) return own;
  }
  return ids.slice(0, 1);
}

/** Up to three fields from coarse to fine, each within the one before it where the plan has such. */
function nested(plan: Plan, coded: readonly Grouping[]): string[] {
  const project = meaning(coded, 'project');
  const phase = meaning(coded, 'phase');
  const named = [project, phase, meaning(coded, 'who')].filter((g) => g !== undefined);
  if (named.length > 1) return readable(plan, [...new Set(named.map((g) => g.id))]);
  const byCount = [...coded].filter((g) => g.values <= 12 && !g.answers).sort((a, b) => a.values - b.values);
  const [first] = byCount;
  if (!first) return [];
  const second = byCount.find((g) => g !== first && liesWithin(plan, g.id, first.id)) ?? byCount[1];
  return readable(plan, second ? [first.id, second.id] : [first.id]);
}
