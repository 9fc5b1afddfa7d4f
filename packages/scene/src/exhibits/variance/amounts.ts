import { amountAtEnd, type Band, bandOfRatio, type Plan } from '@clembo/core';
import type { AmountsBrief } from '../../brief/variance';
import { HAIRLINE, INK, PAPER, SOFT_INK } from '../../graph/ink';
import { polygon, round, type Scene, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import type { ComposeInput } from '../composed';
import { brokenLine, type TextBox } from '../timeline/body';
import { type Column, layColumns } from './columns';
import { BASE, rule, write } from '../../graph/nodes';
import { bandFill, bandInk } from './paint';
import { countRows, noRoomOf, type VarianceRow, varianceRows } from './rows';
import { composeSheet, type Drawn, type Room, LARGEST_OF_ROWS, rowReach } from '../sheet';

type Input = ComposeInput<AmountsBrief>;

interface AmountRow {
  row: VarianceRow;
  now: number;
  promised: number;
  spent: number;
  ratio: number;
  band: Band;
}

/** More than so many times the budget is drawn with an open end. */
const MOST_RATIO = 3;

/** What amounts will come to, as shares of their budgets, with the bands of what is normal. */
export function composeAmounts(input: Input): Scene {
  return composeSheet(input, () => {
    const { brief, amounts, plan } = input;
    const all = varianceRows(input);
    const known = all.rows.flatMap((r) => amountOf(input, r) ?? []);
    const rows = ordered(
      known.filter((r) => wanted(r, brief)),
      brief,
    );
    const say = (v: number) => amounts.amount(v, brief.amount);
    const { bounds, same } = boundsOf(rows, plan, brief);
    return {
      kind: 'Amounts',
      statement: said(input, known),
      counts: countRows(
        all.counts,
        rows.map((r) => r.row),
        all.rows,
      ),
      content: {
        heads: ['Name', 'Budget', 'Spent', 'Will come to', 'Of the budget', 'Stands'],
        named: 0,
        rows: rows.map((r) => ({
          ref: r.row.ref,
          cells: [r.row.name, say(r.promised), say(r.spent), say(r.now), `${percent(r.ratio)} %`, BAND_WORDS[r.band]],
          values: [null, { number: r.promised }, { number: r.spent }, { number: r.now }, { share: r.ratio }, null],
        })),
      },
      undated: all.undated,
      legend: (frame) => legend(frame, rows, brief),
      largest: LARGEST_OF_ROWS,
      notice:
        rows.length > 0
          ? null
          : known.length === 0
            ? `No ${brief.amount} was promised for what this brief asks for, so there is nothing to compare.`
            : `No ${brief.amount} that was asked for is off its budget.`,
      advice:
        brief.of === 'each' && plan.codeFields[0]
          ? [{ words: `add up by ${plan.codeFields[0].name.toLowerCase()}`, change: { of: plan.codeFields[0].id } }]
          : [],
      draw: (room) => draw(room, rows, input, bounds, same),
    };
  });
}

const BAND_WORDS: Record<Band, string> = {
  ahead: 'under budget',
  inTolerance: 'within what is normal',
  watch: 'to be watched',
  breach: 'far off',
};

const percent = (ratio: number): number => Math.round(100 * ratio);

/** What an amount of a row will come to against its budget; null where nothing was promised. */
function amountOf({ plan, promised, brief }: Input, row: VarianceRow): AmountRow | null {
  const { amount } = brief;
  const b = promised!;
  let [now, then, spent] = [0, 0, 0];
  for (const i of row.members) {
    const a = plan.activities[i]!;
    const j = b.schedule.outline.indexOf.get(a.ref);
    then += j === undefined ? 0 : (b.plan.activities[j]![amount] ?? 0);
    now += amountAtEnd(a, amount) ?? 0;
    spent += (amount === 'cost' ? a.actualCost : a.actualEffort) ?? 0;
  }
  if (then <= 0) return null;
  const ratio = now / then;
  return { row, now, promised: then, spent, ratio, band: bandOfRatio(ratio, row.tolerance[amount]) };
}

function wanted(r: AmountRow, { only }: AmountsBrief): boolean {
  if (only === 'off') return percent(r.ratio) !== 100;
  if (only === 'over') return percent(r.ratio) > 100;
  return only === 'all' || r.band === 'watch' || r.band === 'breach';
}

function ordered(rows: AmountRow[], { order }: AmountsBrief): AmountRow[] {
  if (order === 'plan') return rows;
  const by = (r: AmountRow) => (order === 'ratio' ? r.ratio : r.promised);
  return [...rows].sort((x, y) => by(y) - by(x) || y.promised - x.promised);
}

/** The bounds that are shaded: the plan's, or those that all rows share. */
function boundsOf(rows: readonly AmountRow[], plan: Plan, { amount }: AmountsBrief) {
  const [first] = rows;
  const shared =
    first && rows.every((r) => r.row.tolerance === first.row.tolerance) ? first.row.tolerance : plan.tolerance;
  return { bounds: shared[amount], same: rows.every((r) => r.row.tolerance === shared) };
}

function said({ brief, plan, amounts }: Input, rows: readonly AmountRow[]): string {
  const [now, then] = rows.reduce(([a, b], r) => [a + r.now, b + r.promised], [0, 0]);
  if (then === 0) return plan.name;
  const what = brief.amount === 'effort' ? 'Effort' : 'Cost';
  const share = percent(now / then) - 100;
  const whole =
    share === 0
      ? `${what} of ${plan.name} will come to ${amounts.amount(now, brief.amount)}, as promised`
      : `${what} of ${plan.name} will come to ${amounts.amount(now, brief.amount)}, ${Math.abs(share)} % ${share > 0 ? 'more' : 'less'} than promised`;
  const worst = [...rows].sort((x, y) => y.ratio - x.ratio)[0]!;
  return worst.band === 'watch' || worst.band === 'breach'
    ? `${whole}; ${worst.row.name}: ${percent(worst.ratio)} % of its budget`
    : whole;
}

function legend(frame: PageFrame, rows: readonly AmountRow[], brief: AmountsBrief): LegendEntry[] {
  const wide = frame.smallSize * 1.8;
  const height = frame.smallSize * 0.95;
  return (['ahead', 'inTolerance', 'watch', 'breach'] as const)
    .filter((band) => rows.some((r) => r.band === band))
    .map((band) => ({
      title: { ahead: 'Under budget', inTolerance: 'Within what is normal', watch: 'To be watched', breach: 'Far off' }[
        band
      ],
      width: wide,
      draw: (x, y) => [bar(x, x + wide, y, height, bandFill(band, brief.print))],
    }));
}

const bar = (x0: number, x1: number, y: number, height: number, fill: string, ref?: string): SceneNode => ({
  type: 'rect',
  x: round(x0),
  y: round(y - height / 2),
  width: round(Math.max(0.5, x1 - x0)),
  height: round(height),
  radius: round(Math.min(height * 0.18, 3)),
  fill,
  role: 'bar',
  ...(ref === undefined ? {} : { ref }),
});

function draw(
  room: Room,
  rows: readonly AmountRow[],
  { brief, measure, amounts }: Input,
  bounds: { watch: number; breach: number },
  same: boolean,
): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const say = (v: number) => amounts.amount(v, brief.amount);
  const columns: Column[] = [
    { title: '', align: 'left', most: 0.3, texts: rows.map((r) => ({ text: r.row.name })) },
    { title: 'Budget', align: 'right', texts: rows.map((r) => ({ text: say(r.promised), fill: SOFT_INK })) },
    { title: 'Spent', align: 'right', texts: rows.map((r) => ({ text: say(r.spent), fill: SOFT_INK })) },
    { title: 'Will come to', align: 'right', texts: rows.map((r) => ({ text: say(r.now) })) },
  ];
  const laid = layColumns(columns, size, room.left, frame.width, measure);
  const width = room.right - laid.right;
  const room4 = measure.width('labelStrong', size, '1,000 %') + size * 0.6;
  if (width < frame.width * 0.25) return null;
  const most = Math.max(
    1 + bounds.breach + 0.1,
    Math.min(
      MOST_RATIO,
      rows.reduce((m, r) => Math.max(m, r.ratio), 0),
    ),
  );
  const x = (ratio: number) => laid.right + (Math.min(ratio, most) / most) * (width - room4);
  const headBase = room.top + size * 1.5;
  const top = headBase + size * 0.8;
  const fit = Math.floor((room.bottom - top) / (size * 1.45));
  if ((fit < rows.length && !room.last) || fit < 1) return null;
  const shown = rows.slice(0, fit);
  const height = Math.min((room.bottom - top) / shown.length, size * rowReach(shown.length));
  const bottom = top + height * shown.length;
  const marks = [
    { at: 1, text: '100 %' },
    ...(bounds.watch > 0 ? [{ at: 1 + bounds.watch, text: `${percent(1 + bounds.watch)} %` }] : []),
    ...(bounds.breach > bounds.watch ? [{ at: 1 + bounds.breach, text: `${percent(1 + bounds.breach)} %` }] : []),
  ];
  const boxes: TextBox[] = [];
  const items = shown.map((r, k): SceneNode => {
    const y = top + height * (k + 0.5);
    const ref = r.row.ref ?? undefined;
    const end = x(r.ratio);
    const text = `${amounts.number(percent(r.ratio))} %`;
    const wide = measure.width('labelStrong', size, text);
    const left = end + size * 0.5;
    boxes.push({ left, right: left + wide, top: y - size * 0.5, bottom: y + size * 0.5 });
    const thick = Math.min(height * 0.66, size * 1.4);
    const open = r.ratio > most + 1e-9;
    return {
      type: 'group',
      role: 'item',
      name: r.row.name,
      alt: `${say(r.now)} of ${say(r.promised)}, ${text}, ${BAND_WORDS[r.band]}`,
      ref: r.row.ref ?? r.row.name,
      children: [
        ...laid.nodes(k, y, ref),
        bar(laid.right, end, y, thick, bandFill(r.band, brief.print), ref),
        ...(open
          ? [
              polygon(
                [
                  [round(end + 0.5), round(y - thick / 2 - 0.5)],
                  [round(end - thick * 0.35), round(y)],
                  [round(end + 0.5), round(y + thick / 2 + 0.5)],
                ],
                { fill: PAPER, role: 'bar' },
              ),
            ]
          : []),
        write(left, y + size * BASE, size, text, bandInk(r.band, brief.print), 'label', 'labelStrong', ref),
      ],
    };
  });
  const shade = (from: number, to: number, fill: string): SceneNode => ({
    type: 'rect',
    x: round(x(from)),
    y: round(top),
    width: round(x(to) - x(from)),
    height: round(bottom - top),
    fill,
    role: 'band',
  });
  const heads = marks.flatMap((m, k) => {
    const wide = measure.width('label', size, m.text);
    const next = marks[k + 1];
    // Bounds that stand too close are told by the later one.
    if (next && x(next.at) - x(m.at) < wide + size && k > 0) return [];
    const left = k === 0 ? x(m.at) - wide - 2 : x(m.at) + 2;
    return [write(left, headBase, size, m.text, SOFT_INK, 'scale')];
  });
  const left = rows.length - shown.length;
  return {
    nodes: [
      ...(brief.print === 'colour' && bounds.breach > bounds.watch
        ? [shade(1 + bounds.watch, 1 + bounds.breach, '#F6EFDC'), shade(1 + bounds.breach, most, '#F5E6E1')]
        : []),
      ...marks.flatMap((m) =>
        brokenLine(x(m.at), headBase - size * 0.9, bottom, boxes, {
          stroke: m.at === 1 ? SOFT_INK : HAIRLINE,
          strokeWidth: m.at === 1 ? 0.9 : 0.8,
          role: 'grid',
        }),
      ),
      rule(laid.right, top, laid.right, bottom, INK, 0.8, 'scale'),
      ...laid.heads(headBase),
      ...heads,
      ...items,
    ],
    rows: shown.length,
    noRoom: noRoomOf(rows.slice(shown.length).map((r) => r.row)),
    shortened: laid.shortened,
    without: [left === 0 ? '' : 'the last rows have no room', same ? '' : 'parts of the plan have bounds of their own']
      .filter(Boolean)
      .join(' · '),
  };
}
