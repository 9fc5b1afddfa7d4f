import { dayOf, isChainage, isFloors, type Line, type Plan, placeWords, type Schedule } from '@clembo/core';
import type { LinearBrief } from '../../brief/linear';
import { namesAlong } from '../../brief/lineNames';
import { type FitAdvice, round, type Scene } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { composeSheet, type Drawn, type Room } from '../sheet';
import { placeAxis, placeNames, stationsAside, timeAxis, zoneBands } from './axes';
import { clashLines } from './clashes';
import { content } from './content';
import { overTime, stripsOverTime } from './overTime';
import { plotNodes } from './draw';
import { gapsOf } from './gaps';
import { legend } from './legend';
import { notesOnLine } from './notesOnLine';
import { regionsOf } from './regions';
import { daysOf, type LineSelection, placesOf, type Range, selectLine } from './select';
import { statusFlag } from './statusFlag';
import { stripNodes } from './strips';
import { stationLines, windowNodes } from './windows';
import { byPlaceOf, placeStrip } from './byPlace';

type Input = ComposeInput<LinearBrief>;

/** So many clashes are told in words under the plot. */
const TOLD = 5;

/** Work along a line: flowlines and blocks in place and time. */
export function composeLinear(input: Input): Scene {
  return composeSheet(
    input,
    () => {
      const { plan, brief } = input;
      const selection = selectLine(input);
      const [from, to] = placesOf(selection, brief);
      const [day0, day1] = daysOf(selection, brief, [from, to]);
      return {
        kind: 'Line',
        statement: statement(plan, selection, brief, [from, to]),
        counts: selection.counts,
        content: content(selection),
        undated: selection.undated,
        legend: (frame) => legend(frame, selection, brief),
        notice: noticeOf(plan, selection, brief),
        advice: advice(brief),
        draw: (room) => draw(room, input, selection, { from, to, day0, day1 }),
      };
    },
    { alone: true },
  );
}

function noticeOf(
  plan: Plan,
  { line, flows, blocks, points, isEmpty }: LineSelection,
  brief: LinearBrief,
): string | null {
  if (brief.line !== null && line === null) return 'The line that this page shows is gone. Choose another one.';
  if (brief.from !== null && brief.to !== null && brief.to <= brief.from)
    return 'The last day of this page lies before its first. Choose another one.';
  if (brief.fromPlace !== null && brief.fromPlace === brief.toPlace)
    return 'This page begins and ends at the same place. Choose another one.';
  if (flows.length + blocks.length + points.length > 0) return null;
  if (!isEmpty) return 'Nothing goes on along this stretch of the line within the days of this page.';
  return plan.lines.length === 0
    ? 'The plan has no line yet, and nothing that goes from one place to another. Describe the line in Structure, and say from where to where its work goes.'
    : 'Nothing on this line goes from one place to another as this brief asks. Say from where to where the work goes, in the ledger.';
}

/** Until when work goes on along the line, and what clashes. */
function statement(
  plan: Plan,
  { line, until, clashes, flows, blocks }: LineSelection,
  brief: LinearBrief,
  [from, to]: readonly [number, number],
): string {
  if (until === null || flows.length + blocks.length === 0) return plan.name;
  const cut = brief.fromPlace !== null || brief.toPlace !== null ? `, ${stretchWords(line, from, to)},` : '';
  const work = `Work along ${line?.name || 'the line'}${cut} runs to ${formatDay(until, 'long')}`;
  const meets = clashes.filter((c) => c.kind !== 'close').length;
  const close = clashes.length - meets;
  const closed = flows.filter((f) => f.closed.length > 0).length;
  return [
    work,
    meets === 0 ? '' : `${meets} ${meets === 1 ? 'clash' : 'clashes'} on the way`,
    close === 0 ? '' : `${close} ${close === 1 ? 'buffer' : 'buffers'} too small`,
    closed === 0 ? '' : `${closed} planned in a closed window`,
  ]
    .filter(Boolean)
    .join('; ');
}

/** A stretch of a line by the names of its sections where it begins and ends with them, else by its places. */
function stretchWords(line: Line | null, from: number, to: number): string {
  const [start, end] = [Math.round(from * 1000), Math.round(to * 1000)];
  const first = line?.zones.find((z) => Math.min(z.from, z.to) === Math.min(start, end));
  const last = line?.zones.find((z) => Math.max(z.from, z.to) === Math.max(start, end));
  if (first && last && first.name !== '' && last.name !== '')
    return first === last ? first.name : `${first.name} to ${last.name}`;
  const unit = line?.unit ?? '';
  const inUnit = unit === '' || isChainage(unit) || isFloors(unit) ? '' : ` ${unit}`;
  return `${placeWords(start, unit)} to ${placeWords(end, unit)}${inUnit}`;
}

