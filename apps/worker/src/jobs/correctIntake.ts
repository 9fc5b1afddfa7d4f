import { keepReading, readIntake } from '@clembo/store';
import { JobRefused, type Outcome, type Room } from '../room';
import { changeOf } from './preview';

export const NOT_OPEN = 'This intake is not open any more. Take the file in again.';

/** Reads an intake otherwise: other tables of it, or by another column map. */
export async function correctIntakeJob(room: Room, id: string, change: object): Promise<Outcome> {
  const { store, access } = room;
  const intake = await readIntake(store, access, id);
  if (!intake?.tables) throw new JobRefused(NOT_OPEN);
  const { state, preview } = await changeOf(room, { ...intake, tables: intake.tables }, change);
  await keepReading(store, access, id, { state, preview });
  return { result: { intakeId: id } };
}
