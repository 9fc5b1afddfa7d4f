import { NOTHING_SHOWN } from '../../graph/shown';
import { notCounted, standingOf, statusEnd, toleranceOf, wholePercent } from '@clembo/core';
import type { SnapshotBrief } from '../../brief/variance';
import { HAIRLINE, INK, SOFT_INK } from '../../graph/ink';
import type { Scene, SceneNode, Shown } from '../../graph/scene';
import type { ComposeInput } from '../composed';
import { statementOf } from '../statement';
import { rule, write } from '../../graph/nodes';
import { bandInk } from './paint';
import { codeIn, codeTitlesIn, holdsOf } from './rows';
import { composeSheet, type Drawn, type Room } from '../sheet';
import { type SnapshotLine, snapshotLines } from './snapshotLines';

type Input = ComposeInput<SnapshotBrief>;

interface Block {
  title: string;
  /** `14 activities · 41 % done by time, 18 % by effort`. */
  about: string;
  lines: SnapshotLine[];
}

const HEADS = ['now', 'promised', 'actual', 'to go', 'off by'] as const;
const cellsOf = (l: SnapshotLine): string[] => [l.now, l.promised, l.actual, l.toGo, l.off];

/** The small table, for the whole and for each of its parts. */
export function composeSnapshot(input: Input): Scene {
  return composeSheet(input, () => {
    const { plan, schedule: s, brief } = input;
    const holds = holdsOf(input);
    const counts: Shown = { ...NOTHING_SHOWN };
    const groups = new Map<string, number[]>();
    plan.activities.forEach((_, i) => {
      if (s.outline.isSummary[i]) return;
      counts.of++;
      if (!holds(i)) {
        counts.leftOut++;
        return;
      }
      counts.shown++;
      const code = brief.by === null ? '' : codeIn(plan, s, brief.by, i);
      const own = groups.get(code);
      if (own) own.push(i);
      else groups.set(code, [i]);
    });
    const titles = brief.by === null ? new Map<string, string>() : codeTitlesIn(plan, s, brief.by);
    const order = [...titles.keys()];
    const rank = (code: string) => (order.includes(code) ? order.indexOf(code) : order.length - 1.5);
    const all = [...groups.values()].flat();
    const blocks =
      all.length === 0
        ? []
        : [
            blockOf(input, counts.leftOut === 0 ? 'The whole plan' : 'All that is shown', all, null),
            ...(brief.by === null
              ? []
              : [...groups]
                  .sort(([x], [y]) => rank(x) - rank(y))
                  .map(([code, list]) => blockOf(input, titles.get(code) ?? code, list, code))),
          ];
    return {
      kind: 'Snapshot',
      statement: said(input, all),
      counts,
      content: {
        heads: ['Of', 'What', ...HEADS],
        named: 1,
        rows: blocks.flatMap((b) => b.lines.map((l) => ({ ref: null, cells: [b.title, l.name, ...cellsOf(l)] }))),
      },
      undated: [],
      legend: () => [],
      notice:
        blocks.length > 0
          ? null
          : counts.of === 0
            ? 'This plan has no activities yet.'
            : 'Nothing in the plan is what this brief asks for.',
      largest: brief.by === null ? 2.6 : 1.2,
      advice: brief.by === null ? [] : [{ words: 'show the whole alone', change: { by: null } }],
      draw: (room) => draw(room, blocks, input),
    };
  });
}

/** How much is done by time beside what was promised of it, and how the end stands. */
function said({ plan, schedule, promised }: Input, rows: readonly number[]): string {
  const end = statementOf({ plan, schedule, promised, rows, tells: 'end' });
  const moment = statusEnd(plan);
  if (rows.length === 0 || moment === null) return end;
  const { percent } = standingOf(plan, schedule, promised!.plan, promised!.schedule, moment, only(rows));
  const { time, planned, unknown } = percent;
  // A share of what is known alone is no headline.
  if (time === null || planned === null || unknown > 0) return end;
  return `${wholePercent(time)} % done by time, ${wholePercent(planned)} % promised; ${end}`;
}

const only = (rows: readonly number[]): ((i: number) => boolean) => {
  const chosen = new Set(rows);
  return (i) => chosen.has(i);
};

