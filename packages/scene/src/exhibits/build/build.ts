import { type Plan, shownDays, wholePercent } from '@clembo/core';
import type { BuildBrief } from '../../brief/build';
import type { Scene } from '../../graph/scene';
import { NOTHING_SHOWN } from '../../graph/shown';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { composeSheet } from '../sheet';
import { drawBoard } from './board';
import { pictureMaker } from './frame';
import { buildLegend } from './legend';
import { playFrames } from './playing';
import { drawSingle } from './single';
import { type DateStanding, type Standings, standingsOf } from './standings';

type Input = ComposeInput<BuildBrief>;

/** The model as it stands: one date large, or a storyboard of several. */
export function composeBuild(input: Input): Scene {
  return composeSheet(
    input,
    () => {
      const { plan, schedule, brief } = input;
      const model = input.model ?? { elements: [], body: EMPTY };
      const standings = standingsOf(input, model);
      const { dates, count, works } = standings;
      const make = pictureMaker(brief, standings);
      const activities = plan.activities.filter((_, i) => !schedule.outline.isSummary[i]).length;
      return {
        kind: dates.length > 1 ? 'Storyboard' : 'Model',
        statement: said(plan, dates, count),
        counts: { ...NOTHING_SHOWN, shown: works.length, of: activities },
        shown: `${count} of ${model.elements.length} elements, ${works.length} of ${activities} activities with elements`,
        content: content(input, standings),
        undated: [],
        // Of a storyboard the pictures are to be large, of a single date the words beside it.
        largest: dates.length > 1 ? 1.1 : 1.6,
        smallest: 0.55,
        legend: (frame) => buildLegend(frame, input, standings),
        notice: noticeOf(input, standings),
        advice: [],
        ...(input.play ? { play: playFrames(input, standings.times) } : {}),
        draw: (room) =>
          dates.length > 1 ? drawBoard(room, input, standings, make) : drawSingle(room, input, standings, make),
      };
    },
    { alone: true },
  );
}

const EMPTY = {
  corners: new Float32Array(),
  triangles: new Uint32Array(),
  edges: new Uint32Array(),
  cornersOf: new Uint32Array(1),
  trianglesOf: new Uint32Array(1),
  edgesOf: new Uint32Array(1),
  boxes: new Float32Array(),
};

function noticeOf({ model, plan }: Input, { dates, count, works }: Standings): string | null {
  if (!model || model.elements.length === 0)
    return 'The plan has no model. Take one in under Structure, Model: IFC, glTF or a table of blocks.';
  if (count === 0) return 'No element of the model is what this brief asks for.';
  if (works.length === 0)
    return 'No element is matched to an activity yet. Match them under Structure, Model, and this page will show what stands when.';
  if (dates.length === 0)
    return plan.statusDate === null
      ? 'Nobody has said on which date. The plan has no status date; choose dates in the sentence above.'
      : 'The activities that are matched have no dates.';
  return null;
}

/** What the page says: how much stands, what is under way, what is behind. */
function said(plan: Plan, dates: readonly DateStanding[], count: number): string {
  const [first, last] = [dates[0], dates.at(-1)];
  if (!first || !last) return plan.name;
  if (dates.length > 1)
    return `From ${first.counts.there} elements on ${formatDay(first.day, 'long')} to ${last.counts.there} of ${count} on ${formatDay(last.day, 'long')}`;
  const { counts, behind, day } = first;
  const parts = [
    `${counts.there} of ${count} elements ${counts.there === 1 ? 'stands' : 'stand'}`,
    ...(counts.underWay > 0 ? [`${counts.underWay} are under way`.replace(/^1 are/, '1 is')] : []),
    ...(behind > 0 ? [`${behind} are behind the promise`.replace(/^1 are/, '1 is')] : []),
  ];
  return `${formatDay(day, 'long')}: ${parts.join(', ')}`;
}

function content({ schedule }: Input, { works, dates }: Standings): Scene['content'] {
  const day = (d: number | undefined) => (d === undefined ? '' : formatDay(d, 'long'));
  return {
    heads: ['Activity', 'Elements', 'Start', 'Finish', ...dates.map((d) => formatDay(d.day, 'long'))],
    named: 0,
    rows: works.map((w) => {
      const shown = shownDays(schedule, w.position);
      const shares = dates.map((d) => d.shares.get(w.position) ?? 0);
      return {
        ref: w.ref,
        cells: [
          w.name,
          String(w.elements),
          day(shown?.first),
          day(shown?.last),
          ...shares.map((s) => `${wholePercent(s * 100)} %`),
        ],
        values: [
          null,
          { number: w.elements },
          shown ? { day: shown.first } : null,
          shown ? { day: shown.last } : null,
          ...shares.map((share) => ({ share })),
        ],
      };
    }),
  };
}

/** A first page of a model: as it stands, against the promise where there is one. */
export function suggestBuild(plan: Plan, brief: BuildBrief, editions: number): BuildBrief {
  const colour = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null;
  return {
    ...brief,
    colour,
    when: plan.statusDate === null ? 'even4' : 'status',
    compare: editions > 0 ? 'promised' : null,
    page: 'A3 landscape',
  };
}
