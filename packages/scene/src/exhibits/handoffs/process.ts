import { activityTime, dayOf, endOfDay, finishDayOf, NONE, type Plan, type Schedule, startOfDay } from '@clembo/core';
import { type HandoffsBrief, OWN_PHASE } from '../../brief/handoffs';
import { NetworkBrief } from '../../brief/network';
import {
  MOST_STEPS,
  Step,
  STEP_KINDS,
  STEP_WORDS,
  StepArrow,
  type StepKind,
  type TypedProcess,
} from '../../brief/steps';
import { NOTHING_SHOWN } from '../../graph/shown';
import type { Shown } from '../../graph/scene';
import { laneTitles } from '../lanesOf';
import { fatesOf, least, most, selectNetwork } from '../network/select';
import { bookOf } from '../timeline/codes';
import type { Fate } from '../timeline/select';

/** A step on the page, of a plan or typed. */
export interface ProcessStep {
  ref: string;
  name: string;
  kind: StepKind;
  /** The hands that it is in, as they are called. */
  hands: string[];
  phase: string;
  /** Days. */
  start: number | null;
  finish: number | null;
  critical: boolean;
  complete: boolean;
}

/** Work that goes from step to step. */
export interface ProcessArrow {
  from: number;
  to: number;
  /** The name of a way, or the kind of a link. */
  words: string;
  critical: boolean;
  /** No hand that held it holds it after. */
  handoff: boolean;
}

/** A step that lies idle after the last of what it needs has come from other hands. */
export interface Wait {
  /** The arrow by which the last came. */
  arrow: number;
  /** Working days. */
  days: number;
}

export interface Process {
  steps: ProcessStep[];
  arrows: ProcessArrow[];
  /** Hands in the order of their lanes; phases in that of their columns. */
  hands: string[];
  phases: string[];
  /** Waits between hands, the longest first. */
  waits: Wait[];
  counts: Shown;
  /** What becomes of every activity of the plan; null for typed steps. */
  fates: Fate[] | null;
}

/** What nobody is named for. */
export const NOBODY = 'Nobody named';

const shares = (a: readonly string[], b: readonly string[]): boolean => a.some((x) => b.includes(x));

/** The process that a brief asks for. */
export function processOf(plan: Plan, s: Schedule, brief: HandoffsBrief): Process {
  return brief.of === 'typed' ? typedProcess(plan, s, brief) : planProcess(plan, s, brief);
}

function typedProcess(plan: Plan, s: Schedule, brief: HandoffsBrief): Process {
  const at = new Map(brief.steps.map((step, k) => [step.id, k]));
  const steps = brief.steps.map(
    (step): ProcessStep => ({
      ref: step.id,
      name: step.name || STEP_WORDS[step.kind],
      kind: step.kind,
      hands: step.by.length > 0 ? [...new Set(step.by)] : [NOBODY],
      phase: brief.phases === null ? '' : step.phase,
      start: step.start === null ? null : dayOf(step.start),
      finish: step.finish === null ? null : finishDayOf(step.finish),
      critical: false,
      complete: false,
    }),
  );
  const arrows = brief.arrows.flatMap((a): ProcessArrow[] => {
    const [from, to] = [at.get(a.from), at.get(a.to)];
    if (from === undefined || to === undefined || from === to) return [];
    return [{ from, to, words: a.words, critical: false, handoff: !shares(steps[from]!.hands, steps[to]!.hands) }];
  });
  const time = activityTime(plan, s);
  const idle = (from: number, to: number): number | null => {
    const [finish, start] = [brief.steps[from]!.finish, brief.steps[to]!.start];
    return finish === null || start === null ? null : time.planDaysBetween(finish, start);
  };
  return {
    steps,
    arrows,
    hands: [...new Set(steps.flatMap((step) => step.hands))],
    phases: brief.phases === OWN_PHASE ? [...new Set(steps.map((step) => step.phase))] : [''],
    waits: waitsOf(steps.length, arrows, idle),
    counts: { ...NOTHING_SHOWN, of: steps.length, shown: steps.length },
    fates: null,
  };
}

