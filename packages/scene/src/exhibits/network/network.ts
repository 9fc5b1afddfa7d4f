import { allRows, endsOf, isComplete, linkedToEnd, type Plan, type Schedule } from '@clembo/core';
import type { NetworkBrief } from '../../brief/network';
import { INK, NEUTRAL, PAPER, tint } from '../../graph/ink';
import { polygon, round, type FitAdvice, type Scene, type SceneNode } from '../../graph/scene';
import { type PageFrame, pageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { laneTitles } from '../lanesOf';
import { TO_COME } from '../timeline/marks';
import { composeSheet, type Drawn, type Room, TINY } from '../sheet';
import { notesOnCards } from '../cards/byHand';
import { cardHandles } from '../cards/hands';
import { blindSpots } from '../timeline/blind';
import { plotCards } from '../cards/plot';
import { networkNodes } from './draw';
import { CARD_SIZE, type CardKind, layoutNetwork, type NetworkLayout } from './layout';
import { type Card, fatesOf, type NetworkSelection, selectNetwork } from './select';

type Input = ComposeInput<NetworkBrief>;

/** Cards from the one that says most to the one that says least. */
const KINDS: CardKind[] = ['full', 'dates', 'datesSlim', 'float', 'floatSlim', 'dot'];
/** The cards that a brief may mean by one word. */
const SHAPES: Record<NetworkBrief['card'], CardKind[]> = {
  fitting: KINDS,
  full: ['full'],
  dates: ['dates', 'datesSlim'],
  float: ['float', 'floatSlim'],
  dot: ['dot'],
};
/** More cards than these are not tried to be laid out for a page: none can be read there. */
const MOST_CARDS = 1500;

/** What of a brief leaves nothing out. */
const ALL = { only: 'all', around: null };

/** Activities as cards and links as lines, in the order of the logic or by the months in which they start. */
export function composeNetwork(input: Input): Scene {
  return composeSheet(
    input,
    () => {
      const { plan, schedule, brief } = input;
      const selection = selectNetwork(plan, schedule, brief);
      const { cards } = selection;
      const kinds = SHAPES[brief.card];
      const layouts = new Map<CardKind, NetworkLayout>();
      const titles = brief.lanes === null ? null : laneTitles(plan, brief.lanes);
      const codes = [...new Set(cards.flatMap((c) => c.lanes))].sort(
        (a, b) => (titles?.rank(a) ?? 0) - (titles?.rank(b) ?? 0) || (a < b ? -1 : 1),
      );
      const layoutOf = (kind: CardKind): NetworkLayout => {
        const known = layouts.get(kind) ?? layoutNetwork(selection, brief, kind, input.measure, codes);
        layouts.set(kind, known);
        return known;
      };
      const usual = pageFrame(brief.page).labelSize;
      return {
        kind: 'Network',
        statement: title(input, selection),
        counts: selection.counts,
        content: content(selection),
        undated: [],
        smallest: TINY,
        blind: blindSpots(plan, schedule, { fates: fatesOf(plan, schedule, selection) }, input.promised, ALL),
        legend: (frame) => legend(frame, input, selection),
        notice: noticeOf(brief, schedule, cards.length),
        advice: advice(input, cards.length),
        draw: (room) => {
          // Larger type than usual is for a page that can say all of it.
          const tried = room.frame.labelSize > usual ? kinds.slice(0, 1) : kinds;
          for (const kind of tried) {
            const drawn = draw(
              room,
              selection,
              layoutOf(kind),
              (code) => titles?.title(code) ?? '',
              brief,
              (ref) => schedule.outline.indexOf.has(ref),
            );
            if (drawn) return drawn;
          }
          return null;
        },
      };
    },
    { alone: true },
  );
}

function noticeOf(brief: NetworkBrief, { outline }: Schedule, count: number): string | null {
  if (brief.around !== null && !outline.indexOf.has(brief.around))
    return `The plan has no activity ${brief.around} any more. Choose another one to show the network of.`;
  if (count === 0) return 'Nothing in the plan is what this brief asks for.';
  if (count > MOST_CARDS)
    return `${count} cards cannot be read on one page. Show a higher level, what is critical, or what leads to one milestone.`;
  return null;
}

/** What the page says: what leads to something, or how the plan runs. */
function title({ plan, schedule, brief }: Input, { cards, lines }: NetworkSelection): string {
  if (brief.around === null) return wholeTitle(plan, schedule, cards, lines.length);
  const at = schedule.outline.indexOf.get(brief.around);
  const name = at === undefined ? brief.around : plan.activities[at]!.name || brief.around;
  const count = cards.filter((c) => c.ref !== brief.around).length;
  const critical = cards.filter((c) => c.critical && c.ref !== brief.around).length;
  const things = `${count} ${count === 1 ? 'activity' : 'activities'}`;
  const what =
    brief.way === 'before'
      ? `${things} ${count === 1 ? 'leads' : 'lead'} to ${name}`
      : brief.way === 'after'
        ? `${name} leads to ${things}`
        : `${things} before and after ${name}`;
  const near = brief.steps === null ? what : `${what} within ${brief.steps} ${brief.steps === 1 ? 'link' : 'links'}`;
  return critical > 0 ? `${near}, ${critical} of them critical` : near;
}

/** How many cards are linked, and how many of them decide the end. */
function wholeTitle(plan: Plan, s: Schedule, cards: NetworkSelection['cards'], links: number): string {
  if (cards.length === 0) return plan.name;
  const all = allRows(plan, s);
  const { lead, of, isWhole } = linkedToEnd(plan, s);
  const ends = endsOf(plan, s, null, all);
  const deciding = all.filter((i) => s.critical[i] === 1 && !isComplete(plan.activities[i]!)).length;
  const head = `${plan.name}: ${cards.length} ${cards.length === 1 ? 'card' : 'cards'}, ${links} ${links === 1 ? 'link' : 'links'}`;
  if (deciding === 0 || ends.last === null) return head;
  const far = isWhole ? '' : `, as far as it is linked: ${lead} of ${of} lead to the end`;
  return `${head}; ${deciding} ${deciding === 1 ? 'activity decides' : 'activities decide'} the end on ${formatDay(ends.last, 'long')}${far}`;
}

/** The network at one size of type; null where it has no room. */
function draw(
  room: Room,
  selection: NetworkSelection,
  layout: NetworkLayout,
  titleOf: (code: string) => string,
  { placed, marks }: NetworkBrief,
  isKnown: (ref: string) => boolean,
): Drawn | null {
  const titles = layout.lanes.map((l) => titleOf(l.code));
  const plot = plotCards(room, layout, titles, layout.months);
  if (!plot) return null;
  const { p } = plot;
  const drawn = networkNodes(selection, layout, p, room.measure, titleOf);
  const links = selection.lines.length;
  const undrawn = layout.routes.filter((r) => r === null).length;
  const cards = cardHandles(
    selection.cards,
    selection.lines,
    layout,
    { rank: layout.rank, least: layout.least, lane: layout.first },
    CARD_SIZE[layout.kind],
    p,
    titles,
    placed,
  );
  const notes = notesOnCards(marks, cards, room, isKnown);
  return {
    nodes: [...plot.nodes, ...drawn.nodes, ...notes.nodes],
    rows: layout.lanes.length,
    shortened: plot.shortened + drawn.shortened,
    without:
      undrawn > 0 ? `${undrawn} of ${links} ${links === 1 ? 'link' : 'links'} lead back and are counted in rings` : '',
    cards,
    handles: notes.handles,
  };
}

function advice({ plan, schedule, brief }: Input, count: number): FitAdvice[] {
  const deepest = schedule.outline.level.reduce((a, b) => Math.max(a, b), 1);
  const level = (brief.level ?? deepest) - 1;
  return [
    ...(brief.card !== 'fitting' ? [{ words: 'let cards say as much as fits', change: { card: 'fitting' } }] : []),
    ...(level >= 1 && brief.around === null ? [{ words: `show level ${level}`, change: { level } }] : []),
    ...(brief.only !== 'critical' && plan.links.length > 0 && count > 10
      ? [{ words: 'show only what is critical', change: { only: 'critical' } }]
      : []),
    ...(brief.place === 'time' ? [{ words: 'order it by logic', change: { place: 'logic' } }] : []),
    ...(brief.around !== null && (brief.steps ?? 99) > 3
      ? [{ words: 'show three links around it', change: { steps: 3 } }]
      : []),
  ];
}

function content({ cards, lines }: NetworkSelection): Scene['content'] {
  const before = cards.map((): string[] => []);
  const after = cards.map((): string[] => []);
  const of = (name: string, words: string) => (words === '' ? name : `${name} (${words})`);
  for (const l of lines) {
    before[l.to]!.push(of(cards[l.from]!.name, l.words));
    after[l.from]!.push(of(cards[l.to]!.name, l.words));
  }
  const day = (d: number | null) => (d === null ? '' : formatDay(d, 'long'));
  return {
    heads: ['Name', 'Start', 'Finish', 'Float', 'After', 'Before', 'Notes'],
    named: 0,
    rows: cards.map((c, k) => ({
      ref: c.ref,
      cells: [
        c.name,
        day(c.start),
        day(c.finish),
        c.float === null ? '' : `${Math.round(c.float * 10) / 10} d`,
        before[k]!.join('; '),
        after[k]!.join('; '),
        c.critical ? 'critical' : '',
      ],
      values: [
        null,
        c.start === null ? null : { day: c.start },
        c.finish === null ? null : { day: c.finish },
        c.float === null ? null : { number: c.float },
        null,
        null,
        null,
      ],
    })),
  };
}

function legend(frame: PageFrame, { brief }: Input, { cards, lines }: NetworkSelection): LegendEntry[] {
  const wide = frame.smallSize * 2.4;
  const high = frame.smallSize * 0.9;
  const swatch =
    (colour: string, critical: boolean, group: boolean) =>
    (x: number, y: number): SceneNode[] => [
      ...(group
        ? [
            {
              type: 'rect' as const,
              x: round(x + 1.5),
              y: round(y - high / 2 - 1.5),
              width: round(wide - 1.5),
              height: round(high),
              radius: 1.5,
              fill: PAPER,
              stroke: colour,
              strokeWidth: 0.6,
            },
          ]
        : []),
      {
        type: 'rect',
        x: round(x),
        y: round(y - high / 2),
        width: round(wide - (group ? 1.5 : 0)),
        height: round(high),
        radius: 1.5,
        fill: tint(colour, TO_COME * 0.6),
        stroke: colour,
        strokeWidth: 0.6,
      },
      ...(critical
        ? [
            {
              type: 'line' as const,
              x1: round(x),
              y1: round(y - high / 2),
              x2: round(x + wide),
              y2: round(y - high / 2),
              stroke: INK,
              strokeWidth: 1.2,
            },
          ]
        : []),
    ];
  const line =
    (critical: boolean) =>
    (x: number, y: number): SceneNode[] => [
      {
        type: 'line',
        x1: round(x),
        y1: round(y),
        x2: round(x + wide - 3),
        y2: round(y),
        stroke: critical ? INK : NEUTRAL,
        strokeWidth: critical ? 1.3 : 0.7,
      },
      polygon(
        [
          [round(x + wide), round(y)],
          [round(x + wide - 4), round(y - 2)],
          [round(x + wide - 4), round(y + 2)],
        ],
        { fill: critical ? INK : NEUTRAL },
      ),
    ];
  const categories = new Map<string, Card>();
  for (const c of cards) if (c.category !== null && !categories.has(c.category)) categories.set(c.category, c);
  const neutral = brief.colour === null ? (cards[0]?.colour ?? NEUTRAL) : NEUTRAL;
  const entry = (when: boolean, title: string, width: number, draw: LegendEntry['draw']): LegendEntry[] =>
    when ? [{ title, width, draw }] : [];
  return [
    ...[...categories.values()]
      .sort((a, b) => a.categoryRank - b.categoryRank)
      .map((c): LegendEntry => ({ title: c.category!, width: wide, draw: swatch(c.colour, false, false) })),
    ...entry(
      cards.some((c) => c.critical),
      'Critical',
      wide,
      swatch(neutral, true, false),
    ),
    ...entry(
      cards.some((c) => c.form === 'group'),
      'Group, with the number of its activities',
      wide,
      swatch(neutral, false, true),
    ),
    ...entry(
      lines.some((l) => !l.critical),
      'Leads to',
      wide,
      line(false),
    ),
    ...entry(
      lines.some((l) => l.critical),
      'Critical link',
      wide,
      line(true),
    ),
    ...entry(
      cards.some((c) => c.before + c.after > 0),
      'Links that leave the page',
      high,
      (x, y) => [
        {
          type: 'circle',
          x: round(x + high / 2),
          y: round(y),
          radius: round(high * 0.36),
          fill: PAPER,
          stroke: NEUTRAL,
          strokeWidth: 0.8,
        },
      ],
    ),
  ];
}

/** A first network of a plan: at the level that can be read, in the colours of its first useful field. */
export function suggestNetwork(plan: Input['plan'], schedule: Schedule, brief: NetworkBrief): NetworkBrief {
  const deepest = schedule.outline.level.reduce((a, b) => Math.max(a, b), 1);
  const at = (level: number) =>
    schedule.outline.level.reduce(
      (n, l, i) => n + (l === level || (l < level && !schedule.outline.isSummary[i]) ? 1 : 0),
      0,
    );
  let level: number | null = null;
  if (schedule.outline.isSummary.filter((x) => !x).length > 60)
    for (let l = deepest - 1; l >= 1 && level === null; l--) if (at(l) <= 60 || l === 1) level = l;
  const colour = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null;
  const count = level === null ? schedule.outline.isSummary.filter((x) => !x).length : at(level);
  return { ...brief, level, colour, page: count > 25 ? 'A2 landscape' : 'A3 landscape' };
}
