import { knownMaps, type StoredIntake } from '@clembo/store';
import { Previewed } from '../hands/answers';
import type { Room } from '../room';

/** How an intake begins, by the maps that were corrected or confirmed before. */
export async function beginOf(room: Room, source: string, tables: Uint8Array): Promise<Previewed> {
  const known = await knownMaps(room.store, room.access);
  return room.hand('beginIntake', { tables, known }, Previewed, `Reading ${source}`);
}

/** How an intake stands after a change. */
export async function changeOf(
  room: Room,
  intake: StoredIntake & { tables: Uint8Array },
  change: object,
): Promise<Previewed> {
  const known = await knownMaps(room.store, room.access);
  const { tables, state, source } = intake;
  return room.hand('changeIntake', { tables, state, change, known }, Previewed, `Reading ${source}`);
}
