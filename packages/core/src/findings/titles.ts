import type { Finding, FindingCode } from './finding';

const TITLES: Record<FindingCode, string> = {
  loop: 'Links in a circle',
  linkToNothing: 'Links to nothing',
  linkToItself: 'Linked to themselves',
  linkToSummary: 'Links to groups',
  linkTooWide: 'Links between large groups',
  linkTwice: 'The same link twice',
  duplicateReference: 'The same reference twice',
  parentMissing: 'In a group that is missing',
  parentLoop: 'Groups in a circle',
  calendarMissing: 'A calendar that is missing',
  calendarWithoutWork: 'A calendar without work',
  fixedDateConflict: 'Fixed dates against the logic',
  finishBeforeStart: 'Finish before start',
  beyondCalendar: 'Dates past the year 2299',
  noDates: 'Without dates',
  noStart: 'The plan has no start',
  completeWithoutDates: 'Complete, without actual dates',
  stretchesAgainstDuration: 'Stretches against the length',
  levelOfEffortOpen: 'Supporting work without both links',
  sameNameAndParent: 'Perhaps the same twice',
  noPredecessor: 'Nothing leads to them',
  noSuccessor: 'They lead to nothing',
  lead: 'Leads',
  longLag: 'Long waits on links',
  hardConstraint: 'Dates that must not move',
  longDuration: 'Very long',
  highFloat: 'Much float',
  negativeFloat: 'Too late for a fixed date',
  deadlineMissed: 'Deadlines missed',
  plannedInThePast: 'Planned in the past, not reported',
  actualInTheFuture: 'Actual dates in the future',
  missingCode: 'Without a code',
  missingRequired: 'A required cell is empty',
  missingResource: 'Nobody responsible',
  linearWithoutRate: 'Along a line, without a rate',
  lineClash: 'Clashes along a line',
  inClosedWindow: 'In a closed window',
  rateAgainstDates: 'Rates against dates along a line',
  linearTooSlow: 'Along a line, too slow',
  outOfSequence: 'Begun out of sequence',
  givenAgainstComputed: 'Given against computed dates',
  milestoneWithDuration: 'Milestones with a length',
};

/** What findings of a kind are called; those about a field name it. */
export function findingTitle({ code, facts }: Pick<Finding, 'code' | 'facts'>): string {
  if (code === 'missingCode' || code === 'missingRequired') return `No ${facts?.field}`;
  return TITLES[code];
}
