import {
  allRows,
  dayOf,
  doneReader,
  endsOf,
  type Ends,
  isComplete,
  isMilestone,
  latenessOf,
  linkedToEnd,
  NONE,
  percentOfRows,
  type Plan,
  type Schedule,
  shownDays,
  statusAt,
  statusEnd,
  activityTime,
  type Lateness,
  wholePercent,
} from '@clembo/core';
import type { Tells } from '../brief/tells';
import { en } from '../text/languages/en';
import { dayWords, numberWords, type PageLanguage } from '../text/languages/language';
import { TITLE_WORDS, type TitleWords } from '../text/languages/titles';
import type { Promised } from './composed';

/** What a title is made from: the rows that its page shows, and the question that the page answers. */
export interface Told {
  plan: Plan;
  schedule: Schedule;
  promised: Promised | null;
  /** Positions of the activities that the page shows, for themselves or within what stands for them. */
  rows: readonly number[];
  tells: Tells;
  /** How many weeks the page looks ahead. */
  weeks?: number;
  /** The part that a page is about, where it has a name of its own. */
  name?: string | null;
  /** In which part of its page something stands: its innermost lane, or who is responsible. */
  partOf?: (position: number) => string;
  language?: PageLanguage;
}

/**
 * What the facts say about the rows of a page, in one sentence. All numbers in it are facts of core. Where the page
 * shows a part, the sentence says of how many; where it shows nothing, it only names the plan.
 */
export function statementOf(told: Told): string {
  const { plan, schedule: s, promised, rows } = told;
  if (rows.length === 0) return plan.name;
  const language = told.language ?? en;
  const of = allRows(plan, s).length;
  const w = TITLE_WORDS[language.code];
  const name = told.name ?? plan.name;
  const about = rows.length < of ? w.part(name, rows.length, of) : name;
  const telling: Telling = { ...told, language, w, about, ends: endsOf(plan, s, promised, rows) };
  return ANSWERS[told.tells](telling);
}

interface Telling extends Told {
  language: PageLanguage;
  w: TitleWords;
  about: string;
  ends: Ends;
}

const ANSWERS: Record<Tells, (t: Telling) => string> = {
  end: tellEnd,
  chain: tellChain,
  next: tellNext,
  behind: tellBehind,
  changed: tellChanged,
  who: tellWho,
  parts: tellParts,
  progress: tellProgress,
  milestones: tellMilestones,
};

/** When the rows end, how sure that is, and how it stands against the promise. */
function tellEnd({ plan, schedule: s, promised, rows, ends, about, w, language: l }: Telling): string {
  if (ends.last === null) return about;
  const day = dayWords(l, ends.last, 'long');
  if (ends.openWithout > 0) return w.knownTo(about, day, ends.openWithout, ends.of);
  if (ends.complete) return l.completedOn(about, day) + againstWords(ends, l);
  const runs = ends.expected === null ? l.runsTo(about, day) : w.expectedTo(about, day);
  if (ends.late === null) {
    const percent = plan.statusDate === null ? null : percentOfRows(doneReader(plan, s, plan.percentShown), rows);
    const whole = percent === null ? 0 : wholePercent(percent);
    return whole > 0 ? `${runs}${l.percentOfWork(whole)}` : runs;
  }
  if (ends.late > 0 || !promised) return runs + againstWords(ends, l);
  const worst = latenessOf(
    plan,
    s,
    promised,
    rows.filter((i) => isMilestone(plan.activities[i]!.kind) && !isComplete(plan.activities[i]!)),
  ).worst;
  const late =
    worst && worst.days >= WORTH_SAYING ? l.milestoneLate(nameOf(plan, worst.position), Math.round(worst.days)) : '';
  return runs + againstWords(ends, l) + late;
}

/** Less than this many working days late are not worth a word in a title about the end. */
const WORTH_SAYING = 5;

