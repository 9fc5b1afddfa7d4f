import {
  type Activity,
  type CalendarSpec,
  type CodeField,
  endOfDay,
  isMilestone,
  type Link,
  type LinkType,
  makeActivity,
  makeField,
  makeLink,
  minutesIn,
  NONE,
  OFFICE_DAY,
  type Period,
  type Line,
  makePlan,
  makeValue,
  parseIsoDate,
  type Plan,
  schedulePlan,
  startOfDay,
  weekCalendar,
} from '../packages/core/src/index';

/** What a demo says of an activity beside its name and length. */
export interface Said {
  after?: string;
  codes?: Record<string, string>;
  calendar?: string;
  kind?: Activity['kind'];
  notEarlier?: string;
  fixed?: string;
  from?: number;
  to?: number;
  /** The line that the places are on, where it is not the first. */
  line?: string;
  cost?: number;
  effort?: number;
  who?: string[];
  /** Length as it turned out or is now expected, where it differs from what was promised. */
  now?: number;
  /** Days by which work began later than it could have. */
  waits?: number;
}

/** Writes a made-up plan down activity by activity, and works out its dates with the engine. */
export class PlanBuilder {
  readonly activities: Activity[] = [];
  readonly links: Link[] = [];
  private readonly now = new Map<string, { days?: number; waits?: number }>();
  private readonly parents: string[] = [];

  constructor(
    private readonly name: string,
    private readonly calendars: CalendarSpec[],
    private readonly codeFields: CodeField[],
    private readonly periods: Period[] = [],
    private readonly lines: Line[] = [],
    /** Code field whose values do the work, and how many of each there are at a time. */
    private readonly crews: { field: string; sizes: Record<string, number> } | null = null,
  ) {}

  group(ref: string, name: string, codes: Record<string, string>, fill: () => void): void {
    this.activities.push(makeActivity({ ref, name, kind: 'summary', parent: this.parents.at(-1) ?? null, codes }));
    this.parents.push(ref);
    fill();
    this.parents.pop();
  }

  /** `after` is written as in a table: `A12`, `A12 SS+3`, separated by commas; lags are working days. */
  add(ref: string, name: string, days: number, said: Said = {}): void {
    const perDay = this.calendars.find((c) => c.id === (said.calendar ?? this.calendars[0]!.id))!.minutesPerDay;
    const milestone = days === 0;
    this.activities.push(
      makeActivity({
        ref,
        name,
        kind: said.kind ?? (milestone ? (said.after ? 'finishMilestone' : 'startMilestone') : 'activity'),
        parent: this.parents.at(-1) ?? null,
        calendar: said.calendar ?? null,
        duration: said.kind === 'levelOfEffort' ? null : days * perDay,
        codes: said.codes ?? {},
        constraint: said.fixed
          ? { kind: 'fixedStart', moment: startOfDay(parseIsoDate(said.fixed)!) }
          : said.notEarlier
            ? { kind: 'startNotEarlier', moment: startOfDay(parseIsoDate(said.notEarlier)!) }
            : null,
        from: said.from === undefined ? null : said.from * 1000,
        to: said.to === undefined ? null : said.to * 1000,
        line: said.line ?? null,
        cost: said.cost === undefined ? null : said.cost * 100,
        effort: said.effort === undefined ? null : said.effort * 60,
        assignments: this.assigned(said),
        responsible: said.who ?? [],
      }),
    );
    if (said.now !== undefined || said.waits !== undefined) this.now.set(ref, { days: said.now, waits: said.waits });
    for (const part of (said.after ?? '')
      .split(',')
      .map((p) => p.trim())
      .filter(Boolean)) {
      const m = /^(\S+)(?:\s+(FS|SS|FF|SF))?\s*([+-]\d+)?$/.exec(part);
      if (!m) throw new Error(`${ref}: predecessor “${part}” is not understood`);
      this.links.push(
        makeLink({ from: m[1]!, to: ref, type: (m[2] ?? 'FS') as LinkType, lag: Number(m[3] ?? 0) * perDay }),
      );
    }
  }

  private assigned({ effort, codes }: Said): Activity['assignments'] {
    const crew = this.crews && codes?.[this.crews.field];
    return crew && effort !== undefined ? [{ resource: crew, effort: effort * 60 }] : [];
  }

  link(from: string, to: string, type: LinkType): void {
    this.links.push(makeLink({ from, to, type }));
  }

  /** The plan as it was promised, with computed dates. */
  promised(start: string): Plan {
    const plan = makePlan({
      name: this.name,
      start: startOfDay(parseIsoDate(start)!),
      source: 'computed',
      currency: 'GBP',
      calendars: this.calendars,
      calendar: this.calendars[0]!.id,
      activities: this.activities.map((a) => ({ ...a })),
      links: this.links,
      codeFields: this.codeFields,
      periods: this.periods,
      lines: this.lines,
      resources: Object.entries(this.crews?.sizes ?? {}).map(([name, limit]) => ({
        id: name,
        name,
        unit: 'hour',
        rate: null,
        limit,
        calendar: null,
      })),
    });
    return withComputedDates(plan);
  }

