import { applyCommand } from '../commands/apply';
import type { Command } from '../commands/command';
import type { Plan } from '../plan/schema';
import { LiveSchedule } from './live';
import type { Schedule } from './model';
import { findingsOf, scheduleDates } from './schedule';

/** Settings that no date hangs on. */
const WITHOUT_DATES = new Set<string>([
  'name',
  'codeFields',
  'resources',
  'required',
  'aside',
  'periods',
  'lines',
  'pictures',
  'matches',
  'elementCodes',
  'matchRules',
  'buildViews',
  'tolerance',
  'tolerances',
  'currency',
  'effortDay',
  'percentShown',
]);
/** Above so many changed activities a full run is no slower. */
const FEW = 500;

/**
 * A plan with its schedule that follows commands: what is cheap to follow is followed step by step, everything else is
 * computed anew; the result is that of a full run. The schedule before is not to be used after a command.
 */
export class LivePlan {
  private live: LiveSchedule | null = null;
  private current: Plan;
  private computed: Schedule;
  /** The schedule is of a full run whose findings nobody has looked at. */
  private unchecked = true;

  constructor(plan: Plan) {
    this.current = plan;
    this.computed = scheduleDates(plan);
  }

  get plan(): Plan {
    return this.current;
  }

  /** The schedule as it stands; its findings are those of the last {@link refreshFindings}, or none. */
  get schedule(): Schedule {
    return this.computed;
  }

  /** Brings the findings of the schedule up to what it is now. */
  refreshFindings(): void {
    if (this.unchecked) this.computed.findings = findingsOf(this.current, this.computed);
    else if (this.live) this.computed.findings = this.live.findings;
    this.unchecked = false;
  }

  /**
   * Applies a command.
   * @returns the command that takes it back
   * @throws CommandRefused as {@link applyCommand}
   */
  apply(command: Command): Command {
    const { plan, inverse, touched } = applyCommand(this.current, command);
    this.become(plan, touched);
    return inverse;
  }

  /** Takes what commands made of the plan; `touched` names the activities in which it may differ. */
  become(plan: Plan, touched: readonly string[]): void {
    const before = this.current;
    this.current = plan;
    if (hasSameDates(before, plan)) {
      this.live = null;
      return;
    }
    if (this.follow(before, plan, touched)) return;
    this.live = null;
    this.computed = scheduleDates(plan);
    this.unchecked = true;
  }

  /** Follows changes of few activities in a plan that is otherwise the same; false where that cannot be done. */
  private follow(before: Plan, after: Plan, touched: readonly string[]): boolean {
    if (touched.length === 0 || touched.length > FEW || !sameBut(before, after)) return false;
    const positions = touched.flatMap((ref) => this.computed.outline.indexOf.get(ref) ?? []);
    if (positions.length !== touched.length) return false;
    this.live ??= new LiveSchedule(before, this.computed);
    this.live.changeAll(positions.map((position) => ({ position, part: after.activities[position]! })));
    this.computed = this.live.schedule;
    return true;
  }
}

/** Whether only the activities differ, and stand where they stood. */
function sameBut(before: Plan, after: Plan): boolean {
  for (const key of Object.keys(after) as (keyof Plan)[])
    if (key !== 'activities' && before[key] !== after[key]) return false;
  if (before.activities.length !== after.activities.length) return false;
  return before.activities.every((a, i) => a === after.activities[i] || a.ref === after.activities[i]!.ref);
}

/** Whether two plans differ in nothing that a date hangs on. */
const hasSameDates = (before: Plan, after: Plan): boolean =>
  (Object.keys(after) as (keyof Plan)[]).every((key) => before[key] === after[key] || WITHOUT_DATES.has(key));
