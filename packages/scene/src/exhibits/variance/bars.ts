import { type Plan, wholePercent } from '@clembo/core';
import type { BarsBrief } from '../../brief/variance';
import { NEUTRAL, SOFT_INK, GREY } from '../../graph/ink';
import type { Scene, SceneNode } from '../../graph/scene';
import { type LegendEntry, sampleHeight } from '../../page/legend';
import type { PageFrame } from '../../page/frame';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { barMark, type BarPlace, type MarkLook, milestoneMark, promisedMark, stretchedMark } from '../timeline/marks';
import { type Column, layColumns } from './columns';
import { statusEntry } from './entries';
import { bandInk, offWordsOf } from './paint';
import { countRows, noRoomOf, type VarianceRow, varianceRows } from './rows';
import { composeSheet, type Drawn, type Room, LARGEST_OF_ROWS, rowReach } from '../sheet';
import { dateStyle, timePlot } from './timePlot';

type Input = ComposeInput<BarsBrief>;

/** Two bars a row: the promise as a hollow outline half a row lower, above it where the work stands now. */
export function composeBars(input: Input): Scene {
  return composeSheet(input, () => {
    const { brief, plan } = input;
    const all = varianceRows({ ...input, brief: { ...brief, of: 'each' } });
    const inside = all.rows.filter((r) => overlaps(r, brief));
    const rows = ordered(
      inside.filter((r) => wanted(r, brief)),
      brief,
    );
    const counts = countRows(all.counts, rows, all.rows);
    const outside = all.rows.length - inside.length;
    const style = rows.length === 0 ? 'short' : dateStyle(...spanOf(rows, brief));
    return {
      kind: 'Then and now',
      statement: said(plan, rows),
      counts: { ...counts, outside, leftOut: counts.leftOut - outside },
      content: {
        heads: ['Name', 'Promised', 'Now', 'Done', 'Off by', 'Notes'],
        named: 0,
        rows: rows.map((r) => ({
          ref: r.ref,
          cells: [
            r.name,
            r.then ? spanWords(r, r.then.first, r.then.last) : 'not in the promise',
            spanWords(r, r.now.first, r.now.last),
            `${wholePercent(r.progress * 100)} %`,
            r.finishOff === null ? '' : offWordsOf(r.finishOff),
            r.critical ? 'critical' : '',
          ],
          values: [
            null,
            null,
            null,
            { share: r.progress },
            r.finishOff === null ? null : { number: r.finishOff },
            null,
          ],
        })),
      },
      undated: all.undated,
      legend: (frame) => legend(frame, rows, brief, plan.statusDate !== null),
      largest: LARGEST_OF_ROWS,
      notice: rows.length > 0 ? null : 'Nothing in the plan is what this brief asks for.',
      advice: [
        ...(brief.only === 'all' ? [{ words: 'show only what is off', change: { only: 'off' } }] : []),
        ...(brief.include === 'both' ? [{ words: 'show milestones only', change: { include: 'milestones' } }] : []),
      ],
      draw: (room) => draw(room, rows, input, style),
    };
  });
}

/** How many of the rows end later, earlier and as promised. */
function said(plan: Plan, rows: readonly VarianceRow[]): string {
  const known = rows.filter((r) => r.finishOff !== null);
  if (known.length === 0) return plan.name;
  const later = known.filter((r) => r.finishOff! > 0).length;
  const earlier = known.filter((r) => r.finishOff! < 0).length;
  return `${plan.name}: of ${known.length} shown, ${later} ${later === 1 ? 'ends' : 'end'} later than promised, ${earlier} earlier, ${known.length - later - earlier} as promised`;
}

const overlaps = (r: VarianceRow, { from, to }: BarsBrief): boolean => {
  const [first, last] = [
    Math.min(r.now.start, r.then?.start ?? r.now.start),
    Math.max(r.now.finish, r.then?.finish ?? r.now.finish),
  ];
  return (from === null || last >= from) && (to === null || first <= to);
};

