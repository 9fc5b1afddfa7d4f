import { wholePercent } from '@clembo/core';
import type { BuildBrief } from '../../brief/build';
import { HAREBELL, INK, MADDER, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import type { Drawn, Room } from '../sheet';
import { BASE, rule, write } from '../../graph/nodes';
import { framed, type PictureMaker } from './frame';
import { amountWords } from './amounts';
import { countWords, type DateStanding, type Standings, type WorkOn } from './standings';
import { stripHeight, timeStrip } from './strip';

type Input = ComposeInput<BuildBrief>;

/** The least height of a picture that says anything, in points. */
const LEAST = 130;

/** One date large: the picture, and beside it the date, counts, what is late and what is under way. */
export function drawSingle(room: Room, input: Input, standings: Standings, make: PictureMaker): Drawn | null {
  const { frame, measure } = room;
  const [date] = standings.dates as [DateStanding];
  const size = frame.labelSize;
  const strip = stripHeight(room);
  const bottom = room.bottom - strip - size;
  const wide = frame.width > frame.height;
  const beside = wide
    ? Math.max((room.right - room.left) * 0.29, measure.width('label', size, 'x'.repeat(34)))
    : room.right - room.left;
  const picture = wide
    ? { x: room.left, y: room.top, width: room.right - room.left - beside - size * 2, height: bottom - room.top }
    : { x: room.left, y: room.top, width: room.right - room.left, height: (bottom - room.top) * 0.62 };
  if (picture.height < LEAST || picture.width < LEAST) return null;
  const column = wide
    ? { left: room.right - beside, right: room.right, top: room.top, bottom }
    : { left: room.left, right: room.right, top: picture.y + picture.height + size, bottom };
  const facts = factsColumn(column, room, input, date);
  if (facts.left > 0 && !room.last && facts.shown < 3) return null;
  return {
    nodes: [
      ...framed(make, date, picture, `The model on ${formatDay(date.day, 'long')}: ${countWords(date).join(', ')}`),
      ...facts.nodes,
      ...timeStrip(room, input, standings, room.bottom - strip),
    ],
    rows: facts.shown,
    shortened: facts.shortened,
    without: facts.left > 0 ? `${facts.left} works under way or behind have no room` : '',
  };
}

interface Column {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function factsColumn({ left, right, top, bottom }: Column, { frame, measure }: Room, input: Input, date: DateStanding) {
  const size = frame.labelSize;
  const { brief, amounts } = input;
  const grey = brief.print === 'grey';
  const nodes: SceneNode[] = [];
  let shortened = 0;
  const cut = (face: 'label' | 'labelStrong' | 'title', s: number, text: string, width: number) => {
    const shown = measure.shorten(face, s, measure.clean(text), width);
    if (shown !== measure.clean(text)) shortened++;
    return shown;
  };
  const big = frame.titleSize * 1.05;
  let y = top + big * 0.85;
  nodes.push(write(left, y, big, cut('title', big, formatDay(date.day, 'long'), right - left), INK, 'head', 'title'));
  if (date.caption !== '') {
    y += size * 1.7;
    nodes.push(write(left, y, size * 1.1, cut('label', size * 1.1, date.caption, right - left), SOFT_INK, 'head'));
  }
  y += size * 1.9;
  // Numbers stand under each other, with what they count beside them.
  const figure = size * 1.35;
  const lines: [n: number, words: string, fill: string][] = [
    [date.counts.there, date.counts.there === 1 ? 'stands' : 'stand', INK],
    [date.counts.underWay, 'under way', INK],
    [date.counts.going, 'being removed', INK],
    [date.behind, 'behind the promise', grey ? INK : MADDER],
    [date.ahead, 'ahead of the promise', grey ? INK : HAREBELL],
    [date.counts.notYet, 'to come', SOFT_INK],
    [date.counts.gone, 'gone', SOFT_INK],
    [date.counts.loose, 'without work', SOFT_INK],
    [date.counts.undated, 'whose work has no dates', SOFT_INK],
  ];
  const said = lines.filter(([n], k) => n > 0 || k === 0);
  const numberWide = said.reduce((m, [n]) => Math.max(m, measure.width('labelStrong', figure, amounts.number(n))), 0);
  for (const [n, words, fill] of said) {
    const text = amounts.number(n);
    nodes.push(
      write(
        left + numberWide - measure.width('labelStrong', figure, text),
        y,
        figure,
        text,
        fill,
        'label',
        'labelStrong',
      ),
      write(
        left + numberWide + size * 0.6,
        y,
        size,
        cut('label', size, words, right - left - numberWide),
        fill,
        'label',
      ),
    );
    y += figure * 1.3;
  }
  if (date.total > 0) {
    y += size * 0.5;
    const share = Math.round((100 * date.built) / date.total);
    const words = `${amountWords(date.built, brief.measure, amounts)} of ${amountWords(date.total, brief.measure, amounts)} built, ${share} %`;
    nodes.push(write(left, y, size, cut('label', size, words, right - left), SOFT_INK, 'label'));
    y += size * 0.7;
    nodes.push(
      {
        type: 'rect',
        x: round(left),
        y: round(y),
        width: round(right - left),
        height: round(size * 0.45),
        fill: '#E2DED4',
        role: 'bar',
      },
      {
        type: 'rect',
        x: round(left),
        y: round(y),
        width: round(((right - left) * date.built) / date.total),
        height: round(size * 0.45),
        fill: '#0F6E6E',
        role: 'progress',
      },
    );
    y += size * 1.6;
  }
  let shown = 0;
  let hidden = 0;
  const list = <W extends WorkOn>(title: string, works: readonly W[], detail: (w: W) => [string, string]) => {
    if (works.length === 0) return;
    const step = size * 2.75;
    const room = Math.floor((bottom - (y + size * 1.6)) / step);
    const fit = works.length <= room ? works.length : Math.max(0, room - 1);
    hidden += works.length - fit;
    if (fit === 0) return;
    y += size * 0.9;
    nodes.push(
      write(left, y, size, title, SOFT_INK, 'head', 'labelStrong'),
      rule(left, y + size * 0.5, right, y + size * 0.5, SOFT_INK, 0.5, 'laneRule'),
    );
    y += size * 0.55;
    for (const w of works.slice(0, fit)) {
      const [words, fill] = detail(w);
      const x = left + size * 1.1;
      nodes.push({
        type: 'group',
        role: 'item',
        ref: w.ref,
        name: w.name,
        alt: words,
        children: [
          {
            type: 'rect',
            x: round(left),
            y: round(y + size * 0.55),
            width: round(size * 0.42),
            height: round(size * 1.95),
            radius: 1,
            fill: w.colour,
            role: 'bar',
            ref: w.ref,
          },
          write(
            x,
            y + size * 1.3,
            size,
            cut('labelStrong', size, w.name, right - x),
            INK,
            'label',
            'labelStrong',
            w.ref,
          ),
          write(x, y + size * 2.45, size, cut('label', size, words, right - x), fill, 'label', 'label', w.ref),
        ],
      });
      shown++;
      y += step;
    }
    if (fit < works.length) {
      nodes.push(write(left, y + size * (1 + BASE), size, `and ${works.length - fit} more`, SOFT_INK, 'label'));
      y += size * 1.5;
    }
    y += size * 0.6;
  };
  const lateWords = (w: WorkOn) => (w.late !== null && w.late > 0 ? ` · ${w.late} d late` : '');
  const things = (n: number) => `${amounts.number(n)} ${n === 1 ? 'element' : 'elements'}`;
  list('Behind the promise', date.behindWorks, (w) => [
    `${things(w.behind)} not yet there${lateWords(w)}`,
    grey ? INK : MADDER,
  ]);
  list('Under way', date.underWay, (w) => [
    `${things(w.elements)} · ${wholePercent(w.share * 100)} %${w.behind > 0 ? ` · behind${lateWords(w)}` : lateWords(w)}`,
    w.behind > 0 && !grey ? MADDER : SOFT_INK,
  ]);
  // What comes next is told as far as there is room: nobody misses more of it.
  const still = hidden;
  list('Coming next', date.next.slice(0, 5), (w) => [
    `${things(w.elements)} from ${formatDay(w.first, 'medium')}${lateWords(w)}`,
    SOFT_INK,
  ]);
  return { nodes, shown, left: still, shortened };
}
