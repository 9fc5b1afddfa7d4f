import { type PlanWish, readIntake } from '@clembo/store';
import { MadePlan } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import { NOT_OPEN } from './correctIntake';
import { keepMade } from './readIntake';

/** Makes the plan of an intake, and ends the intake. Asked again, it leads to the plan that was made. */
export async function makePlanJob(room: Room, id: string, wish: PlanWish): Promise<Outcome> {
  const intake = await readIntake(room.store, room.access, id);
  if (intake?.planId) return { result: { planId: intake.planId } };
  if (!intake?.tables) throw new JobRefused(NOT_OPEN);
  const { tables, source, state } = intake;
  const made = await room.hand('makePlan', { tables, state, wish }, MadePlan, `Making the plan of ${source}`);
  return { result: { planId: await keepMade(room, id, source, made) } };
}
