import { afterAll, describe, expect, jest, test } from '@jest/globals';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { freePort, isListening, startCluster } from '../lib/cluster.mjs';
import { findPostgres, findProgram, isRoot, needDebian, needSpace } from '../lib/install.mjs';
import { SetupError } from '../lib/say.mjs';

const folders = [];
const homes = [];
/** A checkout of its own, below a folder that everybody or only its owner may enter. */
function checkout(mode = 0o755) {
  const outer = mkdtempSync(join(tmpdir(), 'clembo-cluster-'));
  chmodSync(outer, mode);
  folders.push(outer);
  const root = join(outer, 'checkout');
  mkdirSync(root);
  return root;
}
let said = '';
jest.spyOn(process.stdout, 'write').mockImplementation((text) => {
  said += text;
  return true;
});
jest.spyOn(console, 'log').mockImplementation((...text) => {
  said += `${text.join(' ')}\n`;
});
afterAll(() => {
  for (const folder of [...folders, ...homes]) rmSync(folder, { recursive: true, force: true });
});

async function query(url, sql) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
}
const start = async (root) => {
  const cluster = await startCluster(root, 'data', findPostgres());
  homes.push(cluster.home);
  return cluster;
};
const serverOf = (cluster) => Number(readFileSync(join(cluster.home, 'cluster/postmaster.pid'), 'utf8').split('\n')[0]);

describe('the private cluster', () => {
  test('keeps its data over a stop, a second start beside the first, and a crash', async () => {
    const root = checkout();
    const first = await start(root);
    await query(first.admin, 'create table kept (n int); insert into kept values (7)');
    expect(new URL(first.admin).hostname).toBe('127.0.0.1');

    const second = await start(root);
    expect(second.admin).toBe(first.admin);
    expect(said).toContain('left by an earlier start is used again');

    process.kill(serverOf(first), 'SIGKILL');
    for (let k = 0; k < 100 && (await isListening(new URL(first.admin).port)); k++)
      await new Promise((r) => setTimeout(r, 100));
    const third = await start(root);
    expect(await query(third.admin, 'select n from kept')).toEqual([{ n: 7 }]);
    await third.stop();
    expect(existsSync(join(third.home, 'cluster/postmaster.pid'))).toBe(false);

    const fourth = await start(root);
    expect(await query(fourth.admin, 'select n from kept')).toEqual([{ n: 7 }]);
    await fourth.stop();
  });

  test('asks for its password, also on loopback', async () => {
    const cluster = await start(checkout());
    const wrong = new URL(cluster.admin);
    wrong.password = 'guessed';
    await expect(query(wrong.href, 'select 1')).rejects.toThrow(/password authentication failed/);
    await cluster.stop();
  });

  test('of another version is left alone, with a word on what to do', async () => {
    const root = checkout();
    const cluster = await start(root);
    await cluster.stop();
    writeFileSync(join(cluster.home, 'cluster/PG_VERSION'), '9\n');
    await expect(start(root)).rejects.toThrow(/was made by PostgreSQL 9; .*DATABASE_URL/);
  });

  // Only root has a server that runs as somebody else.
  (isRoot ? test : test.skip)('below a folder that only root may enter lies elsewhere, and says where', async () => {
    said = '';
    const root = checkout(0o700);
    const cluster = await start(root);
    expect(cluster.home.startsWith('/var/lib/clembo/')).toBe(true);
    expect(said).toContain(cluster.home);
    expect(await query(cluster.admin, 'select 1 as one')).toEqual([{ one: 1 }]);
    await cluster.stop();
  });
});

describe('set-up', () => {
  test('a disk without room is said before anything is written', () => {
    expect(() => needSpace(tmpdir(), 1e12, 'a new database')).toThrow(SetupError);
    expect(() => needSpace(tmpdir(), 1e12, 'a new database')).toThrow(
      /MB free; a new database needs about .* nothing is lost/,
    );
    expect(() => needSpace(tmpdir(), 0, 'nothing')).not.toThrow();
  });

  test('a free port is free, one in use is listened on', async () => {
    const port = await freePort();
    expect(await isListening(port)).toBe(false);
    const server = createServer().listen(port, '127.0.0.1');
    await new Promise((resolve) => server.on('listening', resolve));
    expect(await isListening(port)).toBe(true);
    await new Promise((resolve) => server.close(resolve));
  });

  test('programs are found on the path, and not asked for again', async () => {
    expect(findProgram('no-such-program', 'sh')).toMatch(/\/sh$/);
    expect(findProgram('no-such-program')).toBeNull();
    expect(await needDebian('nothing', () => '/here', 'A program')).toBe('/here');
  });
});