const againstWords = ({ late }: Ends, l: PageLanguage): string =>
  late === null ? '' : late === 0 ? l.asPromised : l.againstPromise(Math.abs(late), late > 0);

const nameOf = (plan: Plan, i: number): string => plan.activities[i]!.name || plan.activities[i]!.ref;

/** What decides the end of the plan, as far as it is linked, and by how much the rest may slip. */
function tellChain(t: Telling): string {
  const { plan, schedule: s, rows, w, language: l } = t;
  const name = t.name ?? plan.name;
  const whole = endsOf(plan, s, null, allRows(plan, s));
  if (whole.last === null) return name;
  const day = dayWords(l, whole.last, 'long');
  const open = (i: number) => !isComplete(plan.activities[i]!);
  const deciding = allRows(plan, s).filter((i) => s.critical[i] === 1 && open(i));
  if (deciding.length === 0 || (deciding.length === 1 && deciding[0] === whole.lastOf && !leadsAnywhere(s)))
    return w.nothingDecides(name, day);
  const linked = linkedToEnd(plan, s);
  const far = linked.isWhole ? '' : w.linkedSoFar(linked.lead, linked.of);
  const time = activityTime(plan, s);
  let least = Number.POSITIVE_INFINITY;
  for (const i of allRows(plan, s)) {
    if (!open(i) || s.critical[i] === 1 || s.totalFloat[i] === NONE) continue;
    least = Math.min(least, s.totalFloat[i]! / time.minutesPerDay(i));
  }
  const float = Number.isFinite(least) && least > 0 ? w.nextFloat(numberWords(l, least), least === 1) : '';
  const shown = rows.filter((i) => s.critical[i] === 1 && open(i)).length;
  return (
    w.decide(shown < deciding.length ? w.part(name, shown, deciding.length) : name, deciding.length, day) + far + float
  );
}

const leadsAnywhere = (s: Schedule): boolean => s.leads.includes(1);

/** What starts and ends in the weeks after the status date, and the next milestone of the plan. */
function tellNext(t: Telling): string {
  const { plan, schedule: s, rows, w, weeks = 6, language: l } = t;
  if (plan.statusDate === null) return tellEnd(t);
  const today = dayOf(plan.statusDate);
  const until = today + 7 * weeks;
  const within = (day: number) => day > today && day <= until;
  let [starts, ends] = [0, 0];
  for (const i of rows) {
    const shown = shownDays(s, i);
    if (!shown || isComplete(plan.activities[i]!) || isMilestone(plan.activities[i]!.kind)) continue;
    if (within(shown.first) && plan.activities[i]!.actualStart === null) starts++;
    if (within(shown.last)) ends++;
  }
  return w.weeks(t.name ?? plan.name, weeks, starts, ends) + nextMilestoneWords(plan, s, allRows(plan, s), w, l);
}

function nextMilestoneWords(plan: Plan, s: Schedule, rows: readonly number[], w: TitleWords, l: PageLanguage): string {
  const next = nextMilestone(plan, s, rows);
  return next === null ? '' : w.nextMilestone(nameOf(plan, next.position), dayWords(l, next.day, 'long'));
}

/** The first milestone that is not reached; one that should have been reached by the status date is not next. */
export function nextMilestone(
  plan: Plan,
  s: Schedule,
  rows: Iterable<number>,
): { position: number; day: number } | null {
  let next: { position: number; day: number } | null = null;
  for (const i of rows) {
    const a = plan.activities[i]!;
    const shown = isMilestone(a.kind) && !isComplete(a) ? shownDays(s, i) : null;
    if (!shown || (plan.statusDate !== null && shown.last <= dayOf(plan.statusDate))) continue;
    if (next === null || shown.last < next.day) next = { position: i, day: shown.last };
  }
  return next;
}

