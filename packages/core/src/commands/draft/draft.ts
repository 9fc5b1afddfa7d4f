import type { Plan } from '../../plan/schema';
import { activityFault, circleAbove, linkFault, namesOf, planFault } from '../../plan/valid';
import { CommandRefused } from '../refused';
import { DraftActivities } from './activities';
import { DraftLinks } from './links';
import { DraftMatches } from './matches';

/** Fields of an activity that name other parts of the plan. */
const NAMING = ['parent', 'calendar', 'codes', 'assignments'] as const;

/**
 * A plan while commands change it: each of its long lists is indexed once, when it is first needed, so that many
 * commands take time by their number.
 *
 * Invariants: the plan that it was made of is left as it is; what no command was about is the same object afterwards;
 * a plan that was valid (`plan/valid.ts`) is valid when it is finished.
 */
export class Draft {
  readonly activities: DraftActivities;
  readonly links: DraftLinks;
  readonly matches: DraftMatches;
  /** References of the activities that commands were about. */
  readonly touched = new Set<string>();
  /** All but the three lists, as it stands. */
  rest: Plan;

  constructor(private readonly from: Plan) {
    this.activities = new DraftActivities(from.activities);
    this.links = new DraftLinks(from.links);
    this.matches = new DraftMatches(from.matches);
    this.rest = from;
  }

  set(part: Partial<Omit<Plan, 'activities' | 'links' | 'matches'>>): void {
    this.rest = { ...this.rest, ...part };
  }

  touch(...refs: string[]): void {
    for (const ref of refs) this.touched.add(ref);
  }

  /**
   * The plan as it is now.
   * @throws CommandRefused where something is named that is not there, or groups hold each other
   */
  finished(): Plan {
    const plan: Plan = {
      ...this.rest,
      activities: this.activities.finished(),
      links: this.links.finished(),
      matches: this.matches.finished(),
    };
    const fault = this.fault(plan);
    if (fault !== null) throw new CommandRefused(fault);
    return plan;
  }

  /** A fault of what is different, known without a look at the rest: a plan that was faulty can be mended bit by bit. */
  private fault(plan: Plan): string | null {
    const { from, activities } = this;
    if (plan.calendars !== from.calendars || plan.calendar !== from.calendar || plan.resources !== from.resources)
      return planFault(from) === null ? planFault(plan) : null;
    const names = namesOf(plan, (ref) => activities.has(ref));
    // What names the same as before still has it, unless something has gone.
    const hasLost = activities.hasLost || plan.codeFields !== from.codeFields;
    const renamed = [...activities.changed].filter((ref) => {
      const was = activities.before(ref);
      return hasLost || !was || NAMING.some((field) => was[field] !== activities.get(ref)[field]);
    });
    for (const ref of renamed) {
      const fault = activityFault(activities.get(ref), names);
      if (fault !== null) return fault;
    }
    for (const link of this.links.added) {
      const fault = linkFault(link, names);
      if (fault !== null) return fault;
    }
    return circleAbove(renamed, (ref) => (activities.has(ref) ? activities.get(ref).parent : null));
  }
}
