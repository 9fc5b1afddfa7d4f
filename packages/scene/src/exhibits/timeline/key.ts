import { INK, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { Cells, Geometry } from './cells';
import type { LaneRows } from './rows';

/** Names that found room only for a number, in columns at the foot of the plot, in the order in which the page is read. */
export interface Key {
  /** Items by number: the first is number 1. */
  items: number[];
  numberOf: Map<number, number>;
  columns: { lines: { text: string; number: number | null; item: number }[] }[];
  columnWidth: number;
  size: number;
}

const LINE = 1.24;
const COLUMN_GAP = 10;

export const keyHeight = (key: Key): number =>
  key.columns.reduce((most, c) => Math.max(most, c.lines.length), 0) * key.size * LINE + key.size * 1.2;

/** Numbers the items in reading order: lane by lane, row by row, from left to right. */
export function keyOf(g: Geometry, cells: Cells, lanes: readonly LaneRows[], frame: PageFrame): Key {
  const items: number[] = [];
  const read = (list: readonly LaneRows[]) => {
    for (const lane of list) {
      read(lane.lanes);
      for (const row of lane.rows)
        items.push(
          ...inReadingOrder(
            row.members.filter((i) => cells.numbered[i]),
            cells,
          ),
        );
    }
  };
  read(lanes);
  const size = frame.leastType;
  const width = frame.width - 2 * frame.margin;
  const texts = items.map((i) => {
    const label = g.labels[i]!;
    return [label.name, label.elsewhere, label.off].filter(Boolean).join(' ');
  });
  const numberWidth = g.measure.width('labelStrong', size, String(items.length)) + size * 0.6;
  const longest = texts.reduce((most, t) => Math.max(most, g.measure.width('label', size, t)), 0) + numberWidth;
  // As many columns as the longest name leaves; very long names run on in further lines.
  const count = Math.max(
    2,
    Math.min(8, Math.floor((width + COLUMN_GAP) / (Math.min(longest, width * 0.34) + COLUMN_GAP))),
  );
  const columnWidth = (width + COLUMN_GAP) / count - COLUMN_GAP;
  const entries = texts.map((text, k) =>
    g.measure
      .wrap('label', size, text, columnWidth - numberWidth, 40)
      .map((line, n) => ({ text: line, number: n === 0 ? k + 1 : null, item: items[k]! })),
  );
  const lines = entries.reduce((sum, e) => sum + e.length, 0);
  const columns: Key['columns'] = [];
  const perColumn = Math.ceil(lines / count);
  for (const entry of entries) {
    const last = columns.at(-1);
    if (!last || (last.lines.length >= perColumn && columns.length < count)) columns.push({ lines: [...entry] });
    else last.lines.push(...entry);
  }
  return { items, numberOf: new Map(items.map((i, k) => [i, k + 1])), columns, columnWidth, size };
}

/** On stems, numbers are read level by level. */
const inReadingOrder = (members: number[], { labelY, labelX }: Cells): number[] =>
  members.every((i) => labelY[i] === 0)
    ? members
    : members.sort((i, j) => labelY[i]! - labelY[j]! || labelX[i]! - labelX[j]!);

export function keyNodes(key: Key, g: Geometry, frame: PageFrame, top: number): SceneNode[] {
  const { size } = key;
  const indent = g.measure.width('labelStrong', size, String(key.items.length)) + size * 0.6;
  return key.columns.flatMap(({ lines }, c) =>
    lines.flatMap(({ text, number, item }, k): SceneNode[] => {
      const x = frame.margin + c * (key.columnWidth + COLUMN_GAP);
      const y = round(top + size * 1.4 + k * size * LINE);
      const { ref } = g.items[item]!;
      const line = (at: number, run: { text: string; face: 'label' | 'labelStrong'; fill: string }): SceneNode => ({
        type: 'text',
        x: round(at),
        y,
        size,
        runs: [run],
        ref,
        role: 'key',
      });
      return [
        ...(number === null ? [] : [line(x, { text: String(number), face: 'labelStrong', fill: INK })]),
        line(x + indent, { text, face: 'label', fill: SOFT_INK }),
      ];
    }),
  );
}
