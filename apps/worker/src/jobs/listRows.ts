import { readIntake } from '@clembo/store';
import { Rows } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import { NOT_OPEN } from './correctIntake';

/** Lists the rows that could be taken of an intake, as a file: there may be very many. */
export async function listRowsJob(room: Room, id: string): Promise<Outcome> {
  const intake = await readIntake(room.store, room.access, id);
  if (!intake?.tables) throw new JobRefused(NOT_OPEN);
  const { tables, state, source } = intake;
  const rows = await room.hand('listRows', { tables, state }, Rows, `Reading ${source}`);
  const file = new TextEncoder().encode(JSON.stringify(rows));
  return { result: { file: 'rows.json', type: 'application/json' }, file };
}