function wanted(r: VarianceRow, { only }: BarsBrief): boolean {
  if (only === 'off') return r.finishOff !== 0 || r.startOff !== 0;
  if (only === 'critical') return r.critical;
  return only === 'all' || !r.complete;
}

function ordered(rows: VarianceRow[], { order }: BarsBrief): VarianceRow[] {
  if (order === 'plan') return rows;
  const by = (r: VarianceRow) => (order === 'start' ? r.now.start : -(r.finishOff ?? Number.NEGATIVE_INFINITY));
  return [...rows].sort((x, y) => by(x) - by(y) || x.now.start - y.now.start);
}

function spanOf(rows: readonly VarianceRow[], brief: BarsBrief): [from: number, to: number] {
  let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { now, then } of rows) {
    from = Math.min(from, now.first * 1440, (then?.first ?? now.first) * 1440);
    to = Math.max(to, (now.last + 1) * 1440, ((then?.last ?? now.last) + 1) * 1440);
  }
  from = brief.from ?? from;
  return [from, Math.max(brief.to ?? to, from + 1440)];
}

const spanWords = (r: VarianceRow, first: number, last: number): string =>
  r.milestone || first === last ? formatDay(last, 'long') : `${formatDay(first, 'long')} to ${formatDay(last, 'long')}`;

const lookOf = (r: VarianceRow, { print }: BarsBrief): MarkLook => ({
  colour: print === 'grey' ? GREY : NEUTRAL,
  shape: 'diamond',
  pattern: 0,
  critical: r.critical,
  complete: r.complete,
  ...(r.ref !== null && { ref: r.ref }),
});

function legend(frame: PageFrame, rows: readonly VarianceRow[], brief: BarsBrief, status: boolean): LegendEntry[] {
  const height = sampleHeight(frame);
  const wide = frame.smallSize * 2.8;
  const bar = (x: number, y: number, done: number, critical: boolean) =>
    barMark(
      {
        x0: x,
        x1: x + wide,
        done: x + done,
        top: y - height / 2,
        height,
        cutLeft: false,
        cutRight: false,
        group: false,
      },
      { ...lookOf(rows[0]!, brief), critical, complete: false },
    );
  const has = (test: (r: VarianceRow) => boolean) => rows.some(test);
  const entries: [boolean, LegendEntry][] = [
    [
      has((r) => !r.milestone),
      { title: 'Where it stands now, with what is done', width: wide, draw: (x, y) => bar(x, y, wide / 2, false) },
    ],
    [has((r) => r.critical), { title: 'Critical', width: wide, draw: (x, y) => bar(x, y, 0, true) }],
    [
      has((r) => r.then !== null && !r.milestone),
      {
        title: 'As promised',
        width: wide,
        draw: (x, y) => [promisedMark(x, x + wide, y - height * 0.3, height * 0.6, false)],
      },
    ],
    [
      has((r) => r.milestone),
      {
        title: 'Milestone, and where it was promised',
        width: height * 2.4,
        draw: (x, y) => [
          ...milestoneMark(x + height / 2, y, height * 0.5, {
            ...lookOf(rows[0]!, brief),
            critical: false,
            complete: true,
          }),
          promisedMark(x + height * 1.9, x + height * 1.9, y - height * 0.35, height * 0.7, true),
        ],
      },
    ],
    [status, statusEntry(frame)],
  ];
  return entries.filter(([when]) => when).map(([, entry]) => entry);
}

