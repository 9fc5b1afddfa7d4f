import { PROMISED_IN_SOURCE } from '@clembo/formats';
import { Brief, House, inCurrency, inHouse } from '@clembo/scene';
import { MadePlan, ReadResult } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import {
  deleteIntake,
  keepPlan,
  keepReading,
  keepWholePlan,
  knownMaps,
  readIntake,
  readIntakeFiles,
  readSettings,
} from '@clembo/store';

/** Reads what was uploaded or pasted. What cannot be read leaves nothing behind. */
export async function readIntakeJob(room: Room, id: string): Promise<Outcome> {
  const { store, access } = room;
  const intake = await readIntake(store, access, id);
  if (!intake) throw new JobRefused('The file is not there any more. Take it in again.');
  if (intake.planId) return { result: { planId: intake.planId } };
  try {
    const { source, targetPlan } = intake;
    const files = (await readIntakeFiles(store, access, id)).map(({ name, content }) => ({ name, bytes: content }));
    const known = await knownMaps(store, access);
    const read = await room.hand('readFiles', { files, known }, ReadResult, `Reading ${source}`);
    if ('whole' in read) {
      if (targetPlan !== null) throw new JobRefused(`${source} is a whole plan; it becomes a plan by itself.`);
      room.step('Keeping the plan', 0.8);
      return { result: { planId: await keepWholePlan(store, access, id, read.whole, room.job) } };
    }
    if ('made' in read) {
      if (targetPlan !== null)
        throw new JobRefused(`${source} is a plan of Clembo's own; it becomes a plan by itself.`);
      return { result: { planId: await keepMade(room, id, source, read.made) } };
    }
    room.step('Keeping what was read', 0.9);
    await keepReading(store, access, id, read);
    return { result: { intakeId: id } };
  } catch (error) {
    if (error instanceof JobRefused) await deleteIntake(store, access, id);
    throw error;
  }
}

/** Keeps what was made of an intake: plan, promised edition, first page, column map and the end of the intake, or nothing. */
export async function keepMade(
  { job, store, access, step }: Room,
  intake: string,
  source: string,
  made: MadePlan,
): Promise<string> {
  step('Keeping the plan', 0.8);
  const { plan, promised, maps, sources, placeOf, brief } = made;
  const house = House.parse((await readSettings(store, access)).house);
  const what = {
    plan: inCurrency(plan, house),
    edition: source,
    kept: promised ? [{ name: PROMISED_IN_SOURCE, plan: promised }] : [],
    origin: { sources, placeOf },
    exhibit: { name: 'Overview', brief: inHouse(Brief.parse(brief), house) },
    maps: maps.map((map) => ({ headings: map.headings, map })),
  };
  return keepPlan(store, access, intake, what, job);
}
