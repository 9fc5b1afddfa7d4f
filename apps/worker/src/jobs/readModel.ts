import { keepModel, readElements, readGeometry, readModelFile, refuseModel } from '@clembo/store';
import { MadeModel } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';

/** Reads a model that was uploaded; what cannot be read leaves nothing behind. */
export async function readModelJob(room: Room, id: string): Promise<Outcome> {
  const { store, access } = room;
  const held = await readModelFile(store, access, id);
  if (!held) throw new JobRefused('The model is not there any more. Take it in again.');
  try {
    const before = held.replaces && {
      elements: (await readElements(store, access, held.replaces)) ?? [],
      geometry: await readGeometry(store, access, held.replaces),
    };
    const read = await room.hand(
      'readModel',
      {
        file: held.file,
        key: held.key,
        bytes: held.content,
        before: before && before.geometry ? before : null,
      },
      MadeModel,
      `Reading ${held.file}`,
    );
    room.step('Keeping the model', 0.9);
    await keepModel(store, access, id, read);
    return { result: { model: id } };
  } catch (error) {
    await refuseModel(store, access, id);
    throw error;
  }
}
