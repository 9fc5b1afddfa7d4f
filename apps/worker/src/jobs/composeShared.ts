import { accessOfShared, keepShared, openCommentsOn, openShared } from '@clembo/store';
import { WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import { gatherFolio } from './writeFolio';
import { gatherPages } from './writePages';

/**
 * Composes a page that is shared, with what the page itself may read: only what is to be seen on it goes into it. What
 * comes of it is kept under the mark of the state that it was asked for.
 */
export async function composeSharedJob(room: Room, id: string, mark: string): Promise<Outcome> {
  const shared = await openShared(room.store, id, new Date());
  if (!shared) throw new JobRefused('This page is not shared any more.');
  const own: Room = { ...room, access: accessOfShared(shared) };
  const { exhibitId, folioId, editionId, lay, comments } = shared;
  const { sent } = exhibitId
    ? await gatherPages(own, [exhibitId], editionId ?? undefined)
    : await gatherFolio(own, folioId!);
  // On a wall nobody turns a cover.
  if (sent.folio && lay === 'wall') sent.folio = { content: { ...sent.folio.content, cover: false } };
  const said = await openCommentsOn(room.store, comments ? sent.pages.map((p) => p.exhibit) : []);
  const pages = sent.pages.map((p) => ({ ...p, said: said.get(p.exhibit) ?? [] }));
  const { bytes } = await own.hand(
    'writePages',
    { ...sent, pages, format: 'html', sheet: null, shared: { lay, live: !shared.frozen } },
    WrittenPage,
    'Composing the page',
  );
  await keepShared(room.store, id, mark, bytes);
  return { result: { shared: id } };
}
