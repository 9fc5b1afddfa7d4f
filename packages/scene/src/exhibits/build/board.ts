import type { BuildBrief } from '../../brief/build';
import { INK, MADDER, SOFT_INK } from '../../graph/ink';
import type { SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import type { Drawn, Room } from '../sheet';
import { write } from '../../graph/nodes';
import { framed, type PictureMaker } from './frame';
import { amountWords } from './amounts';
import { countWords, type DateStanding, type Standings } from './standings';
import { stripHeight, timeStrip } from './strip';

/** The smallest picture that says anything, in points. */
const LEAST = 90;

/** Rows and columns in which pictures of the proportion of a page are largest. */
function gridOf(count: number, width: number, height: number, caption: number): { columns: number; rows: number } {
  let best = { columns: count, rows: 1, size: 0 };
  for (let columns = 1; columns <= count; columns++) {
    const rows = Math.ceil(count / columns);
    const [w, h] = [width / columns, height / rows - caption];
    // A model is wider than it is high: a picture of four to three.
    const size = h <= 0 ? 0 : Math.min(w, h * 1.33);
    if (size > best.size + 0.5) best = { columns, rows, size };
  }
  return best;
}

/** A storyboard: the model on several dates, from left to right, each with what has changed since the one before. */
export function drawBoard(
  room: Room,
  input: ComposeInput<BuildBrief>,
  standings: Standings,
  make: PictureMaker,
): Drawn | null {
  const { frame, measure } = room;
  const { dates } = standings;
  const size = frame.labelSize;
  const strip = stripHeight(room);
  const bottom = room.bottom - strip - size * 0.6;
  const caption = size * 6.3;
  const gap = size * 1.4;
  const { columns, rows } = gridOf(dates.length, room.right - room.left, bottom - room.top, caption);
  const width = (room.right - room.left - gap * (columns - 1)) / columns;
  const height = (bottom - room.top) / rows - caption;
  if (width < LEAST || height < LEAST * 0.7) return null;
  let shortened = 0;
  const cut = (face: 'label' | 'labelStrong', text: string, most: number) => {
    const clean = measure.clean(text);
    const shown = measure.shorten(face, size, clean, most);
    if (shown !== clean) shortened++;
    return shown;
  };
  const nodes = dates.flatMap((date, k): SceneNode[] => {
    const x = room.left + (k % columns) * (width + gap);
    const y = room.top + Math.floor(k / columns) * (height + caption);
    const below = y + height;
    const head = `${k + 1}  ${formatDay(date.day, 'long')}`;
    const named = date.caption === '' ? '' : date.caption;
    const headWide = measure.width('labelStrong', size * 1.15, head);
    const changed = sinceWords(date, k === 0);
    const lines = measure.wrap('label', size, measure.clean(changed), width, 2);
    if (lines.at(-1)?.endsWith('…')) shortened++;
    const counts = [
      `${date.counts.there} stand`,
      ...(date.counts.underWay > 0 ? [`${date.counts.underWay} under way`] : []),
      ...(input.brief.measure === 'count' || date.total === 0
        ? []
        : [`${amountWords(date.built, input.brief.measure, input.amounts)}`]),
    ].join(' · ');
    const behind = date.behind > 0 ? ` · ${date.behind} behind` : '';
    const room1 = width - (behind === '' ? 0 : measure.width('labelStrong', size, behind));
    const countText = cut('label', counts, room1);
    return [
      {
        type: 'group',
        role: 'item',
        ref: `date ${date.day}`,
        name: formatDay(date.day, 'long'),
        alt: countWords(date).join(', '),
        children: [
          ...framed(
            make,
            date,
            { x, y, width, height },
            `The model on ${formatDay(date.day, 'long')}: ${countWords(date).join(', ')}`,
          ),
          write(x, below + size * 1.45, size * 1.15, head, INK, 'head', 'labelStrong'),
          ...(named === ''
            ? []
            : [
                write(
                  x + headWide + size * 0.7,
                  below + size * 1.45,
                  size,
                  cut('label', named, width - headWide - size * 0.7),
                  SOFT_INK,
                  'head',
                ),
              ]),
          write(x, below + size * 2.75, size, countText, INK, 'label'),
          ...(behind === ''
            ? []
            : [
                write(
                  x + measure.width('label', size, countText),
                  below + size * 2.75,
                  size,
                  behind,
                  input.brief.print === 'grey' ? INK : MADDER,
                  'label',
                  'labelStrong',
                ),
              ]),
          ...lines.map((line, n) => write(x, below + size * (3.95 + n * 1.2), size, line, SOFT_INK, 'label')),
        ],
      },
    ];
  });
  return {
    nodes: [...nodes, ...timeStrip(room, input, standings, room.bottom - strip)],
    rows,
    shortened,
    without: '',
  };
}

/** What has come since the date before, and what goes on: the works by their names. */
function sinceWords({ finished, underWay }: DateStanding, isFirst: boolean): string {
  const names = (works: readonly { name: string }[]) => works.map((w) => w.name).join(', ');
  const parts = [
    ...(finished.length > 0 && !isFirst ? [`New: ${names(finished)}`] : []),
    ...(underWay.length > 0 ? [`Under way: ${names(underWay)}`] : []),
  ];
  return parts.join('. ') || (isFirst ? 'Nothing under way' : 'Nothing new');
}
