import { hasTotals, type TimelineBrief } from '../../brief/timeline';
import { HAIRLINE, INK, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import { eachLeafLane, type Lane } from '../../page/lanes';
import type { Face } from '../../text/faces';
import { LANGUAGES } from '../../text/languages/index';
import type { Measure } from '../../text/measure';
import { BASELINE, isStrung, LINE } from './cells';
import type { FieldText, FieldTexts } from './fieldTexts';
import type { Item } from './select';

/** What stands in the columns beside one row, or below a lane as its total. */
interface ColumnLine {
  /** The rows that it may stand beside: the highest of these things says where. */
  items: number[];
  lane: Lane;
  total: boolean;
  ref: string | null;
  texts: FieldText[];
}

interface Column {
  title: string;
  align: 'left' | 'right';
  x: number;
  width: number;
}

/** The columns of a page: their places, and what stands in them line by line. */
export interface Columns {
  at: 'left' | 'right';
  /** Room that they take, with the gap to the plot. */
  width: number;
  columns: Column[];
  lines: ColumnLine[];
  /** Columns that had no room. */
  cut: number;
  /** Cells that lost the end of their text. */
  shortened: number;
  /** Lines of text in the tallest cell beside a thing, by its number; for whoever makes rows. */
  linesOf: Map<number, number>;
  /** Lines of the tallest heading. */
  headLines: number;
}

export const NO_COLUMNS: Columns = {
  at: 'right',
  width: 0,
  columns: [],
  lines: [],
  cut: 0,
  shortened: 0,
  linesOf: new Map(),
  headLines: 0,
};

/** A text column takes at most this share of the page; all columns together at most the other. */
const WIDEST = 0.15;
const ALL = 0.55;
const MOST_LINES = 3;
const HEAD_LINES = 2;

const faceOf = (line: ColumnLine): Face => (line.total ? 'labelStrong' : 'label');

/**
 * Lays out columns: beside each row where rows hold one thing or one value, beside each lane where rows are free, and
 * below each lane what it comes to. Widths are those of the largest type of the page.
 */
export function layColumns(
  fields: readonly FieldTexts[],
  items: readonly Item[],
  lanes: readonly Lane[],
  brief: TimelineBrief,
  frame: PageFrame,
  measure: Measure,
): Columns {
  if (fields.length === 0) return NO_COLUMNS;
  const size = frame.labelSize;
  const gap = size * 1.4;
  const lines = linesOf(fields, items, lanes, brief, measure);
  let room = frame.width * ALL;
  const columns: Column[] = [];
  let x = 0;
  for (const [k, f] of fields.entries()) {
    const title = measure.clean(f.title);
    const content = lines.reduce(
      (most, line) => Math.max(most, measure.width(faceOf(line), size, line.texts[k]!.text)),
      0,
    );
    const heading = headWidth(title, size, measure);
    const widest = f.align === 'left' ? frame.width * WIDEST : Number.POSITIVE_INFINITY;
    const width = Math.max(heading, Math.min(content, widest));
    if (width + gap > room) break;
    columns.push({ title, align: f.align, x, width });
    x += width + gap;
    room -= width + gap;
  }
  const cut = fields.length - columns.length;
  const byItem = new Map<number, number>();
  let shortened = 0;
  for (const line of lines) {
    const texts = columns.map((c, k) => wrapped(line, k, c, size, measure));
    texts.forEach((t, k) => {
      if (t.at(-1)?.endsWith('…') && !line.texts[k]!.text.endsWith('…')) shortened++;
    });
    if (line.total || line.items.length !== 1) continue;
    const most = Math.max(1, ...texts.map((t) => t.length));
    byItem.set(line.items[0]!, most);
  }
  const headLines = Math.max(
    1,
    ...columns.map((c) => measure.wrap('label', size, c.title, c.width + 0.5, HEAD_LINES).length),
  );
  return {
    at: brief.columnsAt,
    width: columns.length === 0 ? 0 : x,
    columns,
    lines,
    cut,
    shortened,
    linesOf: byItem,
    headLines,
  };
}

/** The least width in which a heading stands whole in its lines. */
function headWidth(title: string, size: number, measure: Measure): number {
  const whole = measure.width('label', size, title);
  const words = title.split(' ').map((w) => measure.width('label', size, w));
  let width = Math.max(...words, whole / HEAD_LINES);
  while (
    width < whole &&
    measure
      .wrap('label', size, title, width + 0.5, HEAD_LINES)
      .at(-1)
      ?.endsWith('…')
  )
    width *= 1.05;
  return Math.min(width, whole);
}

function linesOf(
  fields: readonly FieldTexts[],
  items: readonly Item[],
  lanes: readonly Lane[],
  brief: TimelineBrief,
  measure: Measure,
): ColumnLine[] {
  const lines: ColumnLine[] = [];
  const clean = (t: FieldText): FieldText => ({ ...t, text: measure.clean(t.text) });
  const add = (lane: Lane, numbers: number[], total: boolean) => {
    const [only] = numbers;
    const single = numbers.length === 1 && !total;
    lines.push({
      items: numbers,
      lane,
      total,
      ref: single ? items[only!]!.ref : null,
      texts: fields.map((f) =>
        clean(
          single ? f.of(items[only!]!) : f.together(numbers.map((i) => items[i]!).filter((i) => i.form !== 'summary')),
        ),
      ),
    });
  };
  eachLeafLane(lanes, (lane) => {
    if (lane.items.some((i) => items[i]!.folded)) return add(lane, lane.items, false);
    // What is strung on one line has no row of its own for cells.
    if (brief.rows === 'each')
      for (const i of lane.items.filter((k) => !isStrung(items[k]!, brief))) add(lane, [i], false);
    else {
      const groups = new Map<string, number[]>();
      for (const i of lane.items) {
        const key = items[i]!.row?.title ?? '';
        const list = groups.get(key);
        if (list) list.push(i);
        else groups.set(key, [i]);
      }
      for (const list of groups.values()) add(lane, list, false);
    }
    if (hasTotals(brief) && lane.items.length > 1) add(lane, lane.items, true);
  });
  return lines;
}

const wrapped = (line: ColumnLine, k: number, c: Column, size: number, measure: Measure): string[] => {
  const { text } = line.texts[k]!;
  return text === '' ? [] : measure.wrap(faceOf(line), size, text, c.width + 0.5, line.total ? 1 : MOST_LINES);
};

/** Everything in the columns: heads above the rule, cells level with their rows, totals below a thin rule. */
export function columnNodes(
  c: Columns,
  placed: { middle: Float64Array; totals: Map<Lane, number> },
  brief: TimelineBrief,
  frame: PageFrame,
  measure: Measure,
  left: number,
  rule: number,
  size: number,
): SceneNode[] {
  const nodes: SceneNode[] = [];
  const head = frame.labelSize;
  const write = (
    col: Column,
    lines: string[],
    middle: number,
    type: number,
    face: Face,
    fill: string,
    role: 'cell' | 'head',
    ref: string | null,
  ) =>
    lines.forEach((text, k) => {
      const width = measure.width(face, type, text);
      nodes.push({
        type: 'text',
        x: round(left + col.x + (col.align === 'right' ? col.width - width : 0)),
        y: round(middle + (k - (lines.length - 1) / 2) * type * LINE + type * BASELINE),
        size: type,
        runs: [{ text, face, fill }],
        ...(ref === null ? {} : { ref }),
        role,
      });
    });
  for (const col of c.columns) {
    const lines = measure.wrap('label', head, col.title, col.width + 0.5, HEAD_LINES);
    const last = rule - head * 0.55 - head * BASELINE;
    write(col, lines, last - ((lines.length - 1) / 2) * head * LINE, head, 'label', SOFT_INK, 'head', null);
  }
  for (const line of c.lines) {
    const middle = line.total ? placed.totals.get(line.lane) : Math.min(...line.items.map((i) => placed.middle[i]!));
    if (middle === undefined) continue;
    if (line.total && c.columns.length > 0) {
      const end = c.columns.at(-1)!;
      const y = round(middle - size * 0.85);
      nodes.push({
        type: 'line',
        x1: round(left),
        y1: y,
        x2: round(left + end.x + end.width),
        y2: y,
        stroke: HAIRLINE,
        strokeWidth: 0.6,
        role: 'laneRule',
      });
      const [first] = c.columns;
      if (line.texts[0]!.text === '' && first) {
        const word = measure.shorten('labelStrong', size, LANGUAGES[brief.language].total, first.width);
        if (word !== '') write({ ...first, align: 'left' }, [word], middle, size, 'labelStrong', INK, 'cell', null);
      }
    }
    c.columns.forEach((col, k) =>
      write(
        col,
        wrapped(line, k, col, size, measure),
        middle,
        size,
        faceOf(line),
        line.texts[k]!.fill,
        'cell',
        line.ref,
      ),
    );
  }
  return nodes;
}