function planProcess(plan: Plan, s: Schedule, brief: HandoffsBrief): Process {
  const { where, level, only, lanes, print } = brief;
  const selection = selectNetwork(plan, s, NetworkBrief.parse({ kind: 'network', where, level, only, lanes, print }));
  const { cards, lines, counts } = selection;
  const titles = laneTitles(plan, lanes);
  const title = (code: string) => titles.title(code) || NOBODY;
  const codes = [...new Set(cards.flatMap((c) => c.lanes))].sort(
    (a, b) => titles.rank(a) - titles.rank(b) || (a < b ? -1 : 1),
  );
  const led = new Set(lines.map((l) => l.to));
  const leads = new Set(lines.map((l) => l.from));
  const phaseOf = (k: number) =>
    brief.phases === null ? '' : (plan.activities[cards[k]!.index]!.codes[brief.phases] ?? '');
  const phaseTitles = brief.phases === null ? null : laneTitles(plan, brief.phases);
  const kindOf = stepKinds(plan, brief.kinds);
  const steps = cards.map((c, k): ProcessStep => {
    const said = kindOf(c.index);
    return {
      ref: c.ref,
      name: c.form === 'group' ? `${c.name} (${c.members.length})` : c.name,
      // A milestone begins or ends something, whatever lies before or behind it.
      kind: said ?? (c.form !== 'milestone' ? 'step' : led.has(k) || !leads.has(k) ? 'end' : 'start'),
      hands: c.lanes.map(title),
      phase: phaseTitles?.title(phaseOf(k)) ?? '',
      start: c.start,
      finish: c.finish,
      critical: c.critical,
      complete: c.complete,
    };
  });
  const arrows = lines.map(
    (l): ProcessArrow => ({
      from: l.from,
      to: l.to,
      words: l.words,
      critical: l.critical,
      handoff: !shares(cards[l.from]!.lanes, cards[l.to]!.lanes),
    }),
  );
  const time = activityTime(plan, s);
  const ends = cards.map((c) => {
    const dated = c.members.filter((i) => s.start[i] !== NONE);
    return dated.length === 0
      ? null
      : {
          start: least(dated.map((i) => s.start[i]!)),
          finish: most(dated.map((i) => s.finish[i]!)),
          position: dated[0]!,
        };
  });
  const idle = (from: number, to: number): number | null => {
    const [a, b] = [ends[from], ends[to]];
    return a && b ? time.daysBetween(b.position, a.finish, b.start) : null;
  };
  const phases = [...new Set(cards.map((_, k) => phaseOf(k)))].sort(
    (a, b) => (phaseTitles?.rank(a) ?? 0) - (phaseTitles?.rank(b) ?? 0),
  );
  return {
    steps,
    arrows,
    hands: codes.map(title),
    phases: phases.map((code) => phaseTitles?.title(code) ?? ''),
    waits: waitsOf(steps.length, arrows, idle),
    counts,
    fates: fatesOf(plan, s, selection),
  };
}

/** What kind of step an activity is, where the value of a field, or its title, is the word for one. */
function stepKinds(plan: Plan, field: string | null): (position: number) => StepKind | null {
  if (field === null) return () => null;
  const words = new Map(
    STEP_KINDS.flatMap((k): [string, StepKind][] => [
      [k, k],
      [STEP_WORDS[k].toLowerCase(), k],
    ]),
  );
  const titles = laneTitles(plan, field);
  const known = new Map(bookOf(plan, field).map((code) => [code, words.get(titles.title(code).toLowerCase())]));
  return (i) => {
    const code = plan.activities[i]!.codes[field] ?? '';
    return known.get(code) ?? words.get(code.toLowerCase()) ?? null;
  };
}

/** How long each step lies idle after the last of what leads to it, where that comes from other hands. */
function waitsOf(
  count: number,
  arrows: readonly ProcessArrow[],
  idle: (from: number, to: number) => number | null,
): Wait[] {
  const least = new Map<number, Wait>();
  arrows.forEach(({ from, to }, arrow) => {
    const days = idle(from, to);
    if (days === null) return;
    const known = least.get(to);
    if (!known || days < known.days) least.set(to, { arrow, days });
  });
  return Array.from({ length: count }, (_, to) => least.get(to))
    .filter((w): w is Wait => w !== undefined && w.days > 0 && arrows[w.arrow]!.handoff)
    .sort((a, b) => b.days - a.days || a.arrow - b.arrow);
}

/**
 * The steps of a plan as typed ones, to go on from: what was an activity is a step of its own.
 *
 * @returns the process, and how many steps are more than one can hold
 */
export function typedFromPlan(plan: Plan, s: Schedule, brief: HandoffsBrief): TypedProcess & { left: number } {
  const { steps, arrows } = processOf(plan, s, { ...brief, of: 'plan' });
  const kept = steps.slice(0, MOST_STEPS);
  const id = (k: number) => `s${k + 1}`;
  return {
    left: steps.length - kept.length,
    steps: kept.map((step, k) =>
      Step.parse({
        id: id(k),
        name: step.name.slice(0, 200),
        kind: step.kind,
        by: step.hands.filter((h) => h !== NOBODY).map((h) => h.slice(0, 120)),
        phase: step.phase.slice(0, 120),
        start: step.start === null ? null : startOfDay(step.start),
        finish: step.finish === null ? null : endOfDay(step.finish),
      }),
    ),
    arrows: arrows
      .filter((a) => a.from < kept.length && a.to < kept.length)
      .map((a) => StepArrow.parse({ from: id(a.from), to: id(a.to), words: a.words.slice(0, 60) })),
  };
}
