import { longestPath, type Plan, type Schedule } from '@clembo/core';
import { OWN_PHASE, type HandoffsBrief } from '../../brief/handoffs';
import { RESPONSIBLE } from '../../brief/parts';
import { STEP_WORDS, type StepKind } from '../../brief/steps';
import { INK, NEUTRAL, PAPER } from '../../graph/ink';
import { type FitAdvice, polygon, round, type Scene, type SceneNode } from '../../graph/scene';
import type { ProcessShapes } from '../../graph/process';
import { pageFrame, type PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import { formatDay } from '../../text/dates';
import { notesOnCards } from '../cards/byHand';
import { cardBox, cardHandles } from '../cards/hands';
import { plotCards } from '../cards/plot';
import type { ComposeInput } from '../composed';
import { blindSpots } from '../timeline/blind';
import { composeSheet, type Drawn, type Room, TINY } from '../sheet';
import { HANDED, processNodes } from './draw';
import { type ArrowWord, layoutProcess, type ProcessLayout, stepCard, type StepSize } from './layout';
import { type Process, processOf, type Wait } from './process';
import { symbol } from './symbols';

type Input = ComposeInput<HandoffsBrief>;

/** What of a brief leaves nothing out. */
const ALL = { only: 'all' };
/** So many waits are written on the page: the longest. */
const WAITS = 3;
/** More steps than these cannot be read on a page. */
const MOST = 400;
const SIZES: StepSize[] = ['wide', 'slim'];

/** Who does which step, and where work passes from hand to hand. */
export function composeHandoffs(input: Input): Scene {
  return composeSheet(
    input,
    () => {
      const { plan, schedule, brief, measure } = input;
      const process = processOf(plan, schedule, brief);
      const words = wordsOf(process, brief);
      const layouts = new Map<StepSize, ProcessLayout>();
      const layoutOf = (size: StepSize): ProcessLayout => {
        const known = layouts.get(size) ?? layoutProcess(process, brief, size, words, measure);
        layouts.set(size, known);
        return known;
      };
      const isKnown = (ref: string) =>
        brief.of === 'plan' ? schedule.outline.indexOf.has(ref) : brief.steps.some((s) => s.id === ref);
      const usual = pageFrame(brief.page).labelSize;
      return {
        kind: 'Handoffs',
        ...(brief.of === 'typed' ? { shown: countWords(process.steps.length) } : {}),
        statement: statement(plan, process),
        counts: process.counts,
        content: content(process, brief),
        undated: [],
        smallest: TINY,
        blind: process.fates && blindSpots(plan, schedule, { fates: process.fates }, input.promised, ALL),
        legend: (frame) => legend(frame, process, brief),
        notice: noticeOf(process, brief),
        advice: advice(process, brief, schedule),
        draw: (room) => {
          const tried = room.frame.labelSize > usual ? SIZES.slice(0, 1) : SIZES;
          for (const size of tried) {
            const drawn = draw(room, process, layoutOf(size), brief, isKnown);
            if (drawn) return drawn;
          }
          return null;
        },
      };
    },
    { alone: true },
  );
}

/** What is written on each arrow: the name of a way, and the longest waits between hands. */
function wordsOf({ arrows, waits }: Process, brief: HandoffsBrief): ArrowWord[] {
  const idle = new Map(brief.waits ? waits.slice(0, WAITS).map((w) => [w.arrow, `waits ${dayWords(w.days)}`]) : []);
  return arrows.flatMap((a, arrow): ArrowWord[] => [
    ...(a.words === '' ? [] : [{ arrow, text: a.words, strong: false }]),
    ...(idle.has(arrow) ? [{ arrow, text: idle.get(arrow)!, strong: true }] : []),
  ]);
}

const countWords = (n: number): string => `${n} ${n === 1 ? 'step' : 'steps'}`;
const dayWords = (days: number): string => `${Math.round(days * 10) / 10} d`;

function noticeOf({ steps }: Process, brief: HandoffsBrief): string | null {
  if (steps.length > MOST) return `${steps.length} steps cannot be read on one page. Show a higher level.`;
  if (steps.length > 0) return null;
  return brief.of === 'typed'
    ? 'There are no steps yet. Type the first one in the margin; Enter makes the next.'
    : 'Nothing in the plan is what this brief asks for.';
}

/** How often work is handed over among how many, and where it waits longest. */
function statement(plan: Plan, { steps, arrows, hands, waits }: Process): string {
  if (steps.length === 0) return plan.name;
  const count = arrows.filter((a) => a.handoff).length;
  const among = `${count} ${count === 1 ? 'handoff' : 'handoffs'} among ${hands.length} ${hands.length === 1 ? 'hand' : 'hands'}`;
  const [longest] = waits;
  if (!longest) return among;
  const { from, to } = arrows[longest.arrow]!;
  const by = (k: number) => steps[k]!.hands.join(' and ');
  return `${among}; work waits longest, ${dayWords(longest.days)}, from ${by(from)} to ${by(to)}`;
}

function draw(
  room: Room,
  process: Process,
  layout: ProcessLayout,
  brief: HandoffsBrief,
  isKnown: (ref: string) => boolean,
): Drawn | null {
  const down = brief.form === 'chart';
  const titles = layout.lanes.map((l) => l.hand);
  const plot = plotCards(room, layout, titles, layout.heads, down);
  if (!plot) return null;
  const { p } = plot;
  const drawn = processNodes(process, layout, p, room.measure, brief.dates);
  const card = stepCard(layout.size, down);
  const [left, right] = [room.left, room.right];
  const shapes: ProcessShapes = {
    lanes: down
      ? []
      : layout.lanes.map((l) => ({
          name: l.hand,
          left,
          right,
          top: round(p.within(l.top) - p.size * 0.4),
          bottom: round(p.within(l.bottom) + p.size * 0.4),
        })),
    steps: process.steps.map((s, i) => {
      const box = cardBox(layout, i, card, p);
      return {
        ref: s.ref,
        name: s.name,
        kind: s.kind,
        lane: layout.first[i]!,
        with: s.hands,
        phase: s.phase,
        left: round(box.left),
        top: round(box.top),
        width: round(box.width),
        height: round(box.height),
      };
    }),
    arrows: process.arrows.map((a, e) => ({
      from: a.from,
      to: a.to,
      words: a.words,
      points: layout.routes[e]!.map((point): [number, number] => {
        const [x, y] = p.at(point);
        return [round(x), round(y)];
      }),
    })),
  };
  const cards = cardHandles(
    process.steps,
    process.arrows,
    layout,
    { rank: layout.rank, least: layout.least, lane: layout.first },
    card,
    p,
    titles,
    brief.placed,
  );
  const notes = notesOnCards(brief.marks, cards, room, isKnown);
  return {
    nodes: [...plot.nodes, ...drawn.nodes, ...notes.nodes],
    rows: layout.lanes.length,
    shortened: plot.shortened + drawn.shortened,
    without: '',
    cards,
    handles: notes.handles,
    process: shapes,
  };
}

function advice({ steps }: Process, brief: HandoffsBrief, { outline }: Schedule): FitAdvice[] {
  if (brief.of === 'typed') return brief.dates ? [{ words: 'leave out the dates', change: { dates: false } }] : [];
  const deepest = outline.level.reduce((a, b) => Math.max(a, b), 1);
  const level = (brief.level ?? deepest) - 1;
  return [
    ...(level >= 1 ? [{ words: `show level ${level}`, change: { level } }] : []),
    ...(brief.only !== 'longest' && steps.length > 10
      ? [{ words: 'show only the longest path', change: { only: 'longest' } }]
      : []),
  ];
}

function content({ steps, arrows, waits }: Process, brief: HandoffsBrief): Scene['content'] {
  const before = steps.map((): string[] => []);
  const after = steps.map((): string[] => []);
  const of = (name: string, words: string) => (words === '' ? name : `${name} (${words})`);
  for (const a of arrows) {
    before[a.to]!.push(of(steps[a.from]!.name, a.words));
    after[a.from]!.push(of(steps[a.to]!.name, a.words));
  }
  const idle = new Map<number, Wait>(waits.map((w) => [arrows[w.arrow]!.to, w]));
  const day = (d: number | null) => (d === null ? '' : formatDay(d, 'long'));
  return {
    heads: ['Step', 'Kind', 'Hands', 'Phase', 'Start', 'Finish', 'After', 'Before', 'Waits'],
    named: 0,
    rows: steps.map((s, k) => {
      const wait = idle.get(k);
      return {
        ref: brief.of === 'plan' ? s.ref : null,
        cells: [
          s.name,
          STEP_WORDS[s.kind],
          s.hands.join(', '),
          s.phase,
          day(s.start),
          day(s.finish),
          before[k]!.join('; '),
          after[k]!.join('; '),
          wait ? dayWords(wait.days) : '',
        ],
        values: [
          null,
          null,
          null,
          null,
          s.start === null ? null : { day: s.start },
          s.finish === null ? null : { day: s.finish },
          null,
          null,
          wait ? { number: wait.days } : null,
        ],
      };
    }),
  };
}

/** The symbols that are on the page, if there is more than the plain step, and the two kinds of arrows. */
function legend(frame: PageFrame, { steps, arrows }: Process, brief: HandoffsBrief): LegendEntry[] {
  const wide = frame.smallSize * 2.4;
  const high = frame.smallSize;
  const kinds: [StepKind, string][] = [
    ['step', 'Step'],
    ['decision', 'Decision'],
    ['document', 'Document'],
    ['waiting', 'Waiting'],
    ['start', 'Start or end'],
  ];
  const used = new Set<StepKind>(steps.map((s) => (s.kind === 'end' ? 'start' : s.kind)));
  const shown = used.size > 1 ? kinds.filter(([k]) => used.has(k)) : [];
  const line =
    (strong: boolean) =>
    (x: number, y: number): SceneNode[] => {
      const colour = strong ? HANDED : NEUTRAL;
      return [
        {
          type: 'line',
          x1: round(x),
          y1: round(y),
          x2: round(x + wide - 3),
          y2: round(y),
          stroke: colour,
          strokeWidth: strong ? 1.3 : 0.7,
        },
        polygon(
          [
            [round(x + wide), round(y)],
            [round(x + wide - 4), round(y - 2)],
            [round(x + wide - 4), round(y + 2)],
          ],
          { fill: colour },
        ),
      ];
    };
  const box = (x: number, y: number) => ({ left: x, top: y - high / 2, width: wide, height: high });
  const edge = (strokeWidth: number) => ({ fill: PAPER, stroke: INK, strokeWidth });
  return [
    ...shown.map(
      ([kind, title]): LegendEntry => ({ title, width: wide, draw: (x, y) => [symbol(kind, box(x, y), edge(0.6))] }),
    ),
    ...(steps.some((s) => s.critical)
      ? [{ title: 'Critical', width: wide, draw: (x: number, y: number) => [symbol('step', box(x, y), edge(1.4))] }]
      : []),
    ...(brief.form === 'lanes' && arrows.some((a) => a.handoff)
      ? [{ title: 'Handed over', width: wide, draw: line(true) }]
      : []),
    ...(brief.form === 'lanes' && arrows.some((a) => !a.handoff)
      ? [{ title: 'Goes on in the same hands', width: wide, draw: line(false) }]
      : []),
  ];
}

/** A plan of more activities than these is shown in part. */
const MOST_ALL = 40;
/** A path of fewer steps is no process. */
const LEAST_PATH = 6;

/** The part of a larger plan that a page can bear: its longest path, or a higher level. */
function fewer(schedule: Schedule): Partial<HandoffsBrief> {
  const path = longestPath(schedule).length;
  if (path >= LEAST_PATH && path <= MOST_ALL) return { only: 'longest' };
  const { level, isSummary } = schedule.outline;
  const deepest = level.reduce((a, b) => Math.max(a, b), 1);
  const at = (wanted: number) =>
    level.reduce((n, l, i) => n + (l === wanted || (l < wanted && !isSummary[i]) ? 1 : 0), 0);
  for (let l = deepest - 1; l >= 1; l--) if (at(l) <= MOST_ALL || l === 1) return { level: l };
  return { only: 'critical' };
}

/** A first page of handoffs: by whoever is named in the plan, or by its first useful field. */
export function suggestHandoffs(plan: Plan, schedule: Schedule, brief: HandoffsBrief): HandoffsBrief {
  const named = plan.activities.filter((a) => a.responsible.length > 0).length;
  const field = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 12)?.id;
  const lanes = named >= plan.activities.length / 3 || field === undefined ? RESPONSIBLE : field;
  const leaves = schedule.outline.isSummary.filter((x) => !x).length;
  // Without links nothing is handed over: then the process is typed.
  const typed = plan.links.length === 0;
  return {
    ...brief,
    lanes,
    of: typed ? 'typed' : 'plan',
    phases: typed ? OWN_PHASE : null,
    ...(leaves > MOST_ALL ? fewer(schedule) : {}),
    page: 'A3 landscape',
  };
}
