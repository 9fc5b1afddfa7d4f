import { knownMaps, type StoredIntake } from '@clembo/store';
import { Previewed } from '../hands/answers';
import type { Room } from '../room';

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
