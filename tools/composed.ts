// Prints a digest of the drawing of every exhibit of a database, by its id, as JSON: two databases that hold the same
// print the same. DATABASE_URL=… tsx tools/composed.ts
import { createHash } from 'node:crypto';
import { isUtf8 } from 'node:buffer';
import { openStore } from '@clembo/store';
import { writePages } from '../apps/worker/src/hands/writePages';
import { gatherPages } from '../apps/worker/src/jobs/writePages';
import type { Room } from '../apps/worker/src/room';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('usage: DATABASE_URL=… composed');
const store = openStore(url);
try {
  const { rows } = await store.pool.query<{ id: string; workspace: string }>(
    `select e.id, p.workspace_id as workspace from exhibit e join plan p on p.id = e.plan_id
     where e.deleted_at is null and p.deleted_at is null order by e.id`,
  );
  const digests: Record<string, string> = {};
  for (const { id, workspace } of rows) {
    const room: Room = {
      job: null,
      store,
      access: { workspace, person: null, role: 'viewer' },
      step: () => {},
      hand: async (_, input, answer) => answer.parse(await writePages(input as never, () => {})),
    };
    const { sent } = await gatherPages(room, [id]);
    const { bytes } = await writePages({ ...sent, format: 'svg', sheet: 1 }, () => {});
    if (!isUtf8(bytes)) throw new Error(`the drawing of ${id} is no text`);
    digests[id] = createHash('sha256').update(bytes).digest('hex');
  }
  process.stdout.write(`${JSON.stringify(digests)}\n`);
} finally {
  await store.pool.end();
}
