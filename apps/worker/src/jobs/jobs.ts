import type { JobInput } from '@clembo/store';
import type { Outcome, Room } from '../room';
import { composeSharedJob } from './composeShared';
import { correctIntakeJob } from './correctIntake';
import { listRowsJob } from './listRows';
import { makePlanJob } from './makePlan';
import { readIntakeJob } from './readIntake';
import { readModelJob } from './readModel';
import { compareIntakeJob, refreshPlanJob } from './refresh';
import { beginPlanJob, keepStarterJob } from './starters';
import { goOnWeekly, weeklyFault, weeklyRunJob } from './weeklyRun';
import { writeFolioJob } from './writeFolio';
import { writePagesJob } from './writePages';
import { writePlanJob } from './writePlan';

type Doers = { [K in JobInput['kind']]: (room: Room, input: Extract<JobInput, { kind: K }>) => Promise<Outcome> };

/** How each kind of job is done. */
export const JOBS: Doers = {
  readIntake: (room, { intake }) => readIntakeJob(room, intake),
  correctIntake: (room, { intake, change }) => correctIntakeJob(room, intake, change),
  listRows: (room, { intake }) => listRowsJob(room, intake),
  makePlan: (room, { intake, wish }) => makePlanJob(room, intake, wish),
  compareIntake: (room, { intake }) => compareIntakeJob(room, intake),
  refreshPlan: async (room, { intake, version }) => {
    const done = await refreshPlanJob(room, intake, version);
    await goOnWeekly(room, (done.result as { planId: string }).planId, intake);
    return done;
  },
  beginPlan: (room, input) => beginPlanJob(room, input),
  keepStarter: (room, input) => keepStarterJob(room, input),
  readModel: (room, { model }) => readModelJob(room, model),
  weeklyRun: (room, { plan }) => weeklyRunJob(room, plan),
  writePlan: (room, { plan, format }) => writePlanJob(room, plan, format),
  writeFolio: (room, { folio, format }) => writeFolioJob(room, folio, format),
  composeShared: (room, { shared, mark }) => composeSharedJob(room, shared, mark),
  writePages: (room, { exhibits, format, sheet }) => writePagesJob(room, exhibits, format, sheet),
};

/** Does a job of any kind. */
export const doJob = (room: Room, input: JobInput): Promise<Outcome> =>
  (JOBS[input.kind] as (room: Room, input: JobInput) => Promise<Outcome>)(room, input);

/** Tells whoever waits for a job that nobody looks at, when a fault of the program has ended it. */
export async function tellFault(room: Pick<Room, 'store' | 'access'>, input: JobInput): Promise<void> {
  if (input.kind === 'weeklyRun') await weeklyFault(room, input.plan, new Date());
}
