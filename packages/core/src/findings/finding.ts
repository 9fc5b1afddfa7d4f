/**
 * Something about the data that the planner should know. Findings are data: a code, the references they
 * are about, and facts. The words stand in `words.ts`.
 */
export interface Finding {
  code: FindingCode;
  severity: 'error' | 'warning' | 'note';
  /** References of the activities concerned, in an order that means something for the code. */
  refs: string[];
  facts?: Record<string, string | number>;
}

export type FindingCode =
  | 'loop'
  | 'linkToNothing'
  | 'linkToItself'
  | 'linkToSummary'
  | 'linkTooWide'
  | 'linkTwice'
  | 'duplicateReference'
  | 'parentMissing'
  | 'parentLoop'
  | 'calendarMissing'
  | 'calendarWithoutWork'
  | 'fixedDateConflict'
  | 'finishBeforeStart'
  | 'beyondCalendar'
  | 'noDates'
  | 'noStart'
  | 'completeWithoutDates'
  | 'stretchesAgainstDuration'
  | 'levelOfEffortOpen'
  | 'sameNameAndParent'
  | 'noPredecessor'
  | 'noSuccessor'
  | 'lead'
  | 'longLag'
  | 'hardConstraint'
  | 'longDuration'
  | 'highFloat'
  | 'negativeFloat'
  | 'deadlineMissed'
  | 'plannedInThePast'
  | 'actualInTheFuture'
  | 'missingCode'
  | 'missingRequired'
  | 'missingResource'
  | 'linearWithoutRate'
  | 'linearTooSlow'
  | 'lineClash'
  | 'inClosedWindow'
  | 'rateAgainstDates'
  | 'builtTwice'
  | 'removedBeforeBuilt'
  | 'standsAndBuilt'
  | 'outOfSequence'
  | 'givenAgainstComputed'
  | 'milestoneWithDuration';

const elementsIn = ({ facts }: Finding): string =>
  facts?.elements === 1 ? 'One element is' : `${facts?.elements ?? ''} elements are`;