  /** The plan as it stands on the status date: what lies before it has happened, what runs through it is part done. */
  current(start: string, status: string): Plan {
    return this.lived(start, status, this.now);
  }

  /** The plan as it stood on an earlier status date, when only the trouble of what had begun was known. */
  earlier(start: string, status: string, known: Plan): Plan {
    const at = endOfDay(parseIsoDate(status)!);
    const begun = (ref: string) => {
      const a = known.activities.find((x) => x.ref === ref)!;
      return (a.start ?? a.finish ?? Number.POSITIVE_INFINITY) < at;
    };
    return this.lived(start, status, new Map([...this.now].filter(([ref]) => begun(ref))));
  }

  private lived(start: string, status: string, turned: typeof this.now): Plan {
    const statusDate = startOfDay(parseIsoDate(status)!);
    const over = endOfDay(parseIsoDate(status)!);
    const promised = this.promised(start);
    const lived: Plan = {
      ...promised,
      activities: promised.activities.map((a) => {
        const now = turned.get(a.ref);
        if (!now) return a;
        const perDay = this.calendars.find((c) => c.id === (a.calendar ?? promised.calendar))!.minutesPerDay;
        return { ...a, duration: now.days === undefined ? a.duration : now.days * perDay };
      }),
      links: [...promised.links],
    };
    for (const [ref, { waits }] of turned) {
      if (!waits) continue;
      lived.links = lived.links.map((l) => (l.to === ref && l.type === 'FS' ? { ...l, lag: l.lag + waits * 480 } : l));
    }
    const s = schedulePlan(lived);
    /** What takes longer costs as much more. */
    const spent = (a: Activity, share: number): Partial<Activity> => {
      const planned = this.activities.find((x) => x.ref === a.ref)!.duration;
      const ratio = planned && a.duration ? a.duration / planned : 1;
      return {
        actualEffort: a.effort === null ? null : Math.round(a.effort * share * ratio),
        actualCost: a.cost === null ? null : Math.round(a.cost * share * ratio),
      };
    };
    const activities = lived.activities.map((a, i): Activity => {
      const start = s.earlyStart[i]!;
      const finish = s.earlyFinish[i]!;
      if (a.kind === 'summary' || a.kind === 'levelOfEffort' || start === NONE || start >= over) return a;
      const began = { ...a, actualStart: start, constraint: null };
      if (isMilestone(a.kind)) {
        const reached = { ...a, ...spent(a, 1), constraint: null, percent: 100 };
        return s.atFinish[i]
          ? { ...reached, actualFinish: finish }
          : { ...reached, actualStart: start, actualFinish: start };
      }
      if (finish <= over) return { ...began, ...spent(a, 1), actualFinish: finish, percent: 100 };
      const time = s.network.times[s.network.calendar[s.network.nodeOf[i]!]!]!;
      const all = time.between(start / 1440, finish / 1440);
      const done = time.between(start / 1440, over / 1440);
      return {
        ...began,
        ...spent(a, done / all),
        percent: Math.round((100 * done) / all),
        remaining: (all - done) * time.spec.minutesPerDay,
      };
    });
    return withComputedDates({ ...lived, statusDate, activities, links: promised.links });
  }
}

function withComputedDates(plan: Plan): Plan {
  const s = schedulePlan(plan);
  return {
    ...plan,
    source: 'given',
    activities: plan.activities.map((a, i) => {
      if (a.kind === 'summary' || s.earlyStart[i] === NONE) return a;
      const [start, finish] = [s.earlyStart[i]!, s.earlyFinish[i]!];
      if (!isMilestone(a.kind)) return { ...a, start, finish };
      return s.atFinish[i] ? { ...a, start: null, finish } : { ...a, start, finish: null };
    }),
  };
}

/** A week of so many days, eight hours each, without the days off. */
export function calendarWith(
  id: string,
  name: string,
  workdays: number,
  daysOff: { name: string; from: string; to?: string }[],
  pattern = OFFICE_DAY,
): CalendarSpec {
  const calendar = weekCalendar(id, name, workdays, pattern);
  calendar.minutesPerDay = minutesIn(pattern);
  calendar.exceptions = daysOff.flatMap(({ name: why, from, to }) => {
    const [first, last] = [parseIsoDate(from)!, parseIsoDate(to ?? from)!];
    return Array.from({ length: last - first + 1 }, (_, k) => ({ day: first + k, pattern: [], name: why }));
  });
  return calendar;
}

export const period = (name: string, from: string, to: string): Period => ({
  name,
  start: startOfDay(parseIsoDate(from)!),
  finish: endOfDay(parseIsoDate(to)!),
});

/** A code field from titles; its codes are the titles. */
export const field = (id: string, name: string, ...titles: string[]): CodeField =>
  makeField({ id, name, values: titles.map((code) => makeValue({ code })) });
