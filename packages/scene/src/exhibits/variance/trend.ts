import { NOTHING_SHOWN } from '../../graph/shown';
import { categoriesOf } from '../../brief/palette';
import { dayOf, isMilestone, movesBetween, type Trend, trendsOf } from '@clembo/core';
import { MOST_TRENDS, type TrendBrief } from '../../brief/variance';
import { GREY, HAIRLINE, INK, SOFT_INK } from '../../graph/ink';
import { round, type Scene, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { ComposeInput, Promised } from '../composed';
import type { TextBox } from '../timeline/body';
import { marker } from '../timeline/shapes';
import { type Column, layColumns } from './columns';
import { lineEntry, statusEntry } from './entries';
import { rule } from '../../graph/nodes';
import { dayWordsOf, lateColour } from './paint';
import { composeSheet, type Drawn, type Room } from '../sheet';
import { timePlot } from './timePlot';

type Input = ComposeInput<TrendBrief>;

/** So many milestones are followed where nobody chose any. */
const FOLLOWED = 5;

/** Editions down, dates across: a line that stays upright is kept, one that leans to the right is slipping. */
export function composeTrend(input: Input): Scene {
  return composeSheet(input, () => {
    const { plan, schedule, brief, edition } = input;
    const editions: Promised[] = [...since(input), { plan, schedule, name: edition || 'Now' }];
    const refs = chosen(input, editions);
    const trends = trendsOf(editions, refs).filter(
      (t) => (t.ref !== null || brief.finish) && t.days.some((d) => d !== null),
    );
    const of = schedule.outline.isSummary.filter((x) => !x).length;
    return {
      kind: 'Trend',
      statement: said(trends, editions.length, plan.name),
      counts: {
        ...NOTHING_SHOWN,
        of,
        shown: trends.filter((t) => t.ref !== null).length,
        leftOut: of - trends.filter((t) => t.ref !== null).length,
      },
      content: {
        heads: ['Expected', ...editions.map((e) => e.name), 'Moved'],
        named: 0,
        rows: trends.map((t) => ({
          ref: t.ref,
          cells: [t.name, ...t.days.map((d) => (d === null ? '' : formatDay(d, 'long'))), movedWords(t, true)],
          values: [null, ...t.days.map((day) => (day === null ? null : { day })), null],
        })),
      },
      undated: [],
      legend: (frame) => [
        lineEntry(frame, 'Leans to the right: it slips', (x0, x1, y) => [
          rule(x0, y - frame.smallSize * 0.45, x1 * 0.5 + x0 * 0.5, y + frame.smallSize * 0.45, INK, 1.4, 'legend'),
        ]),
        ...(plan.statusDate === null ? [] : [statusEntry(frame)]),
      ],
      notice:
        editions.length < 2
          ? 'There is only one edition yet. Keep one every time, and this page shows how the dates moved.'
          : trends.length === 0
            ? 'There are no milestones to follow in this plan.'
            : null,
      advice: trends.length > 3 ? [{ words: 'follow fewer milestones', change: { refs: refs.slice(0, 3) } }] : [],
      draw: (room) => draw(room, trends, editions, input),
    };
  });
}

/** The editions from the one that is compared with on. */
function since({ editions, promised }: Input): readonly Promised[] {
  const from = editions.findIndex((e) => e.plan === promised!.plan);
  return from < 0 ? [promised!] : editions.slice(from);
}

/** The milestones that were chosen, else those that moved most, in the order of time. */
function chosen({ plan, schedule, brief }: Input, editions: readonly Promised[]): string[] {
  const known = new Map(plan.activities.map((a, i) => [a.ref, i]));
  if (brief.refs.length > 0) return brief.refs.filter((r) => known.has(r));
  const size = new Map(movesBetween(editions[0]!, { plan, schedule }).map((m) => [m.ref, Math.abs(m.finishDays)]));
  return plan.activities
    .flatMap((a, i) => (isMilestone(a.kind) ? [{ ref: a.ref, at: schedule.finish[i]! }] : []))
    .sort((x, y) => (size.get(y.ref) ?? 0) - (size.get(x.ref) ?? 0) || y.at - x.at)
    .slice(0, Math.min(FOLLOWED, MOST_TRENDS))
    .sort((x, y) => x.at - y.at)
    .map((m) => m.ref);
}

function movedWords({ moved }: Trend, long: boolean): string {
  if (moved === null) return '';
  if (moved === 0) return long ? 'where it was' : '0 d';
  return long
    ? `${dayWordsOf(moved)} ${moved > 0 ? 'later' : 'earlier'}`
    : `${Math.abs(moved)} d ${moved > 0 ? 'later' : 'earlier'}`;
}

function said(trends: readonly Trend[], editions: number, plan: string): string {
  const whole = trends.find((t) => t.ref === null);
  const points = trends.filter((t) => t.ref !== null && t.moved !== null && t.moved !== 0);
  const worst = points.sort((x, y) => Math.abs(y.moved!) - Math.abs(x.moved!))[0];
  const over = `over ${editions} editions`;
  const first =
    !whole || whole.moved === null
      ? `${plan} ${over}`
      : whole.moved === 0
        ? `The finish of ${plan} has stayed where it was ${over}`
        : `The finish of ${plan} has moved ${dayWordsOf(whole.moved)} ${whole.moved > 0 ? 'later' : 'earlier'} ${over}`;
  return worst
    ? `${first}; ${worst.name} moved most, ${dayWordsOf(worst.moved!)} ${worst.moved! > 0 ? 'later' : 'earlier'}`
    : first;
}

function draw(
  room: Room,
  trends: readonly Trend[],
  editions: readonly Promised[],
  { brief, plan, measure }: Input,
): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const columns: Column[] = [
    { title: 'Edition', align: 'left', most: 0.24, texts: editions.map((e) => ({ text: e.name })) },
    {
      title: 'Status',
      align: 'right',
      texts: editions.map((e) => ({
        text: e.plan.statusDate === null ? '' : formatDay(dayOf(e.plan.statusDate), 'medium'),
        fill: SOFT_INK,
      })),
    },
  ];
  const laid = layColumns(columns, size, room.left, frame.width, measure);
  if (room.right - laid.right < frame.width * 0.3) return null;
  const days = trends.flatMap((t) => t.days.filter((d) => d !== null));
  const [first, last] = [Math.min(...days), Math.max(...days)];
  const { statusDate } = plan;
  const from =
    statusDate !== null && statusDate < first * 1440 && first * 1440 - statusDate < 200 * 1440
      ? statusDate
      : first * 1440;
  const plot = timePlot(room, laid.right, { from, to: (last + 1) * 1440 }, statusDate);
  const x = (day: number) => plot.scale.x((day + 1) * 1440);
  const labels = namesOf(trends, x, plot.scale.left, plot.scale.right, size, measure);
  if (labels === null && !room.last) return null;
  const names = labels ?? [];
  const under = (names.reduce((m, l) => Math.max(m, l.line), 0) + 1) * size * 1.35 + size * 1.2;
  const fit = Math.floor((room.bottom - under - plot.top) / (size * 1.5));
  if (fit < editions.length) return null;
  const height = Math.min((room.bottom - under - plot.top) / editions.length, size * 9);
  const y = (k: number) => plot.top + height * (k + 0.5);
  const bottom = plot.top + height * editions.length;
  const colours = categoriesOf(brief.palette);
  const colourOf = (n: number) =>
    trends[n]!.ref === null ? INK : brief.print === 'grey' ? GREY : colours[n % colours.length]!;
  const boxes: TextBox[] = names.map((l) => {
    const base = bottom + size * 1.2 + l.line * size * 1.35;
    return { left: l.x - 1, right: l.x + l.width + 1, top: base - size * 0.9, bottom: base + size * 0.45 };
  });
  const items = trends.map((t, n): SceneNode => {
    const colour = colourOf(n);
    const ref = t.ref ?? undefined;
    const points = t.days.flatMap((d, k): [number, number][] => (d === null ? [] : [[x(d), y(k)]]));
    const thick = t.ref === null ? 2 : 1.4;
    const lines = points
      .slice(1)
      .map(
        ([x1, y1], k) =>
          ({ ...rule(points[k]![0], points[k]![1], x1, y1, colour, thick, 'curve'), ...(ref && { ref }) }) as SceneNode,
      );
    const marks = points.map(([px, py]) =>
      marker(t.ref === null ? 'circle' : 'diamond', px, py, size * 0.36, {
        fill: colour,
        stroke: colour,
        strokeWidth: 0.6,
        role: 'milestone',
        ...(ref && { ref }),
      }),
    );
    const label = names.find((l) => l.trend === n);
    const end = points.at(-1);
    const base = label ? bottom + size * 1.2 + label.line * size * 1.35 : 0;
    const stem =
      label && end
        ? brokenStem(
            end[0],
            end[1] + size * 0.36,
            base - size * 0.95,
            boxes.filter((_, k) => names[k] !== label),
          )
        : [];
    return {
      type: 'group',
      role: 'item',
      name: t.name,
      alt: `${t.days
        .map((d, k) => (d === null ? '' : `${editions[k]!.name}: ${formatDay(d, 'long')}`))
        .filter(Boolean)
        .join('; ')}`,
      ref: t.ref ?? 'finish',
      children: [
        ...stem,
        ...lines,
        ...marks,
        ...(label
          ? [
              {
                type: 'text',
                x: round(label.x),
                y: round(base),
                size,
                runs: [
                  { text: label.text, face: 'label', fill: INK },
                  ...(label.moved === ''
                    ? []
                    : [
                        {
                          text: ` ${label.moved}`,
                          face: 'labelStrong' as const,
                          fill: lateColour(t.moved ?? 0, brief.print),
                        },
                      ]),
                ],
                role: 'label',
                ...(ref && { ref }),
              } as SceneNode,
            ]
          : []),
      ],
    };
  });
  return {
    nodes: [
      ...plot.lines(bottom, []),
      ...plot.axis,
      ...laid.heads(plot.headBase),
      ...editions.flatMap((_, k) => laid.nodes(k, y(k))),
      ...items,
    ],
    rows: editions.length,
    shortened: laid.shortened + names.filter((l) => l.cut).length,
    without: labels === null ? 'names of milestones have no room' : '',
  };
}

