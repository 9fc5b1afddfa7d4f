import { isMilestone, MINUTES_PER_DAY, statusEnd } from '@clembo/core';
import type { SlipsBrief } from '../../brief/variance';
import { PAPER, SOFT_INK } from '../../graph/ink';
import { type ContentValue, polygon, round, type Scene, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import type { TextBox } from '../timeline/body';
import { type Column, layColumns } from './columns';
import { lineEntry, statusEntry } from './entries';
import { BASE, rule, write } from '../../graph/nodes';
import { dayWordsOf, lateColour, offWordsOf } from './paint';
import { countRows, noRoomOf, type VarianceRow, varianceRows } from './rows';
import { composeSheet, type Drawn, type Room, LARGEST_OF_ROWS, rowReach } from '../sheet';
import { dateStyle, timePlot } from './timePlot';

type Input = ComposeInput<SlipsBrief>;

/** What slipped: promised and current place joined by an arrow, the latest first, the most ahead last. */
export function composeSlips(input: Input): Scene {
  return composeSheet(input, () => {
    const { brief, plan } = input;
    const all = varianceRows(input);
    const rows = all.rows
      .filter((r) => wanted(r, brief))
      .sort((x, y) => offOf(y, brief) - offOf(x, brief) || x.now.last - y.now.last);
    const counts = countRows(all.counts, rows, all.rows);
    const style = rows.length === 0 ? 'short' : dateStyle(...spanOf(rows, brief));
    const { by } = brief;
    return {
      kind: 'Slips',
      statement: said(input, rows, all.rows),
      counts,
      content: {
        heads: ['Name', `Promised ${by}`, `${by === 'finish' ? 'Finish' : 'Start'} now`, 'Off by'],
        named: 0,
        rows: rows.map((r) => ({
          ref: r.ref,
          cells: [r.name, day(r, 'then', by, 'long'), day(r, 'now', by, 'long'), offWordsOf(offOf(r, brief))],
          values: [null, dayValue(r, 'then', by), dayValue(r, 'now', by), { number: offOf(r, brief) }],
        })),
      },
      undated: all.undated,
      legend: (frame) => legend(frame, rows, brief, plan.statusDate !== null),
      largest: LARGEST_OF_ROWS,
      notice: rows.length > 0 ? null : emptyWords(brief, counts.of, all.rows.length),
      advice: [
        ...(brief.of === 'each' && plan.codeFields[0]
          ? [{ words: `add up by ${plan.codeFields[0].name.toLowerCase()}`, change: { of: plan.codeFields[0].id } }]
          : []),
        ...(brief.least < 10 ? [{ words: 'show 10 working days or more', change: { least: 10 } }] : []),
      ],
      draw: (room) => draw(room, rows, input, style),
    };
  });
}

const offOf = (r: VarianceRow, { by }: SlipsBrief): number => (by === 'finish' ? r.finishOff : r.startOff) ?? 0;

function wanted(r: VarianceRow, brief: SlipsBrief): boolean {
  const off = offOf(r, brief);
  if (r.then === null || off === 0 || Math.abs(off) < brief.least) return false;
  return brief.only === 'both' || (brief.only === 'late') === off > 0;
}

const dayIn = (r: VarianceRow, which: 'now' | 'then', by: 'finish' | 'start'): number | null => {
  const at = which === 'now' ? r.now : r.then;
  return at === null ? null : by === 'finish' ? at.last : at.first;
};

const day = (r: VarianceRow, which: 'now' | 'then', by: 'finish' | 'start', style: 'short' | 'medium' | 'long') => {
  const at = dayIn(r, which, by);
  return at === null ? '' : formatDay(at, style);
};

const dayValue = (r: VarianceRow, which: 'now' | 'then', by: 'finish' | 'start'): ContentValue | null => {
  const at = dayIn(r, which, by);
  return at === null ? null : { day: at };
};

/** The moment of a row on the scale: the end of the day on which it ends, the beginning of the one on which it starts. */
const momentOf = (r: VarianceRow, which: 'now' | 'then', by: 'finish' | 'start'): number => {
  const at = (which === 'now' ? r.now : r.then)!;
  return by === 'finish' ? (at.last + 1) * 1440 : at.first * 1440;
};

/** Where dates are days, no slip is drawn hour by hour. */
function wideEnough([from, to]: [from: number, to: number], inHours: boolean): [from: number, to: number] {
  const pad = inHours ? 0 : Math.max(0, (14 * MINUTES_PER_DAY - (to - from)) / 2);
  return [from - pad, to + pad];
}

const spanOf = (rows: readonly VarianceRow[], { by }: SlipsBrief): [from: number, to: number] => {
  let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const r of rows)
    for (const which of ['now', 'then'] as const) {
      from = Math.min(from, momentOf(r, which, by));
      to = Math.max(to, momentOf(r, which, by));
    }
  return [from, to];
};

