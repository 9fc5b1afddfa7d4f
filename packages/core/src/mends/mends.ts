import { statusEnd } from '../plan/status';
import { weekCalendar } from '../calendar/spec';
import type { Command } from '../commands/command';
import type { Finding, FindingCode } from '../findings/finding';
import { freeRef } from '../outline/edits';
import { type Activity, isMilestone, type Link, makeActivity, makeLink, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { stretchedWork } from '../schedule/stretches';
import { codeOfFieldId, fieldType } from '../select/fields';
import { type Day, endOfDay, parseIsoDate, startOfDay } from '../time/civil';
import { clashMends, lengthOfRate, rateByDates, windowMends } from './lineMends';
import { mergeActivities } from './merge';

/** What a mend asks of a person. A span is two days, the second of which may be left out. */
export type Asked = 'day' | 'span' | 'number' | 'text' | 'activity' | 'code' | 'one of these';

/** A way to mend a finding. */
export interface Mend {
  id: string;
  /** What it does, as on a button. */
  words: string;
  asks: Asked | null;
  /** Whether it may be done to all findings of its kind at once. */
  all: boolean;
}

/** What was answered to what a mend asks cannot be used; the message says why. */
export class AnswerRefused extends Error {}

interface Found {
  plan: Plan;
  s: Schedule;
  finding: Finding;
  /** The activity that the finding is about first. */
  a: Activity;
  at: number;
}

interface MendMaker extends Mend {
  make: (found: Found, answer: string) => Command[];
  /** Whether it can be done here; always, unless said otherwise. */
  when?: (found: Found) => boolean;
}

type Part = Partial<Omit<Activity, 'ref'>>;
const change = ({ a }: Found, part: Part): Command[] => [{ do: 'changeActivity', ref: a.ref, part }];
const mend = (
  id: string,
  words: string,
  make: MendMaker['make'],
  more: Partial<Omit<MendMaker, 'id' | 'words' | 'make'>> = {},
): MendMaker => ({ id, words, make, asks: null, all: false, ...more });

const removing = (links: readonly Link[]): Command[] => links.map((link) => ({ do: 'removeLink', link }));
const linksBetween = ({ plan, finding: { refs } }: Found): Link[] =>
  plan.links.filter((l) => l.from === refs[0] && l.to === refs[1]);

function dayIn(answer: string): Day {
  const day = parseIsoDate(answer.trim());
  if (day === null) throw new AnswerRefused(`“${answer}” is no day; say it as in 2026-07-31.`);
  return day;
}

function numberIn(answer: string, least: number): number {
  const value = Number(answer.trim().replace(',', '.'));
  if (answer.trim() === '' || !Number.isFinite(value) || value < least)
    throw new AnswerRefused(`“${answer}” is no number from ${least} up.`);
  return value;
}

function textIn(answer: string): string {
  if (answer.trim() === '') throw new AnswerRefused('Say something first.');
  return answer.trim();
}

/** Start and finish as typed: `2026-07-01/2026-07-31`, or one day for what happens on it. */
function spanIn(answer: string): { start: number; finish: number } {
  const [from = '', to = ''] = answer.split('/');
  const first = dayIn(from);
  const last = to.trim() === '' ? first : dayIn(to);
  if (last < first) throw new AnswerRefused('The finish lies before the start.');
  return { start: startOfDay(first), finish: endOfDay(last) };
}

function otherActivity({ plan, a }: Found, answer: string): string {
  const ref = answer.trim();
  if (!plan.activities.some((x) => x.ref === ref))
    throw new AnswerRefused(`There is no activity “${ref}” in the plan.`);
  if (ref === a.ref) throw new AnswerRefused('An activity is not linked to itself.');
  return ref;
}

/** Given dates as a person states them. A milestone has the one that it stands on. */
function datesOf(found: Found, { start, finish }: { start: number; finish: number }): Part {
  if (!isMilestone(found.a.kind)) return { start, finish };
  return found.a.kind === 'finishMilestone' ? { start: null, finish } : { start, finish: null };
}

/** The dates that the plan shows of the activity, as actual dates. */
function asHappened(found: Found): Part {
  const { a, s, at } = found;
  if (s.start[at] === NONE) throw new AnswerRefused(`${a.ref} has no dates to have happened on; enter them.`);
  if (isMilestone(a.kind) && !s.atFinish[at])
    return { actualStart: s.start[at]!, actualFinish: s.start[at]!, percent: 100 };
  return { actualStart: a.actualStart ?? s.start[at]!, actualFinish: s.finish[at]!, percent: 100, remaining: null };
}

const inDays = ({ plan, s, at }: Found, days: number): number => {
  const { calendar } = plan.activities[at]!;
  const spec = plan.calendars.find((c) => c.id === (calendar ?? plan.calendar)) ?? s.network.times[0]!.spec;
  return Math.round(days * spec.minutesPerDay);
};

/** A value of any field that may be required, as it is typed. */
function filling(found: Found, field: string, answer: string): Command[] {
  const code = codeOfFieldId(field);
  if (code !== null) return [{ do: 'recode', field: code, codes: [[found.a.ref, textIn(answer)]] }];
  if (field === 'start') return change(found, { start: startOfDay(dayIn(answer)) });
  if (field === 'finish') return change(found, { finish: endOfDay(dayIn(answer)) });
  if (field === 'days') return change(found, { duration: inDays(found, numberIn(answer, 0)) });
  if (field === 'effort') return change(found, { effort: numberIn(answer, 0) * 60 });
  if (field === 'cost') return change(found, { cost: Math.round(numberIn(answer, 0) * 100) });
  if (field === 'percent') return change(found, { percent: Math.min(100, numberIn(answer, 0)) });
  if (field === 'quantity') return change(found, { quantity: numberIn(answer, 0) });
  if (field === 'responsible')
    return change(found, {
      responsible: textIn(answer)
        .split(/\s*[,;]\s*/)
        .filter(Boolean)
        .slice(0, 50),
    });
  return change(found, { [field]: textIn(answer) });
}

function askedOf(field: string): Asked {
  if (codeOfFieldId(field) !== null) return 'code';
  const type = fieldType(field);
  return type === 'text' ? 'text' : type;
}

/** The lag of a link made an activity of its own, that is done between the two. */
function waitAsActivity(found: Found): Command[] {
  const { plan, finding } = found;
  const [link] = linksBetween(found).filter((l) => l.lag > 0);
  if (!link) return [];
  const after = plan.activities.find((x) => x.ref === link.to);
  const ref = freeRef(plan, `${finding.refs[0]!.slice(0, 180)}-wait`);
  return [
    {
      do: 'addActivity',
      activity: makeActivity({
        ref,
        name: `Wait before ${after?.name || link.to}`.slice(0, 1000),
        parent: after?.parent ?? null,
        calendar: after?.calendar ?? null,
        duration: link.lag,
        codes: after?.codes ?? {},
      }),
      before: link.to,
    },
    { do: 'removeLink', link },
    { do: 'addLink', link: makeLink({ from: link.from, to: ref, type: link.type === 'SS' ? 'SS' : 'FS' }) },
    { do: 'addLink', link: makeLink({ from: ref, to: link.to, type: link.type === 'FF' ? 'FF' : 'FS' }) },
  ];
}

const topLevel = mend('topLevel', 'Put it at the top level', (f) => change(f, { parent: null }), { all: true });
const letMove = mend('letMove', 'Let it move', (f) => change(f, { constraint: null }), {
  all: true,
  when: ({ a }) => a.constraint !== null,
});
const linkBefore = mend(
  'linkBefore',
  'Comes after',
  (f, answer) => [{ do: 'addLink', link: makeLink({ from: otherActivity(f, answer), to: f.a.ref }) }],
  { asks: 'activity' },
);
const linkAfter = mend(
  'linkAfter',
  'Leads to',
  (f, answer) => [{ do: 'addLink', link: makeLink({ from: f.a.ref, to: otherActivity(f, answer) }) }],
  { asks: 'activity' },
);
const removeIt = mend('remove', 'Remove it', ({ a }) => [{ do: 'removeActivity', ref: a.ref }]);
const removeLinks = mend('removeLink', 'Remove the link', (f) => removing(linksBetween(f)), { all: true });
const setDates = mend('dates', 'It runs', (f, answer) => change(f, { ...datesOf(f, spanIn(answer)), said: null }), {
  asks: 'span',
});
const happened = mend('happened', 'It happened as planned', (f) => change(f, asHappened(f)), { all: true });
const setRate = mend('rate', 'Rate a day', (f, answer) => change(f, { rate: numberIn(answer, 0) }), { asks: 'number' });

/** The ways to mend each kind of finding. What has none can only be put aside, or is mended by what comes before it. */
const MENDS: { [C in FindingCode]?: MendMaker[] | ((found: Found) => MendMaker[]) } = {
  loop: ({ finding: { refs } }) =>
    refs.map((from, k) => {
      const to = refs[(k + 1) % refs.length]!;
      return mend(`cut ${k}`, `Remove ${from} → ${to}`, ({ plan }) =>
        removing(plan.links.filter((l) => l.from === from && l.to === to)),
      );
    }),
  linkToNothing: [
    mend(
      'removeLink',
      'Remove the link',
      ({ plan, finding, a }) => removing(plan.links.filter((l) => isDangling(l, a.ref, finding))),
      { all: true },
    ),
    mend(
      'pointTo',
      'Link it to',
      (f, answer) => {
        const ref = otherActivity(f, answer);
        return f.plan.links
          .filter((l) => isDangling(l, f.a.ref, f.finding))
          .flatMap((link): Command[] => [
            { do: 'removeLink', link },
            { do: 'addLink', link: { ...link, ...(link.from === f.a.ref ? { to: ref } : { from: ref }) } },
          ]);
      },
      { asks: 'activity' },
    ),
  ],
  linkToItself: [
    mend(
      'removeLink',
      'Remove the link',
      ({ plan, a }) => removing(plan.links.filter((l) => l.from === a.ref && l.to === a.ref)),
      { all: true },
    ),
  ],
  linkToSummary: [removeLinks],
  linkTooWide: [removeLinks],
  linkTwice: [
    mend(
      'once',
      'Keep one of them',
      (f) =>
        removing(
          linksBetween(f)
            .filter((l) => l.type === f.finding.facts?.type)
            .slice(1),
        ),
      { all: true },
    ),
  ],
  parentMissing: [topLevel],
  parentLoop: [topLevel],
  calendarMissing: [
    mend('ownCalendar', 'Use the plan’s own calendar', (f) => change(f, { calendar: null }), { all: true }),
  ],
  calendarWithoutWork: [
    mend('fiveDays', 'Give it a five-day week', ({ plan, finding }) => [
      {
        do: 'setPlan',
        settings: {
          calendars: plan.calendars.map((c) =>
            c.name === finding.facts?.calendar ? { ...c, week: weekCalendar(c.id, c.name, 5).week } : c,
          ),
        },
      },
    ]),
  ],
  fixedDateConflict: [letMove],
  finishBeforeStart: [
    mend(
      'swap',
      'Swap the two dates',
      ({ a, ...f }) =>
        change(
          { a, ...f },
          { start: startOfDay(Math.ceil(a.finish! / 1440) - 1), finish: endOfDay(Math.floor(a.start! / 1440)) },
        ),
      { all: true, when: ({ a }) => a.start !== null && a.finish !== null },
    ),
    setDates,
  ],
  beyondCalendar: [
    mend('days', 'Working days', (f, answer) => change(f, { duration: inDays(f, numberIn(answer, 0)) }), {
      asks: 'number',
    }),
  ],
  noDates: [
    setDates,
    mend('compute', 'Compute all dates', () => [{ do: 'setPlan', settings: { source: 'computed' } }], {
      when: ({ plan }) => plan.source === 'given',
    }),
    removeIt,
  ],
  noStart: [
    mend(
      'start',
      'The plan starts on',
      (_, answer) => [{ do: 'setPlan', settings: { start: startOfDay(dayIn(answer)) } }],
      { asks: 'day' },
    ),
  ],
  completeWithoutDates: [
    happened,
    mend(
      'actual',
      'It ran',
      (f, answer) => {
        const { start, finish } = spanIn(answer);
        return change(f, { actualStart: start, actualFinish: finish });
      },
      { asks: 'span' },
    ),
  ],
  stretchesAgainstDuration: [
    mend(
      'asStretched',
      'Take the length of the stretches',
      (f) => {
        const { network: net } = f.s;
        const time = net.times[net.calendarOf[f.at]!]!;
        const minutes = net.resolution === 'day' ? time.spec.minutesPerDay : 1;
        return change(f, { duration: stretchedWork(f.a, time, net.slotMinutes) * minutes });
      },
      { all: true },
    ),
    mend('unstretched', 'Forget the stretches', (f) => change(f, { stretches: [] }), { all: true }),
  ],
  levelOfEffortOpen: [mend('work', 'Make it ordinary work', (f) => change(f, { kind: 'activity' }), { all: true })],
  sameNameAndParent: [
    mend('merge', 'Make one of them', ({ plan, finding }, answer) => [mergeActivities(plan, answer, finding.refs)], {
      asks: 'one of these',
    }),
    mend(
      'keep',
      'Keep only',
      ({ finding }, answer) =>
        finding.refs.filter((ref) => ref !== answer).map((ref): Command => ({ do: 'removeActivity', ref })),
      { asks: 'one of these' },
    ),
  ],
  noPredecessor: [linkBefore],
  noSuccessor: [linkAfter],
  highFloat: [linkAfter],
  lead: [mend('noLag', 'Take the lead out', (f) => relagged(f, (l) => l.lag < 0), { all: true }), removeLinks],
  longLag: [
    mend('wait', 'Make the wait an activity', waitAsActivity),
    mend('noLag', 'Take the lag out', (f) => relagged(f, (l) => l.lag > 0), { all: true }),
  ],
  hardConstraint: [letMove],
  negativeFloat: [letMove],
  deadlineMissed: [
    mend('deadline', 'The deadline is', (f, answer) => change(f, { deadline: endOfDay(dayIn(answer)) }), {
      asks: 'day',
    }),
    mend('noDeadline', 'Take the deadline off', (f) => change(f, { deadline: null }), { all: true }),
  ],
  plannedInThePast: [
    happened,
    mend('dates', 'It now runs', (f, answer) => change(f, datesOf(f, spanIn(answer))), { asks: 'span' }),
  ],
  actualInTheFuture: [
    mend(
      'notYet',
      'It has not happened yet',
      (f) => {
        const status = statusEnd(f.plan) ?? 0;
        const { actualStart, actualFinish } = f.a;
        return change(f, {
          ...(actualStart !== null && actualStart >= status && { actualStart: null }),
          ...(actualFinish !== null &&
            actualFinish > status && {
              actualFinish: null,
              ...(f.a.percent === 100 && { percent: null }),
            }),
        });
      },
      { all: true },
    ),
  ],
  missingCode: ({ finding }) => [
    mend('fill', `${finding.facts?.field}`, (f, answer) => filling(f, `code.${finding.facts?.id}`, answer), {
      asks: 'code',
      all: true,
    }),
  ],
  missingRequired: ({ finding }) => {
    const field = String(finding.facts?.id);
    return [
      mend('fill', `${finding.facts?.field}`, (f, answer) => filling(f, field, answer), {
        asks: askedOf(field),
        all: true,
      }),
    ];
  },
  missingResource: [
    mend('who', 'Responsible', (f, answer) => filling(f, 'responsible', answer), { asks: 'text', all: true }),
  ],
  linearWithoutRate: [setRate],
  linearTooSlow: [setRate],
  lineClash: ({ plan, s, finding }) =>
    clashMends(plan, s, finding).map(({ id, words, command }) => mend(id, words, () => [command])),
  inClosedWindow: ({ plan, s, finding }) =>
    windowMends(plan, s, finding).map(({ id, words, command }) => mend(id, words, () => [command])),
  builtTwice: [
    mend(
      'oneBuilds',
      'They are built only by',
      ({ plan, finding: { refs } }, answer) => {
        const built = (ref: string) =>
          plan.matches.find((m) => m.activity === ref && m.effect === 'builds')?.elements ?? [];
        const kept = new Set(built(answer));
        return refs
          .filter((ref) => ref !== answer)
          .flatMap((activity): Command[] => {
            const elements = built(activity).filter((e) => kept.has(e));
            return elements.length === 0
              ? []
              : [{ do: 'unmatchElements', match: { activity, effect: 'builds', elements } }];
          });
      },
      { asks: 'one of these' },
    ),
  ],
  rateAgainstDates: [
    mend('asPaced', 'Take the end that the rate gives', ({ plan, s, a }) => lengthOfRate(plan, s, a.ref, 'day'), {
      all: true,
    }),
    mend('asWeeks', 'The same, up to whole weeks', ({ plan, s, a }) => lengthOfRate(plan, s, a.ref, 'week'), {
      all: true,
    }),
    mend('asDated', 'Take the rate that the dates give', ({ plan, s, a }) => rateByDates(plan, s, a.ref), {
      all: true,
      when: ({ a }) => a.rate !== null || a.output !== null,
    }),
  ],
  outOfSequence: [
    mend(
      'removeLink',
      'Remove the link',
      ({ plan, finding: { refs } }) => removing(plan.links.filter((l) => l.from === refs[1] && l.to === refs[0])),
      { all: true },
    ),
  ],
  givenAgainstComputed: [
    mend(
      'computed',
      'Take the computed dates',
      (f) => change(f, datesOf(f, { start: f.s.earlyStart[f.at]!, finish: f.s.earlyFinish[f.at]! })),
      { all: true },
    ),
  ],
  milestoneWithDuration: [
    mend('noLength', 'Take its length off', (f) => change(f, { duration: 0 }), { all: true }),
    mend('work', 'Make it an activity', (f) => change(f, { kind: 'activity' }), { all: true }),
  ],
};

const isDangling = (l: Link, ref: string, { facts }: Finding): boolean =>
  (l.from === ref && l.to === facts?.missing) || (l.to === ref && l.from === facts?.missing);

function relagged(found: Found, which: (l: Link) => boolean): Command[] {
  return linksBetween(found)
    .filter(which)
    .flatMap((link): Command[] => [
      { do: 'removeLink', link },
      { do: 'addLink', link: { ...link, lag: 0 } },
    ]);
}

function foundIn(plan: Plan, s: Schedule, finding: Finding): Found {
  const at = finding.refs.length === 0 ? -1 : (s.outline.indexOf.get(finding.refs[0]!) ?? -1);
  return { plan, s, finding, at, a: plan.activities[at] ?? makeActivity({ ref: finding.refs[0] ?? '-' }) };
}

function makersFor(found: Found): MendMaker[] {
  const makers = MENDS[found.finding.code] ?? [];
  return (typeof makers === 'function' ? makers(found) : makers).filter((m) => m.when?.(found) ?? true);
}

/** The ways in which a finding can be mended where it stands. */
export const mendsFor = (plan: Plan, s: Schedule, finding: Finding): Mend[] =>
  makersFor(foundIn(plan, s, finding)).map(({ id, words, asks, all }) => ({ id, words, asks, all }));

/**
 * What mends a finding, or several of a kind alike, as one command.
 *
 * @param answer what a person said to what the mend asks; days as `2026-07-31`, a span as two of them with `/` between
 * @throws AnswerRefused when the answer cannot be used
 */
export function mendCommand(plan: Plan, s: Schedule, findings: readonly Finding[], id: string, answer = ''): Command {
  const commands = findings.flatMap((finding) => {
    const found = foundIn(plan, s, finding);
    const maker = makersFor(found).find((m) => m.id === id);
    return maker ? maker.make(found, answer) : [];
  });
  if (commands.length === 0) throw new AnswerRefused('There is nothing to mend (any more).');
  return commands.length === 1 ? commands[0]! : { do: 'all', commands };
}