function blockOf(
  { plan, schedule, promised, brief, amounts }: Input,
  title: string,
  list: number[],
  code: string | null,
): Block {
  const moment = statusEnd(plan) ?? Number.MAX_SAFE_INTEGER;
  const st = standingOf(plan, schedule, promised!.plan, promised!.schedule, moment, only(list));
  const tolerance =
    code === null || brief.by === null ? plan.tolerance : toleranceOf(plan, { codes: { [brief.by]: code } });
  const percent = (n: number | null, of: string) => (n === null ? '' : `${wholePercent(n)} % by ${of}`);
  const done = [percent(st.percent.time, 'time'), percent(st.percent.effort, 'effort')].filter(Boolean).join(', ');
  const planned =
    st.percent.planned === null || plan.statusDate === null
      ? ''
      : `${wholePercent(st.percent.planned)} % promised by time`;
  return {
    title,
    about: [
      `${list.length} ${list.length === 1 ? 'activity' : 'activities'}`,
      done === '' ? '' : `done: ${[done, notCounted(st.percent.unknown)].filter(Boolean).join(', ')}`,
      planned,
    ]
      .filter(Boolean)
      .join(' · '),
    // Without a status date nothing says what is gone.
    lines: snapshotLines(st, tolerance, amounts).map((l) =>
      plan.statusDate === null ? { ...l, actual: '–', toGo: '–' } : l,
    ),
  };
}

const ROW = 1.75;

function draw(room: Room, blocks: readonly Block[], { measure, brief }: Input): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const all = blocks.flatMap((b) => b.lines);
  const nameWidth = all.reduce((m, l) => Math.max(m, measure.width('label', size, l.name)), 0);
  const widths = HEADS.map((h, k) =>
    all.reduce(
      (m, l) => Math.max(m, measure.width(k === 4 ? 'labelStrong' : 'label', size, cellsOf(l)[k]!)),
      measure.width('label', size, h),
    ),
  );
  const gap = size * 1.8;
  const width = nameWidth + widths.reduce((sum, w) => sum + w + gap, 0);
  const space = size * 4;
  const across = Math.max(1, Math.floor((room.right - room.left + space) / (width + space)));
  if (width > room.right - room.left + 0.5) return null;
  const heightOf = (b: Block) => size * (1.55 + 1.4 + 1.5 + b.lines.length * ROW + 1.4);
  const columns = Math.min(across, blocks.length);
  const lines: Block[][] = [];
  for (let k = 0; k < blocks.length; k += columns) lines.push(blocks.slice(k, k + columns));
  const nodes: SceneNode[] = [];
  let y = room.top + size * 1.6;
  let [shown, cut] = [0, 0];
  for (const line of lines) {
    const height = Math.max(...line.map(heightOf));
    if (y + height - size * 1.4 > room.bottom) {
      if (!room.last) return null;
      break;
    }
    line.forEach((b, k) => {
      cut += blockNodes(nodes, b, room.left + k * (width + space), y, width, nameWidth, widths, gap, room, brief.print);
      shown++;
    });
    y += height;
  }
  if (shown === 0) return null;
  const left = blocks.length - shown;
  return { nodes, rows: shown, shortened: cut, without: left === 0 ? '' : `${left} more have no room` };
}

function blockNodes(
  nodes: SceneNode[],
  b: Block,
  x: number,
  top: number,
  width: number,
  nameWidth: number,
  widths: readonly number[],
  gap: number,
  { frame, measure }: Room,
  print: 'colour' | 'grey',
): number {
  const size = frame.labelSize;
  const title = measure.shorten('textStrong', size * 1.15, measure.clean(b.title), width);
  const about = measure.shorten('label', size, measure.clean(b.about), width);
  nodes.push(write(x, top, size * 1.15, title, INK, 'head', 'textStrong'));
  nodes.push(write(x, top + size * 1.4, size, about, SOFT_INK, 'head'));
  let y = top + size * 2.95;
  const rights = widths.map((_, k) => x + nameWidth + widths.slice(0, k + 1).reduce((sum, w) => sum + gap + w, 0));
  HEADS.forEach((h, k) =>
    nodes.push(write(rights[k]! - measure.width('label', size, h), y, size, h, SOFT_INK, 'head')),
  );
  for (const l of b.lines) {
    nodes.push(rule(x, y + size * 0.55, x + width, y + size * 0.55, HAIRLINE, 0.6, 'grid'));
    y += size * ROW;
    nodes.push(write(x, y, size, l.name, INK, 'cell'));
    cellsOf(l).forEach((text, k) => {
      const face = k === 4 && (l.band === 'watch' || l.band === 'breach') ? 'labelStrong' : 'label';
      nodes.push(
        write(
          rights[k]! - measure.width(face, size, text),
          y,
          size,
          text,
          k === 4 ? bandInk(l.band, print) : INK,
          'cell',
          face,
        ),
      );
    });
  }
  return title === measure.clean(b.title) && about === measure.clean(b.about) ? 0 : 1;
}