function draw(
  room: Room,
  rows: readonly VarianceRow[],
  { brief, plan, measure }: Input,
  style: 'short' | 'medium',
): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const columns: Column[] = [
    { title: 'Activity', align: 'left', most: 0.28, texts: rows.map((r) => ({ text: r.name })) },
    {
      title: 'Promised',
      align: 'right',
      texts: rows.map((r) => ({ text: r.then ? formatDay(r.then.last, style) : 'new', fill: SOFT_INK })),
    },
    { title: 'Now', align: 'right', texts: rows.map((r) => ({ text: formatDay(r.now.last, style) })) },
    {
      title: 'Off by',
      align: 'right',
      texts: rows.map((r) => ({
        text: r.finishOff === null ? '' : offWordsOf(r.finishOff),
        fill: bandInk(r.band, brief.print),
        strong: r.band === 'watch' || r.band === 'breach',
      })),
    },
  ];
  const laid = layColumns(columns, size, room.left, frame.width, measure);
  if (room.right - laid.right < frame.width * 0.3) return null;
  const [from, to] = spanOf(rows, brief);
  const plot = timePlot(
    room,
    laid.right,
    { from, to, exact: brief.from !== null && brief.to !== null },
    plan.statusDate,
  );
  const fit = Math.floor((room.bottom - plot.top) / (size * 1.75));
  if ((fit < rows.length && !room.last) || fit < 1) return null;
  const shown = rows.slice(0, fit);
  const height = Math.min((room.bottom - plot.top) / shown.length, size * Math.max(3, rowReach(shown.length)));
  const bar = Math.min(height * 0.42, size * 1.25);
  const outline = bar * 0.5;
  const clamp = (x: number) => Math.min(plot.scale.right, Math.max(plot.scale.left, x));
  const items = shown.map((r, k): SceneNode => {
    const y = plot.top + height * (k + 0.5);
    const top = y - (bar + outline * 1.1) / 2;
    const x = (day: number) => plot.scale.x(day * 1440);
    const inside = (a: number, b: number) => b >= plot.scale.left && a <= plot.scale.right;
    const look = lookOf(r, brief);
    const [n0, n1] = r.milestone
      ? [plot.scale.x(r.now.finish), plot.scale.x(r.now.finish)]
      : [x(r.now.first), x(r.now.last + 1)];
    const place: BarPlace = {
      x0: clamp(n0),
      x1: clamp(n1),
      done: clamp(n0 + (n1 - n0) * r.progress),
      top,
      height: bar,
      cutLeft: n0 < plot.scale.left - 0.01,
      cutRight: n1 > plot.scale.right + 0.01,
      group: false,
    };
    const parts = r.stretches?.map((p): [number, number] => [
      clamp(plot.scale.x(p.start)),
      clamp(plot.scale.x(p.finish)),
    ]);
    const now = !inside(n0, n1)
      ? []
      : r.milestone
        ? milestoneMark(n0, top + bar / 2, bar * 0.55, look)
        : parts
          ? stretchedMark(
              parts.filter(([a, b]) => b > a),
              place,
              look,
            )
          : barMark(place, look);
    const t0 = r.then && (r.milestone ? plot.scale.x(r.then.finish) : x(r.then.first));
    const t1 = r.then && (r.milestone ? t0! : x(r.then.last + 1));
    const then =
      t0 === null || t1 === null || !inside(t0, t1)
        ? []
        : [
            promisedMark(
              clamp(t0),
              clamp(t1),
              r.milestone ? top + bar * 0.85 : top + bar + outline * 0.1,
              r.milestone ? outline * 1.4 : outline,
              r.milestone,
              r.ref ?? undefined,
            ),
          ];
    return {
      type: 'group',
      role: 'item',
      name: r.name,
      alt: `${spanWords(r, r.now.first, r.now.last)}${r.finishOff === null ? '' : `, ${offWordsOf(r.finishOff)}`}`,
      ref: r.ref!,
      children: [...laid.nodes(k, y, r.ref!), ...then, ...now],
    };
  });
  const bottom = plot.top + height * shown.length;
  const left = rows.length - shown.length;
  return {
    nodes: [...plot.lines(bottom, []), ...plot.axis, ...laid.heads(plot.headBase), ...items],
    rows: shown.length,
    shortened: laid.shortened,
    noRoom: noRoomOf(rows.slice(shown.length)),
    without: left === 0 ? '' : 'the last rows have no room',
  };
}
