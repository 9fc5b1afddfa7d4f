// `npm run bench:kept`: how long a change takes until it is kept, in a plan with large pictures beside one without, in
// a database of its own.
import { randomBytes } from 'node:crypto';
import { crc32, deflateSync } from 'node:zlib';
import { type Command, FIVE_DAY, makeActivity, makePlan, type Plan } from '@clembo/core';
import { changePlan, createPlan, firstWorkspace, migrateStore, openStore } from '@clembo/store';
import pg from 'pg';
import { startCluster } from '../../tools/lib/cluster.mjs';
import { findPostgres } from '../../tools/lib/install.mjs';
import { report } from './sideBySide';

const ROUNDS = 60;

/** A picture of noise, so that it is as large as its pixels. */
function noise(width: number, height: number): string {
  const rows = Array.from({ length: height }, () => Buffer.concat([Buffer.from([0]), randomBytes(3 * width)]));
  const chunk = (type: string, body: Buffer): Buffer => {
    const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
    const named = Buffer.concat([Buffer.from(type), body]);
    length.writeUInt32BE(body.length);
    check.writeUInt32BE(crc32(named));
    return Buffer.concat([length, named, check]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const bytes = [
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.concat(rows))),
    chunk('IEND', Buffer.alloc(0)),
  ];
  return `data:image/png;base64,${Buffer.concat(bytes).toString('base64')}`;
}

const planWith = (pictures: number): Plan =>
  makePlan({
    name: 'Kept',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: Array.from({ length: 6000 }, (_, k) => makeActivity({ ref: `R${k}`, name: `Row ${k}`, duration: 480 })),
    pictures: Array.from({ length: pictures }, (_, k) => {
      const data = noise(590, 590);
      return { id: `p${k}`, name: `${data.length} characters`, data, width: 590, height: 590 };
    }),
  });

const cluster = await startCluster(process.cwd(), 'bench', findPostgres());
const admin = new pg.Client({ connectionString: cluster.admin });
await admin.connect();
await admin.query('drop database if exists clembo_bench with (force)');
await admin.query('create database clembo_bench');
const store = openStore(cluster.admin.replace(/\/[^/]*$/, '/clembo_bench'));
try {
  await migrateStore(store);
  const access = { workspace: (await firstWorkspace(store)).id, person: null, role: 'owner' as const };
  const plans: Record<string, string> = {
    'a rename of 6,000 activities': await createPlan(store, access, planWith(0), 'x'),
    'the same with eight pictures of 1.4 million characters': await createPlan(store, access, planWith(8), 'x'),
  };
  const times: Record<string, number[]> = {};
  for (let k = 1; k <= ROUNDS; k++)
    for (const [name, id] of Object.entries(plans)) {
      const command: Command = { do: 'changeActivity', ref: `R${k}`, part: { name: `Renamed ${k}` } };
      const began = performance.now();
      await changePlan(store, access, id, k, command);
      // The first ones read the plan, which is held afterwards.
      if (k > 10) (times[name] ??= []).push(performance.now() - began);
    }
  const medians = Object.fromEntries(
    Object.entries(times).map(([name, list]) => [name, list.sort((a, b) => a - b)[list.length >> 1]!]),
  );
  report('Keeping a change', medians, 'a rename of 6,000 activities');
} finally {
  await store.pool.end();
  await admin.query('drop database if exists clembo_bench with (force)');
  await admin.end();
  if (!cluster.adopted) await cluster.stop();
}
