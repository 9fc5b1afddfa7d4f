// Brings a database to this version's schema and, where it holds no workspace yet, puts the demo plans in.
// Used by `npm start` and `npm test`: tsx tools/prepare-store.ts ADMIN_URL URL [--fresh]
import { schedulePlan } from '@clembo/core';
import { type Brief, EXHIBITS } from '@clembo/scene';
import { type Access, createExhibit, createPlan, firstWorkspace, migrateStore, openStore } from '@clembo/store';
import pg from 'pg';
import { type DemoPlan, demoPlans } from '../demo/index';

async function makeDatabase(adminUrl: string, url: string, fresh: boolean): Promise<void> {
  const name = new URL(url).pathname.slice(1);
  const client = new pg.Client({ connectionString: adminUrl });
  await client.connect();
  try {
    if (fresh) await client.query(`drop database if exists ${client.escapeIdentifier(name)} with (force)`);
    const known = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (known.rowCount === 0) await client.query(`create database ${client.escapeIdentifier(name)}`);
  } finally {
    await client.end();
  }
}

/** The pages that a demo plan starts with. */
function demoBriefs({ key, current }: DemoPlan): [name: string, brief: Brief][] {
  const first = EXHIBITS.timeline.suggest(current, schedulePlan(current), 1);
  if (key === 'museum-move') {
    return [
      ['By project', { ...first, lanes: ['project'], colour: 'team', level: 2 }],
      [
        'By kind of project',
        { ...first, lanes: ['kind'], colour: 'phase', level: 2, page: 'wide slide', include: 'both' },
      ],
      [
        'What transport and conservation do',
        {
          ...first,
          lanes: ['team'],
          colour: 'project',
          level: null,
          where: [{ field: 'team', keep: 'only', values: ['Transport', 'Conservation'] }],
        },
      ],
    ];
  }
  return [
    ['The whole works', { ...first, lanes: ['phase'], colour: 'discipline', level: 2 }],
    [
      'Gates and payments',
      { ...first, include: 'milestones', level: null, lanes: ['phase'], colour: null, page: 'A4 landscape' },
    ],
    ['Every activity', { ...first, lanes: ['phase'], colour: 'discipline', level: null, page: 'A1 landscape' }],
  ];
}

const [adminUrl, url] = process.argv.slice(2);
if (!adminUrl || !url) throw new Error('usage: prepare-store ADMIN_URL URL [--fresh]');
if (adminUrl !== '-') await makeDatabase(adminUrl, url, process.argv.includes('--fresh'));
const store = openStore(url);
await migrateStore(store);
const workspace = await firstWorkspace(store, 'Our work');
const access: Access = { workspace: workspace.id, person: null, role: 'owner' };
if (workspace.created) {
  for (const demo of demoPlans().reverse()) {
    const planId = await createPlan(store, access, demo.current, demo.currentEdition, [
      { name: demo.baselineEdition, plan: demo.baseline },
    ]);
    for (const [name, brief] of demoBriefs(demo)) await createExhibit(store, access, planId, name, brief);
  }
}
await store.pool.end();