/** How many of all are behind the promise, which most, and what that does to the end. */
function tellBehind(t: Telling): string {
  const { plan, schedule: s, promised, w } = t;
  if (!promised) return tellEnd(t);
  const rows = allRows(plan, s);
  const found: Lateness = latenessOf(plan, s, promised, rows);
  const name = t.name ?? plan.name;
  if (found.worst === null) return w.nothingBehind(name, rows.length);
  const ends = endsOf(plan, s, promised, rows);
  const moved = ends.late === null ? '' : ends.late > 0 ? w.endLater(ends.late) : w.endKept;
  return (
    w.behind(name, found.behind.length, rows.length) +
    w.most(nameOf(plan, found.worst.position), found.worst.days) +
    moved
  );
}

/** How many moved and how many are new since the edition compared with. */
function tellChanged(t: Telling): string {
  const { plan, schedule: s, promised, w } = t;
  if (!promised) return tellEnd(t);
  const rows = allRows(plan, s);
  const found = latenessOf(plan, s, promised, rows);
  const fresh = rows.filter((i) => !promised.schedule.outline.indexOf.has(plan.activities[i]!.ref)).length;
  return w.changed(t.name ?? plan.name, found.behind.length + found.ahead.length, fresh);
}

/** How much of the work each has. */
function tellWho(t: Telling): string {
  const { rows, w, about, partOf } = t;
  const most = countedParts(rows, partOf);
  if (most.length < 2) return tellEnd(t);
  const [name, list] = most[0]!;
  return w.shared(about, most.length, name, list.length, rows.length);
}

/** Which part is furthest behind its promise, or runs longest. */
function tellParts(t: Telling): string {
  const { plan, schedule: s, promised, rows, w, about, language: l, partOf } = t;
  const parts = countedParts(rows, partOf).map(([name, list]) => ({ name, ends: endsOf(plan, s, promised, list) }));
  if (parts.length < 2) return tellEnd(t);
  const late = parts.filter((p) => (p.ends.late ?? 0) > 0).sort((a, b) => b.ends.late! - a.ends.late!)[0];
  if (late) return w.worstPart(about, late.name, late.ends.late!);
  const last = parts.filter((p) => p.ends.last !== null).sort((a, b) => b.ends.last! - a.ends.last!)[0];
  return last ? w.longestPart(about, last.name, dayWords(l, last.ends.last!, 'long')) : about;
}

/** Named parts with what they hold, the largest first. */
function countedParts(rows: readonly number[], partOf: Told['partOf']): [name: string, list: number[]][] {
  const parts = new Map<string, number[]>();
  for (const i of rows) {
    const name = partOf?.(i) ?? '';
    if (name === '') continue;
    const list = parts.get(name);
    if (list) list.push(i);
    else parts.set(name, [i]);
  }
  return [...parts].sort((a, b) => b[1].length - a[1].length);
}

/** How many are complete, begun, and to come. */
function tellProgress({ plan, schedule: s, rows, w, about }: Telling): string {
  const done = rows.filter((i) => isComplete(plan.activities[i]!)).length;
  return w.progress(about, done, begunOf(plan, s, rows), rows.length);
}

const begunOf = (plan: Plan, s: Schedule, rows: readonly number[]): number => {
  const moment = statusEnd(plan) ?? Number.NEGATIVE_INFINITY;
  return rows.filter((i) => statusAt(plan, s, i, moment) === 'inProgress').length;
};

/** How many milestones are to come, and which is next. */
function tellMilestones(t: Telling): string {
  const { plan, schedule: s, rows, w, language: l } = t;
  const points = rows.filter((i) => isMilestone(plan.activities[i]!.kind));
  if (points.length === 0) return tellEnd(t);
  const left = points.filter((i) => !isComplete(plan.activities[i]!)).length;
  const name = t.name ?? plan.name;
  return left === 0
    ? w.allReached(name, points.length)
    : w.toCome(name, left, points.length) + nextMilestoneWords(plan, s, points, w, l);
}
