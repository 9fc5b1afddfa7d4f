import {
  type ActivityTime,
  activityTime,
  type AssessmentPoint,
  assessSchedule,
  checkPlan,
  dayOf,
  finishDayOf,
  type CalendarSpec,
  isMilestone,
  lengthWords,
  type Link,
  NONE,
  outlineNumbers,
  type Plan,
  percentComplete,
  type Schedule,
  schedulePlan,
  wordsFor,
} from '@clembo/core';
import { writeSvg } from '@clembo/render/svg';
import {
  composeTimeline,
  type ContentRow,
  createMeasure,
  type Fit,
  type FontMetrics,
  formatDay,
  suggestTimelineBrief,
  type TimelineBrief,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import { expose } from 'comlink';

/** What the interface needs to know of a plan without holding its activities. */
export type PlanHead = Omit<Plan, 'activities' | 'links'> & { edition: string; levels: number; activityCount: number };

export interface ComposedPage {
  svg: string;
  title: string;
  fit: Fit;
  content: ContentRow[];
  width: number;
  height: number;
}

/** One row of the ledger. Days are day numbers, floats and lengths working days. */
export interface LedgerRow {
  ref: string;
  number: string;
  name: string;
  level: number;
  parent: number;
  kind: string;
  summary: boolean;
  start: number | null;
  finish: number | null;
  days: number | null;
  float: number | null;
  critical: boolean;
  /** Working days by which the computed finish lies after the given one; null where one is missing. */
  off: number | null;
  percent: number;
  codes: Record<string, string>;
}

/** What the checks say, in words. */
export interface Checks {
  findings: {
    code: string;
    severity: 'error' | 'warning' | 'note';
    refs: string[];
    /** The sentence in parts: every second one is a reference. */
    words: string[];
  }[];
  points: AssessmentPoint[];
  /** The edition that the assessment measures against, or null where the plan has only one. */
  baseline: string | null;
}

/** The facts about one activity, as the margin shows them. */
export interface Facts {
  ref: string;
  name: string;
  kind: string;
  path: string[];
  rows: [label: string, value: string][];
  codes: [field: string, value: string][];
  before: { ref: string; name: string; how: string }[];
  after: { ref: string; name: string; how: string }[];
  notes: string;
}

/** Stands around references in a sentence, and in no text that a person writes. */
const REF_MARK = '\u0001';

const COMPLETE = { stated: 'Complete', time: 'Complete by time', effort: 'Complete by effort' } as const;

interface PlanBody {
  plan: Plan;
  edition: string;
  editions: { id: string; name: string; working: boolean }[];
}

async function fetchPlan(path: string): Promise<PlanBody> {
  const response = await fetch(path);
  const body = (await response.json()) as PlanBody & { error?: string };
  if (!response.ok) throw new Error(body.error ?? 'The plan could not be loaded.');
  return body;
}

/** Holds a plan in the browser, schedules it once and composes its pages off the main thread. */
export class PlanRoom {
  private plan: Plan | null = null;
  private schedule: Schedule | null = null;
  private edition = '';
  /** Where the oldest edition that was kept is found: what was promised. */
  private baselineAt: string | null = null;
  private readonly measure = createMeasure(metrics as FontMetrics);

  async open(planId: string): Promise<PlanHead> {
    const body = await fetchPlan(`/api/plans/${planId}`);
    const oldest = body.editions.filter((e) => !e.working).at(-1);
    this.baselineAt = oldest ? `/api/plans/${planId}?edition=${oldest.id}` : null;
    this.plan = body.plan;
    this.edition = body.edition;
    this.schedule = schedulePlan(body.plan);
    const { activities, links: _, ...head } = body.plan;
    return {
      ...head,
      edition: body.edition,
      levels: this.schedule.outline.level.reduce((a, b) => Math.max(a, b), 1),
      activityCount: activities.length,
    };
  }

  private get held(): { plan: Plan; schedule: Schedule } {
    if (!this.plan || !this.schedule) throw new Error('no plan is open');
    return { plan: this.plan, schedule: this.schedule };
  }

  suggest(): TimelineBrief {
    const { plan, schedule } = this.held;
    return suggestTimelineBrief(plan, schedule);
  }

  compose(brief: TimelineBrief): ComposedPage {
    const scene = composeTimeline({ ...this.held, brief, measure: this.measure, edition: this.edition });
    const svg = writeSvg(scene, { fonts: metrics as FontMetrics, references: true, sized: false });
    return {
      svg,
      title: scene.title,
      fit: scene.fit,
      content: scene.content,
      width: scene.width,
      height: scene.height,
    };
  }

  ledger(): LedgerRow[] {
    const { plan, schedule: s } = this.held;
    const { percent } = percentComplete(plan, s);
    const numbers = outlineNumbers(s.outline);
    const time = activityTime(plan, s);
    const positions = new Map([...s.outline.order].map((i, k) => [i, k]));
    return [...s.outline.order].map((i) => {
      const a = plan.activities[i]!;
      const perDay = this.calendarOf(a.calendar).minutesPerDay;
      const known = s.start[i] !== NONE;
      const point = isMilestone(a.kind) && !s.atFinish[i];
      return {
        ref: a.ref,
        number: numbers[i]!,
        name: a.name,
        level: s.outline.level[i]!,
        parent: s.outline.parent[i] === -1 ? -1 : positions.get(s.outline.parent[i]!)!,
        kind: a.kind,
        summary: s.outline.isSummary[i]!,
        start: known ? this.startDay(i) : null,
        finish: known ? (point ? dayOf(s.finish[i]!) : finishDayOf(s.finish[i]!)) : null,
        days: a.duration === null || a.duration === 0 || s.outline.isSummary[i] ? null : round(a.duration / perDay),
        float: s.totalFloat[i] === NONE ? null : round(s.totalFloat[i]! / perDay),
        critical: s.critical[i] === 1,
        off: this.offDays(time, i),
        percent: Math.round(percent[i]! || 0),
        codes: a.codes,
      };
    });
  }

  facts(ref: string): Facts | null {
    const { plan, schedule: s } = this.held;
    const i = s.outline.indexOf.get(ref);
    if (i === undefined) return null;
    const a = plan.activities[i]!;
    const calendar = this.calendarOf(a.calendar);
    const path: string[] = [];
    for (let p = s.outline.parent[i]!; p !== -1; p = s.outline.parent[p]!) path.unshift(plan.activities[p]!.name);
    const point = isMilestone(a.kind);
    const finishDay = point && !s.atFinish[i] ? dayOf(s.finish[i]!) : finishDayOf(s.finish[i]!);
    const days = (minutes: number) => lengthWords(minutes, 'day', calendar);
    const rows: [string, string][] = [];
    if (s.start[i] !== NONE) {
      if (!point) rows.push(['Start', formatDay(this.startDay(i), 'weekday')]);
      rows.push([point ? 'Date' : 'Finish', formatDay(finishDay, 'weekday')]);
    }
    if (a.duration !== null && !point && !s.outline.isSummary[i]) rows.push(['Length', days(a.duration)]);
    if (a.actualStart !== null && !point) rows.push(['Started', formatDay(dayOf(a.actualStart), 'weekday')]);
    if (a.actualFinish !== null)
      rows.push([
        point ? 'Reached' : 'Finished',
        formatDay(s.atFinish[i] ? finishDayOf(a.actualFinish) : dayOf(a.actualFinish), 'weekday'),
      ]);
    if (s.totalFloat[i] !== NONE)
      rows.push(['Float', s.critical[i] ? `${days(s.totalFloat[i]!)}, critical` : days(s.totalFloat[i]!)]);
    if (!point) rows.push([COMPLETE[plan.percentShown], `${Math.round(percentComplete(plan, s).percent[i]! || 0)} %`]);
    if (!point && !s.outline.isSummary[i]) rows.push(['Calendar', calendar.name]);
    if (a.responsible.length > 0) rows.push(['Responsible', a.responsible.join(', ')]);
    const linkOf = (other: string, link: Link) => ({
      ref: other,
      name: plan.activities[s.outline.indexOf.get(other) ?? -1]?.name ?? 'not in the plan',
      how: link.lag === 0 ? link.type : `${link.type} ${link.lag > 0 ? '+' : '−'}${this.lagWords(link)}`,
    });
    return {
      ref,
      name: a.name,
      kind: s.outline.isSummary[i] ? 'summary' : a.kind,
      path,
      rows,
      codes: plan.codeFields.flatMap((f): [string, string][] => {
        const code = a.codes[f.id];
        return code === undefined ? [] : [[f.name, f.values.find((v) => v.code === code)?.title ?? code]];
      }),
      before: plan.links.filter((l) => l.to === ref).map((l) => linkOf(l.from, l)),
      after: plan.links.filter((l) => l.from === ref).map((l) => linkOf(l.to, l)),
      notes: a.notes,
    };
  }

  /** The size of a lag in the time that it is counted in. */
  private lagWords({ lag, lagCalendar, from, to }: Link): string {
    const { plan, schedule: s } = this.held;
    const counted =
      lagCalendar === 'plan' ? undefined : s.outline.indexOf.get(lagCalendar === 'predecessor' ? from : to);
    const calendar = this.calendarOf(counted === undefined ? null : plan.activities[counted]!.calendar);
    return lengthWords(Math.abs(lag), lagCalendar === 'elapsed' ? 'elapsedDay' : 'day', calendar);
  }

  /** Findings about the data, the gravest first, and the 14-point assessment. */
  async checks(): Promise<Checks> {
    const { plan, schedule } = this.held;
    const rank = { error: 0, warning: 1, note: 2 };
    const findings = checkPlan(plan, schedule)
      .map((f) => ({
        code: f.code,
        severity: f.severity,
        refs: f.refs,
        words: wordsFor({ ...f, refs: f.refs.map((ref) => REF_MARK + ref + REF_MARK) }).split(REF_MARK),
      }))
      .sort((a, b) => rank[a.severity] - rank[b.severity]);
    const baseline = this.baselineAt === null ? null : await fetchPlan(this.baselineAt);
    return {
      findings,
      points: assessSchedule(plan, schedule, baseline?.plan ?? null),
      baseline: baseline?.edition ?? null,
    };
  }

  /** Activities whose name or reference holds the text. */
  find(text: string, limit: number): { ref: string; name: string }[] {
    const wanted = text.trim().toLowerCase();
    if (wanted === '') return [];
    const found: { ref: string; name: string }[] = [];
    for (const { ref, name } of this.held.plan.activities) {
      if (!name.toLowerCase().includes(wanted) && !ref.toLowerCase().includes(wanted)) continue;
      found.push({ ref, name });
      if (found.length === limit) break;
    }
    return found;
  }

  private offDays(time: ActivityTime, i: number): number | null {
    const { plan, schedule: s } = this.held;
    if (s.given.finish[i] === NONE || s.earlyFinish[i] === NONE || s.outline.isSummary[i] || plan.links.length === 0)
      return null;
    return round(time.daysBetween(i, s.given.finish[i]!, s.earlyFinish[i]!));
  }

  private startDay(i: number): number {
    const { plan, schedule: s } = this.held;
    return isMilestone(plan.activities[i]!.kind) && s.atFinish[i] ? finishDayOf(s.start[i]!) : dayOf(s.start[i]!);
  }

  /** The calendar with this id, or the plan's own. */
  private calendarOf(id: string | null): CalendarSpec {
    const { calendars, calendar: own } = this.held.plan;
    return calendars.find((c) => c.id === id) ?? calendars.find((c) => c.id === own) ?? calendars[0]!;
  }
}

const round = (value: number): number => Math.round(value * 10) / 10;

expose(new PlanRoom());
