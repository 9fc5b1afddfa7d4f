import { type CheckLimits, checkPlan, DEFAULT_LIMITS } from '../checks/checks';
import { type Finding, type FindingCode, wordsFor } from '../findings/finding';
import { findingTitle } from '../findings/titles';
import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';

/** Findings that are about each of their activities by itself, and are mended one by one. */
const EACH: ReadonlySet<FindingCode> = new Set<FindingCode>([
  'parentMissing',
  'parentLoop',
  'calendarMissing',
  'finishBeforeStart',
  'beyondCalendar',
  'noDates',
  'completeWithoutDates',
  'stretchesAgainstDuration',
  'levelOfEffortOpen',
  'noPredecessor',
  'noSuccessor',
  'hardConstraint',
  'longDuration',
  'highFloat',
  'negativeFloat',
  'plannedInThePast',
  'actualInTheFuture',
  'missingCode',
  'missingRequired',
  'missingResource',
  'linearWithoutRate',
  'linearTooSlow',
  'rateAgainstDates',
  'givenAgainstComputed',
  'milestoneWithDuration',
]);

/** Findings of a kind: what is to be done, one after the other. */
export interface WorkGroup {
  /** Kind of finding, and the field that it is about where that tells groups apart. */
  id: string;
  code: FindingCode;
  /** What findings of the kind are called. */
  title: string;
  severity: Finding['severity'];
  /** What all of them have in common, where each is about one activity. */
  about: string | null;
  /** Each thing to mend: a finding about one activity, or one that several share. */
  items: WorkItem[];
  /** How many of this kind were put aside. */
  aside: number;
}

export interface WorkItem {
  /** The same for the same finding, as long as it is there. */
  key: string;
  finding: Finding;
}

const groupId = ({ code, facts }: Finding): string =>
  code === 'missingCode' || code === 'missingRequired' ? `${code} ${facts?.id}` : code;

/** What a finding says of all its activities, without naming them. */
function aboutAll(finding: Finding): string {
  const words = wordsFor({ ...finding, refs: ['', ''] });
  const said = words.replace(/^,? *,? *:? /, '');
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/**
 * The checks of a plan as what is to be done: one group a kind, in the order of how bad it is, one item for each
 * activity, or for each finding that several share; without what was put aside as well as it is.
 */
export function worklist(plan: Plan, s: Schedule, limits: CheckLimits = DEFAULT_LIMITS): WorkGroup[] {
  const aside = new Set(plan.aside);
  const groups = new Map<string, WorkGroup>();
  for (const finding of checkPlan(plan, s, limits)) {
    const id = groupId(finding);
    let group = groups.get(id);
    if (!group) {
      group = {
        id,
        code: finding.code,
        title: findingTitle(finding),
        severity: finding.severity,
        about: EACH.has(finding.code) ? aboutAll(finding) : null,
        items: [],
        aside: 0,
      };
      groups.set(id, group);
    }
    const singles = EACH.has(finding.code) ? finding.refs.map((ref) => ({ ...finding, refs: [ref] })) : [finding];
    for (const single of singles) {
      const key = `${id} ${single.refs.join(' ')} ${single.facts?.missing ?? single.facts?.mark ?? ''}`
        .trim()
        .slice(0, 1000);
      if (aside.has(key)) group.aside++;
      else group.items.push({ key, finding: single });
    }
  }
  const rank = { error: 0, warning: 1, note: 2 };
  return [...groups.values()].sort((a, b) => rank[a.severity] - rank[b.severity]);
}