/** What a finding says, in one sentence that names the thing and what to do about it. */
export function wordsFor(finding: Finding): string {
  const { refs } = finding;
  const fact = (name: string): string => String(finding.facts?.[name] ?? '');
  const list = refs.length > 6 ? `${refs.slice(0, 6).join(', ')} and ${refs.length - 6} more` : refs.join(', ');
  switch (finding.code) {
    case 'loop':
      return `The links run in a circle: ${[...refs, refs[0]].join(' → ')}. Remove or turn one of them; until then these activities and what follows them have no computed dates.`;
    case 'linkToNothing':
      return `${refs[0]} is linked to ${fact('missing')}, which is not in the plan. Correct the reference or remove the link.`;
    case 'linkToItself':
      return `${refs[0]} is linked to itself; the link is left out.`;
    case 'linkToSummary':
      return `The link ${refs[0]} → ${refs[1]} has a summary at one end; it is read as links to the activities within.`;
    case 'linkTooWide':
      return `The link ${refs[0]} → ${refs[1]} stands for ${fact('links')} links between the activities within, which is more than can be computed; it is left out. Link the activities themselves.`;
    case 'linkTwice':
      return `The link ${refs[0]} → ${refs[1]} (${fact('type')}) stands in the plan ${fact('times')} times.`;
    case 'duplicateReference':
      return `The reference ${refs[0]} is used ${fact('times')} times; only the first activity keeps its links. Give each activity a reference of its own.`;
    case 'parentMissing':
      return `${list} belongs to the summary ${fact('parent')}, which is not in the plan; it is shown at the top level.`;
    case 'parentLoop':
      return `The outline runs in a circle: ${list}. These are shown at the top level.`;
    case 'calendarMissing':
      return `${list}: the calendar ${fact('calendar')} is not in the plan; the plan's own calendar is used.`;
    case 'calendarWithoutWork':
      return `The calendar ${fact('calendar')} has no working time; its activities are computed on every day of the week.`;
    case 'fixedDateConflict':
      return `${refs[0]} is fixed on ${fact('fixed')}, but its predecessors lead to ${fact('logic')}: ${fact('days')} working days too late.`;
    case 'finishBeforeStart':
      return `${list}: the finish lies before the start.`;
    case 'beyondCalendar':
      return `${list}: the computed dates run past the year 2299; check the durations.`;
    case 'noDates':
      return `${list}: no dates. ${refs.length === 1 ? 'It stands' : 'They stand'} on no page with a time axis until dates are entered or computed.`;
    case 'noStart':
      return 'Nothing in the plan says when it begins: no start, no status date, no date of any activity. Enter the start of the plan; its lengths and links then give the dates.';
    case 'completeWithoutDates':
      return `${list}: complete, but without an actual finish. ${refs.length === 1 ? 'It is' : 'They are'} taken to have happened as planned, not after the status date; enter the actual dates.`;
    case 'stretchesAgainstDuration':
      return `${list}: the stretches hold more or less work than the duration says; the duration is used, and the last stretch takes the difference.`;
    case 'sameNameAndParent':
      return `${list} have the same name, “${fact('name')}”, in the same group. If they are one, remove the others; if not, name them apart.`;
    case 'noPredecessor':
      return `${list}: nothing leads to ${refs.length === 1 ? 'it' : 'them'}. Link what has to come before.`;
    case 'noSuccessor':
      return `${list}: nothing depends on ${refs.length === 1 ? 'it' : 'them'}. Link what follows, at least the end of the plan.`;
    case 'lead':
      return `The link ${refs[0]} → ${refs[1]} has a lead of ${fact('days')} working days. Divide ${refs[0]} where the overlap begins, or start from its start.`;
    case 'longLag':
      return `The link ${refs[0]} → ${refs[1]} waits for ${fact('days')} working days (more than ${fact('limit')}). Make the wait an activity of its own.`;
    case 'hardConstraint':
      return `${list}: a date that must not move holds the logic. Keep it only where a contract or a law does.`;
    case 'longDuration':
      return `${list}: longer than ${fact('limit')} working days. Divide the work, so that its progress can be seen.`;
    case 'highFloat':
      return `${list}: more than ${fact('limit')} working days of float. A link may be missing behind ${refs.length === 1 ? 'it' : 'them'}.`;
    case 'negativeFloat':
      return `${list}: too late by up to ${fact('days')} working days for a fixed or latest date.`;
    case 'deadlineMissed':
      return `${refs[0]} ends on ${fact('finish')}, ${fact('days')} working days after its deadline ${fact('deadline')}.`;
    case 'plannedInThePast':
      return `${list}: planned before the status date ${fact('status')}, but not reported as done. Enter the actual dates or plan anew.`;
    case 'actualInTheFuture':
      return `${list}: an actual date lies after the status date ${fact('status')}. Correct the date.`;
    case 'missingCode':
      return `${list}: no ${fact('field')}. Without it they have no lane and no colour by ${fact('field')}.`;
    case 'missingRequired':
      return `${list}: no ${fact('field')}, which this plan requires of every activity.`;
    case 'linearTooSlow':
      return `${list}: at the stated rate the work would take more than ${fact('days')} working days; no flowline is drawn. Check the rate and the places.`;
    case 'lineClash':
      return fact('kind') === 'crossing'
        ? `${refs[1]} runs into ${refs[0]} on ${fact('line')} at ${fact('place')} on ${fact('date')}. Let one of them go later, the other way round, or at another rate.`
        : `${refs[0]} and ${refs[1]} are at the same place of ${fact('line')} on ${fact('date')}, at ${fact('place')}, which ${fact('kind') === 'held' ? `${refs[1]} holds then` : 'both hold'}. Let one of them go later.`;
    case 'inClosedWindow':
      return `${refs[0]} is planned in a closed window: at ${fact('place')} of ${fact('line')} on ${fact('date')}, which “${fact('window')}” closes until ${fact('until')}. Move it behind that, or before it.`;
    case 'builtTwice':
      return `${elementsIn(finding)} built by ${list}. Leave them with one of these, or let each build its own.`;
    case 'removedBeforeBuilt':
      return `${elementsIn(finding)} removed before they stand: ${list}. Check the dates, or who removes them.`;
    case 'standsAndBuilt':
      return `${elementsIn(finding)} said to stand for a while, and to be built or removed: ${list}. Say one of these.`;
    case 'rateAgainstDates':
      return `${list}: along the line at the stated rate, with closed windows and days off, the work does not end on the day that the plan says (off by up to ${fact('days')} cal d). It is drawn to the day of the plan.`;
    case 'linearWithoutRate':
      return `${list}: from one place to another, but without a rate, and without a length to take one from. Enter a rate or dates.`;
    case 'missingResource':
      return `${list}: nobody is responsible and no effort is budgeted.`;
    case 'outOfSequence':
      return `${refs[0]} has begun although ${refs[1]} is not ${fact('what')}. Check the progress or the link.`;
    case 'givenAgainstComputed':
      return `${list}: the given dates differ from the computed ones by a working day or more (up to ${fact('days')}).`;
    case 'milestoneWithDuration':
      return `${list}: a milestone with a duration. It is drawn as a milestone and its work still counts.`;
    case 'levelOfEffortOpen':
      return `${list}: supporting work without a start link and a finish link; its given dates are used.`;
  }
}