/** How many are behind the promise, and which most; what the page leaves out by its least days is said too. */
function said({ brief, plan }: Input, rows: readonly VarianceRow[], asked: readonly VarianceRow[]): string {
  const promised = asked.filter((r) => r.then !== null).length;
  const behind = asked.filter((r) => offOf(r, brief) > 0).sort((x, y) => offOf(y, brief) - offOf(x, brief));
  if (promised === 0) return plan.name;
  const things = brief.of === 'each' ? 'activities' : 'parts';
  if (behind.length === 0)
    return rows.length === 0
      ? `${plan.name}: none of ${promised} ${things} is off its promise`
      : `${plan.name}: ${rows.length} of ${promised} ${things} ${rows.length === 1 ? 'is' : 'are'} ahead of the promise`;
  const [worst] = behind;
  const left = behind.filter((r) => !rows.includes(r)).length;
  const least = left === 0 || brief.least <= 1 ? '' : `; ${left} of them by less than ${brief.least} d`;
  return `${plan.name}: ${behind.length} of ${promised} ${things} ${behind.length === 1 ? 'is' : 'are'} behind the promise, ${worst!.name} most: ${dayWordsOf(offOf(worst!, brief))}${least}`;
}

function emptyWords(brief: SlipsBrief, of: number, asked: number): string {
  if (of === 0) return 'This plan has no activities yet.';
  if (asked === 0) return 'Nothing in the plan is what this brief asks for.';
  return brief.only === 'ahead'
    ? 'Nothing that was asked for is ahead of its promise by so much.'
    : 'Nothing that was asked for is off its promise by so much.';
}

/** A promised place: a hollow ring, a hollow diamond for milestones. */
function promisedPlace(x: number, y: number, r: number, point: boolean, ref?: string): SceneNode {
  const about = { fill: PAPER, stroke: SOFT_INK, strokeWidth: 1, role: 'promised' as const, ...(ref && { ref }) };
  if (!point) return { type: 'circle', x: round(x), y: round(y), radius: round(r), ...about };
  const d = r * 1.25;
  return polygon(
    [
      [round(x), round(y - d)],
      [round(x + d), round(y)],
      [round(x), round(y + d)],
      [round(x - d), round(y)],
    ],
    about,
  );
}

/** From the promised to the current place: a line with a head that points at where it is now. */
export function arrow(x0: number, x1: number, y: number, size: number, colour: string, ref?: string): SceneNode[] {
  const way = x1 >= x0 ? 1 : -1;
  const head = Math.min(size * 0.62, Math.abs(x1 - x0));
  const about = ref === undefined ? {} : { ref };
  return [
    { ...rule(x0, y, x1 - way * head, y, colour, round(Math.max(1.1, size * 0.15)), 'mark'), ...about } as SceneNode,
    polygon(
      [
        [round(x1), round(y)],
        [round(x1 - way * head), round(y - size * 0.32)],
        [round(x1 - way * head), round(y + size * 0.32)],
      ],
      { fill: colour, role: 'mark', ...about },
    ),
  ];
}

function legend(frame: PageFrame, rows: readonly VarianceRow[], brief: SlipsBrief, status: boolean) {
  const size = frame.smallSize;
  const one = (title: string, way: 1 | -1) =>
    lineEntry(frame, title, (x0, x1, y) => [
      ...arrow(way > 0 ? x0 : x1, way > 0 ? x1 : x0, y, size, lateColour(way, brief.print)),
      promisedPlace(way > 0 ? x0 : x1, y, size * 0.3, false),
    ]);
  return [
    ...(rows.some((r) => offOf(r, brief) > 0) ? [one('From the promised to a later day', 1)] : []),
    ...(rows.some((r) => offOf(r, brief) < 0) ? [one('From the promised to an earlier day', -1)] : []),
    ...(rows.some((r) => r.milestone)
      ? [
          {
            title: 'Milestone',
            width: size,
            draw: (x: number, y: number) => [promisedPlace(x + size / 2, y, size * 0.34, true)],
          },
        ]
      : []),
    ...(status ? [statusEntry(frame)] : []),
  ];
}

