// Brings a database to this version's schema and, where it holds no workspace yet, puts the demo plans in.
// Used by `npm start` and `npm test`, with the addresses in DATABASE_URL and, where the database itself is to be
// made, CLEMBO_ADMIN_URL: tsx tools/prepare-store.ts [--fresh]
import { packGeometry, type Plan, schedulePlan } from '@clembo/core';
import { createHmac } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { modelKey, readModel, writePlanCsv } from '@clembo/formats';
import { type Brief, EXHIBITS } from '@clembo/scene';
import {
  type Access,
  createExhibit,
  createPlan,
  firstWorkspace,
  hasAccounts,
  migrateStore,
  openStore,
  putReadModel,
  type Store,
} from '@clembo/store';
import pg from 'pg';
import { type DemoPlan, demoPlans } from '../demo/index';
import { saltmere } from '../demo/saltmere';
import { STATION_MODEL, stationModel } from '../demo/station';
import { STATION_RULES, stationMatches } from '../demo/stationWork';

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
      [
        'By project',
        {
          ...first,
          lanes: ['project'],
          colour: 'team',
          level: 2,
          rows: 'each',
          columns: ['promisedFinish', 'finish', 'late'],
          totals: true,
          labels: ['name', 'percent'],
        },
      ],
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
          where: { match: 'all', tests: [{ field: 'code.team', is: 'is', values: ['Transport', 'Conservation'] }] },
        },
      ],
    ];
  }
  if (key === 'museum-store')
    return [
      ['Floors of the store', EXHIBITS.linear.suggest(current, schedulePlan(current), 1)],
      ['By trade', { ...first, lanes: ['trade'], colour: 'floor', level: null, rows: 'packed' }],
    ];
  return [
    ['The whole works', { ...first, lanes: ['phase'], colour: 'discipline', level: 2 }],
    [
      'Gates and payments',
      {
        ...first,
        include: 'milestones',
        level: null,
        lanes: ['phase'],
        rows: 'strand',
        colour: null,
        page: 'A4 landscape',
      },
    ],
    ['What slipped most', { ...EXHIBITS.slips.defaults(), least: 4 }],
    ['How the milestones moved', EXHIBITS.trend.defaults()],
    ['Work promised, earned, spent', EXHIBITS.curves.defaults()],
    ['The station today', EXHIBITS.build.suggest(current, schedulePlan(current), 1)],
    [
      'The station from start to finish',
      { ...EXHIBITS.build.suggest(current, schedulePlan(current), 1), when: 'even6', loose: false },
    ],
    ['Every activity', { ...first, lanes: ['phase'], colour: 'discipline', level: null, page: 'A1 landscape' }],
  ];
}

async function prepare(url: string, adminUrl: string | undefined): Promise<void> {
  if (adminUrl) await makeDatabase(adminUrl, url, process.argv.includes('--fresh'));
  const store = openStore(url);
  try {
    await migrateStore(store);
    const workspace = await firstWorkspace(store, 'Our work');
    if (workspace.created) await fillFolders(process.env.CLEMBO_FOLDERS);
    if (workspace.created) await putDemoIn(store, { workspace: workspace.id, person: null, role: 'owner' });
    await sayFirst(store);
  } finally {
    await store.pool.end();
  }
}

/** Where others than this machine reach the server, the first account is made by an address that only we say. */
async function sayFirst(store: Store): Promise<void> {
  const { BASE_URL, CLEMBO_BIND = '127.0.0.1', CLEMBO_PORT = '3000', CLEMBO_SECRET } = process.env;
  const base = BASE_URL ?? `http://${CLEMBO_BIND}:${CLEMBO_PORT}`;
  const isOwn = [CLEMBO_BIND, new URL(base).hostname].every((h) => ['127.0.0.1', 'localhost', '::1'].includes(h));
  if (isOwn || !CLEMBO_SECRET || (await hasAccounts(store))) return;
  const code = createHmac('sha256', CLEMBO_SECRET).update('first account').digest('base64url');
  process.stdout.write(`  The first account, which owns the workspace, is made here: ${base}/first?code=${code}\n`);
}

/** A stand-in for the folder where a planner leaves a file every week: the one that comes after the demo plan. */
async function fillFolders(root: string | undefined): Promise<void> {
  if (!root) return;
  await mkdir(join(root, 'planner'), { recursive: true });
  await mkdir(join(root, 'out'), { recursive: true });
  const next = saltmere().current('2026-01-12', '2026-09-21');
  await writeFile(join(root, 'planner', 'Saltmere sea wall, 21 September 2026.csv'), writePlanCsv(next));
}

async function putDemoIn(store: Store, access: Access): Promise<void> {
  const key = modelKey(STATION_MODEL);
  const station = await readModel(new TextEncoder().encode(stationModel()), STATION_MODEL, key);
  for (const demo of demoPlans().reverse()) {
    if (demo.key === 'saltmere-sea-wall') demo.current = withStation(demo.current, station.elements);
    const planId = await createPlan(store, access, demo.current, demo.currentEdition, [
      { name: demo.baselineEdition, plan: demo.baseline },
      ...demo.earlier,
    ]);
    if (demo.key === 'saltmere-sea-wall')
      await putReadModel(
        store,
        access,
        planId,
        { file: STATION_MODEL, key },
        { ...station, geometry: packGeometry(station.geometry), changes: null },
      );
    for (const [name, brief] of demoBriefs(demo)) await createExhibit(store, access, planId, name, brief);
  }
}

/** The plan with the model of the station matched to it, but for what is left to be matched. */
function withStation(plan: Plan, elements: Parameters<typeof stationMatches>[2]): Plan {
  return { ...plan, matchRules: STATION_RULES, matches: stationMatches(plan, schedulePlan(plan), elements) };
}

/** What a person can do about a database that cannot be used; null for a fault of our own. */
function troubleWords(error: unknown): string | null {
  for (let at = error; at instanceof Error; at = at.cause) {
    const code = (at as { code?: string }).code ?? '';
    if (code === 'ECONNREFUSED') return 'Nothing answers at the address in DATABASE_URL. Is the server running?';
    if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'The host in DATABASE_URL is not known.';
    if (code === '28P01' || code === '28000') return 'The server refuses the user or the password in DATABASE_URL.';
    if (code === '3D000') return 'The server has no database by the name in DATABASE_URL. Make it there first.';
    if (code === '42501') return `The user in DATABASE_URL may not do what is needed: ${at.message}.`;
    if (code === '53100' || code === 'ENOSPC') return 'The disk of the database is full. Free some space.';
    if (/timeout/.test(at.message)) return 'The server in DATABASE_URL does not answer in time.';
  }
  return null;
}

const url = process.env.DATABASE_URL;
if (!url) throw new Error('usage: DATABASE_URL=… [CLEMBO_ADMIN_URL=…] prepare-store [--fresh]');
await prepare(url, process.env.CLEMBO_ADMIN_URL).catch((error) => {
  const words = troubleWords(error);
  process.stderr.write(`${words ?? (error instanceof Error ? (error.stack ?? error.message) : String(error))}\n`);
  process.exitCode = 1;
});