/** A stem from the last mark down to its name; it ends at a name of something else at the same place. */
function brokenStem(x: number, top: number, bottom: number, others: readonly TextBox[]): SceneNode[] {
  const stop = others.filter((b) => b.left - 1 < x && b.right + 1 > x && b.top < bottom).map((b) => b.top - 1);
  const to = Math.min(bottom, ...stop);
  return to - top < 1 ? [] : [rule(x, top, x, to, HAIRLINE, 0.8, 'grid')];
}

interface Name {
  trend: number;
  text: string;
  moved: string;
  /** Where its last mark stands. */
  at: number;
  x: number;
  width: number;
  line: number;
  cut: boolean;
}

/** Whether two marks stand at the same place. */
const same = (a: number, b: number): boolean => Math.abs(a - b) < 3;

/** Most lines of names below the plot. */
const LINES = 7;

/** Names below the last marks, on as many lines as keep them apart; no stem passes through a name. */
function namesOf(
  trends: readonly Trend[],
  x: (day: number) => number,
  left: number,
  right: number,
  size: number,
  measure: Input['measure'],
): Name[] | null {
  const placed: Name[] = [];
  const order = trends
    .map((t, trend) => ({ t, trend, at: x(t.days.findLast((d) => d !== null)!) }))
    .sort((a, b) => b.at - a.at);
  const stems = order.map((o) => o.at);
  for (const { t, trend, at } of order) {
    const moved = movedWords(t, false);
    const tail = moved === '' ? 0 : measure.width('labelStrong', size, ` ${moved}`);
    const whole = measure.clean(t.name);
    const text = measure.shorten('label', size, whole, Math.max(size * 8, right - left - tail));
    const width = measure.width('label', size, text) + tail;
    let name: Name | null = null;
    for (let line = 0; line < LINES && !name; line++) {
      for (const start of [Math.max(left, at - size * 0.4), Math.min(right - width, at - width + size * 0.4)]) {
        if (start < left - 0.01 || start + width > right + size) continue;
        const apart = placed.every(
          (p) => p.line !== line || start > p.x + p.width + size || start + width + size < p.x,
        );
        // Stems of names further down pass here.
        const free = stems.every((s, k) => {
          const other = placed.find((p) => p.trend === order[k]!.trend);
          const lower = other ? other.line > line : order[k]!.trend !== trend && !other;
          // One that stands at the same place ends at this name.
          return order[k]!.trend === trend || same(s, at) || !lower || s < start - 2 || s > start + width + 2;
        });
        // Nor does its own stem pass through a name above it.
        const clear = placed.every((p) => p.line >= line || same(p.at, at) || at < p.x - 2 || at > p.x + p.width + 2);
        if (apart && free && clear) {
          name = { trend, text, moved, at, x: start, width, line, cut: text !== whole };
          break;
        }
      }
    }
    if (!name) return null;
    placed.push(name);
  }
  return placed;
}