function draw(
  room: Room,
  rows: readonly VarianceRow[],
  { brief, plan, measure }: Input,
  style: 'short' | 'medium',
): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const { by } = brief;
  const columns: Column[] = [
    {
      title: brief.of === 'each' ? 'Activity' : '',
      align: 'left',
      most: 0.3,
      texts: rows.map((r) => ({ text: r.name })),
    },
    {
      title: 'Promised',
      align: 'right',
      texts: rows.map((r) => ({ text: day(r, 'then', by, style), fill: SOFT_INK })),
    },
    { title: 'Now', align: 'right', texts: rows.map((r) => ({ text: day(r, 'now', by, style) })) },
  ];
  const laid = layColumns(columns, size, room.left, frame.width, measure);
  const [from, to] = wideEnough(spanOf(rows, brief), plan.inHours);
  // The status date belongs on a scale that is near it.
  const status = statusEnd(plan);
  const near = status !== null && status > from - (to - from) / 2 && status < to + (to - from) / 2;
  const all = near ? [Math.min(from, status), Math.max(to, status)] : [from, to];
  const words = (r: VarianceRow) => offWordsOf(offOf(r, brief));
  const widest = rows.reduce((most, r) => Math.max(most, measure.width('labelStrong', size, words(r))), 0);
  const width = room.right - laid.right;
  if (width < widest * 2.5) return null;
  // Words stand behind the heads of arrows: the scale leaves room for them.
  const share = (all[1]! - all[0]! || 1440) * (widest / (width - 2 * widest));
  const plot = timePlot(
    room,
    laid.right,
    { from: all[0]! - (rows.some((r) => offOf(r, brief) < 0) ? share : 0), to: all[1]! + share },
    plan.statusDate,
  );
  const least = size * 1.4;
  const fit = Math.floor((room.bottom - plot.top) / least);
  if (fit < rows.length && !room.last) return null;
  if (fit < 1) return null;
  const shown = rows.slice(0, fit);
  const height = Math.min((room.bottom - plot.top) / shown.length, size * rowReach(shown.length));
  const boxes: TextBox[] = [];
  const marks: SceneNode[] = [];
  shown.forEach((r, k) => {
    const y = plot.top + height * (k + 0.5);
    const ref = r.ref ?? undefined;
    const [x0, x1] = [plot.scale.x(momentOf(r, 'then', by)), plot.scale.x(momentOf(r, 'now', by))];
    const off = offOf(r, brief);
    const colour = lateColour(off, brief.print);
    const text = words(r);
    const wide = measure.width('labelStrong', size, text);
    const x = off > 0 ? x1 + size * 0.5 : x1 - size * 0.5 - wide;
    boxes.push({ left: x, right: x + wide, top: y - size * 0.5, bottom: y + size * 0.5 });
    const point = r.ref !== null && isMilestone(plan.activities[r.members[0]!]!.kind);
    marks.push({
      type: 'group',
      role: 'item',
      name: r.name,
      alt: `promised ${day(r, 'then', by, 'long')}, now ${day(r, 'now', by, 'long')}, ${dayWordsOf(off)} ${off > 0 ? 'late' : 'ahead'}`,
      ref: r.ref ?? r.name,
      children: [
        ...laid.nodes(k, y, ref),
        ...arrow(x0, x1, y, size, colour, ref),
        promisedPlace(x0, y, size * 0.3, point, ref),
        write(x, y + size * BASE, size, text, colour, 'label', 'labelStrong', ref),
      ],
    });
  });
  const bottom = plot.top + height * shown.length;
  const left = rows.length - shown.length;
  return {
    nodes: [...plot.lines(bottom, boxes), ...plot.axis, ...laid.heads(plot.headBase), ...marks],
    rows: shown.length,
    shortened: laid.shortened,
    noRoom: noRoomOf(rows.slice(shown.length)),
    without: left === 0 ? '' : 'those that are off least have no room',
  };
}
