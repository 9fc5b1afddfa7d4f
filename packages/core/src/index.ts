export * from './calendar/spec';
export * from './calendar/units';
export * from './calendar/workingTime';
export * from './findings/finding';
export * from './outline/outline';
export * from './plan/picture';
export * from './plan/schema';
export type * from './schedule/model';
export {
  type Columns,
  packActivities,
  type PackedPlan,
  packLinks,
  packPlan,
  unpackActivities,
  unpackLinks,
  unpackPlan,
} from './plan/columns';
export { findUnusableText, isUsableText, lowered, usableText } from './plan/text';
export { toldApart } from './codes/names';
export {
  ACTUAL,
  AS_PROMISED,
  COMPUTED,
  EXPECTED,
  isComplete,
  ORIGINS,
  type Origin,
  STATED,
  UNKNOWN,
} from './schedule/given';
export { NONE } from './schedule/slots';
export {
  addDone,
  type Done,
  doneReader,
  nothingDone,
  percentComplete,
  percentOf,
  percentReader,
  type Percents,
} from './schedule/percent';
export { fixedConflicts, scheduleDates, schedulePlan } from './schedule/schedule';
export * from './time/civil';
export { firstBoundary, firstDayOf, lastBoundary, lastDayOf, type Span, workingDaysApart } from './time/days';
export * from './checks/assessment';
export { type CheckLimits, checkPlan, DEFAULT_LIMITS } from './checks/checks';
export * from './compare/changes';
export * from './compare/earnedValue';
export * from './compare/match';
export * from './compare/behind';
export * from './compare/planFinish';
export * from './facts/days';
export * from './facts/ends';
export * from './facts/lateness';
export * from './facts/linked';
export * from './facts/count';
export * from './facts/percent';
export * from './facts/promise';
export * from './plan/status';
export * from './compare/spread';
export * from './compare/sums';
export * from './compare/variance';
export * from './linear/balance';
export * from './linear/buffers';
export * from './linear/clashes';
export * from './linear/closed';
export * from './linear/crossings';
export * from './linear/flowline';
export * from './linear/length';
export * from './linear/lengthsByRate';
export * from './linear/moves';
export * from './linear/pace';
export * from './linear/pastedPlaces';
export * from './linear/placeWords';
export * from './linear/splitting';
export * from './linear/strips';
export * from './linear/units';
export * from './linear/works';
export * from './schedule/paths';
export { type ActivityTime, activityTime } from './schedule/workingDays';
export { LiveSchedule } from './schedule/live';
export { stretchesAt } from './schedule/stretches';
export * from './commands/apply';
export { Command, PlanSettings } from './commands/command';
export { CommandRefused } from './commands/refused';
export * from './refresh/alike';
export * from './refresh/changes';
export * from './select/condition';
export * from './select/fields';
export * from './select/select';
export * from './select/readCondition';
export * from './codes/book';
export * from './codes/fill';
export * from './codes/paste';
export * from './mends/merge';
export * from './mends/mends';
export * from './mends/worklist';
export { commandWords } from './commands/words';
export { findingTitle } from './findings/titles';
export * from './starter/starter';
export * from './outline/edits';
export * from './commands/dating';
export * from './plan/whole';
export * from './ledger/arrangement';
export * from './ledger/arranged';
export { collide, collidesWith } from './commands/collide';
export { lagCalendarOf, lagMinutesPerDay } from './plan/lags';
export { type Place as RowPlace, carried, duplicated } from './outline/carrying';
export * from './plan/constraints';
export * from './resources/need';
export * from './commands/pausing';
export * from './commands/replacing';
export { followersOf } from './commands/following';
export { brokenLinks } from './schedule/shown';
export * from './calendar/edits';
export { LivePlan } from './schedule/livePlan';
export * from './measure/standing';
export { calendarOf } from './plan/calendars';
export * from './plan/tolerance';
export * from './plan/valid';
export * from './measure/daysDone';
export * from './measure/round';
export * from './compare/trend';
export * from './build/element';
export * from './build/elementFields';
export * from './build/matches';
export * from './build/rule';
export * from './build/rules';
export * from './build/times';
export * from './build/moving';
export * from './build/standing';
export * from './build/view';
export * from './build/geometry';
export * from './build/modelChanges';
export * from './build/standing';
export * from './build/pastedCodes';