function draw(room: Room, input: Input, selection: LineSelection, range: Range): Drawn | null {
  const { brief, plan, schedule } = input;
  const { frame, measure } = room;
  const size = frame.scaleSize;
  const { line, clashes } = selection;
  const named = {
    stations: brief.stations ? (line?.stations ?? []).map((s) => ({ ...s, at: s.at / 1000 })) : [],
    zones: brief.zones ? (line?.zones ?? []).map((z) => ({ ...z, from: z.from / 1000, to: z.to / 1000 })) : [],
  };
  const today = plan.statusDate === null ? null : dayOf(plan.statusDate) + 1;
  const status = today !== null && today > range.day0 && today < range.day1 ? today : null;
  const told = Math.min(clashes.length, TOLD + 1);
  const regions = regionsOf(room, selection, named, brief, range, status, {
    told,
    byPlace: byPlaceOf(brief, selection),
    overTime: stripsOverTime(brief, plan, selection),
  });
  if (!regions) return null;
  const { plane } = regions;
  const paper = { frame, measure };
  const words = { measure, amounts: input.amounts };
  const bands = zoneBands(named.zones, plane, regions.zonesAt, paper);
  const names = plane.across
    ? placeNames(named.stations, plane, regions.stationTops, room.right, paper)
    : stationsAside(named.stations, plane, size, measure);
  const windows = line && brief.windows ? windowNodes(line, plane, size, measure) : { nodes: [], words: [], names: [] };
  const gaps = brief.gaps ? gapsOf(selection.flows, brief.keep) : [];
  // At a larger size than the least all names have to have room.
  const all = !room.last && size > frame.leastType;
  const plotted = plotNodes(selection, brief, plane, windows.names, gaps, status, size, measure, all);
  const notes = notesOnLine(brief.marks, selection, plane, size, room, (ref) => schedule.outline.indexOf.has(ref));
  const cut = plotted.left + bands.left + names.left;
  if (cut > 0 && all) return null;
  const { across, place0, place1, day0, day1 } = plane;
  return {
    nodes: [
      ...bands.bands,
      ...selection.strips.flatMap((strip, k) => stripNodes(strip, plane, ...regions.strips[k]!)),
      ...windows.nodes,
      ...timeAxis(plane, paper),
      ...placeAxis(plane, line, paper),
      ...bands.names,
      ...stationLines(named.stations, plane, size),
      ...names.nodes,
      ...windows.words,
      ...plotted.nodes,
      ...(status === null ? [] : statusFlag(status, plane, size, measure)),
      ...regions.byPlace.flatMap(({ kind, band }) => placeStrip(kind, selection, plane, band, size, words)),
      ...overTime(input, selection, plane, size, words, room),
      ...notes.nodes,
      ...clashLines(selection, TOLD, regions.clashTop, room, size),
    ],
    rows: selection.flows.length + selection.blocks.length,
    shortened: plotted.shortened,
    without: [
      regions.beyond,
      cut > 0 ? `${cut} ${cut === 1 ? 'name has' : 'names have'} no room` : '',
      withoutRate(selection),
    ]
      .filter(Boolean)
      .join(' · '),
    handles: notes.handles,
    plane: {
      across,
      left: round(plane.left),
      right: round(plane.right),
      top: round(plane.top),
      bottom: round(plane.bottom),
      place0,
      place1,
      day0,
      day1,
      unit: line?.unit ?? '',
    },
  };
}

/** Works whose line on the page nobody can know. */
const withoutRate = ({ unknown }: LineSelection): string =>
  unknown === 0 ? '' : `${unknown} ${unknown === 1 ? 'work' : 'works'} without a rate that can be drawn`;

function advice(brief: LinearBrief): FitAdvice[] {
  return [
    ...(brief.names === 'each' ? [{ words: 'name the groups only', change: { names: 'group' } }] : []),
    ...(brief.rates ? [{ words: 'leave out the rates', change: { rates: false } }] : []),
  ];
}

/** A first page of a line: floors upwards, everything else across. */
export function suggestLinear(plan: Plan, _: Schedule, brief: LinearBrief): LinearBrief {
  const [first] = plan.lines;
  const on = (id: string | null) =>
    plan.activities.filter((a) => a.from !== null && a.from !== a.to && (a.line ?? first?.id ?? null) === id).length;
  // The line with the most work on it.
  const line = plan.lines.reduce((best, l) => (on(l.id) > on(best?.id ?? null) ? l : best), first);
  const colour = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null;
  return {
    ...brief,
    line: line && line !== first ? line.id : null,
    axes: line && isFloors(line.unit) ? 'up' : 'across',
    names: namesAlong(plan, line?.id ?? null),
    colour,
    page: 'A3 landscape',
  };
}
