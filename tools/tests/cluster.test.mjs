import { afterAll, describe, expect, jest, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
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

/** A full disk is one of our own: where nothing may be mounted, the test is shown as skipped. */
function canMount() {
  const folder = mkdtempSync(join(tmpdir(), 'clembo-mount-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', 'tmpfs', folder], { stdio: 'ignore' });
    execFileSync('umount', [folder]);
    return true;
  } catch {
    return false;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

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

  test('is started again on its port when its server is killed, with all that was kept', async () => {
    const cluster = await start(checkout());
    const told = [];
    const watched = cluster.watch((words) => told.push(words));
    await query(cluster.admin, 'create table kept (n int)');
    for (const n of [1, 2]) {
      await query(cluster.admin, `insert into kept values (${n})`);
      process.kill(serverOf(cluster), 'SIGKILL');
      for (let k = 0; k < 300 && told.length < 2 * n; k++) await new Promise((r) => setTimeout(r, 100));
      expect(told.length).toBe(2 * n);
    }
    expect(told[0]).toContain('ended by itself');
    expect(await query(cluster.admin, 'select n from kept order by n')).toEqual([{ n: 1 }, { n: 2 }]);
    await cluster.stop();
    await watched;
  });

  test('that ends again and again is given up in words', async () => {
    const cluster = await start(checkout());
    const told = [];
    const watched = cluster.watch((words) => told.push(words));
    const gaveUp = expect(watched).rejects.toThrow(/ended 4 times within a minute.*nothing that was kept is lost/s);
    for (let n = 0; n < 4; n++) {
      process.kill(serverOf(cluster), 'SIGKILL');
      for (let k = 0; k < 300 && told.length < 2 * (n + 1) && n < 3; k++) await new Promise((r) => setTimeout(r, 100));
    }
    await gaveUp;
  });

  test('notices what its disk turned over', async () => {
    const cluster = await start(checkout());
    expect(await query(cluster.admin, 'show data_checksums')).toEqual([{ data_checksums: 'on' }]);
    await query(
      cluster.admin,
      `create table kept as select g as n, repeat('x', 100) as t from generate_series(1, 2000) g`,
    );
    const [{ path }] = await query(cluster.admin, `select pg_relation_filepath('kept') as path`);
    await cluster.stop();
    const file = join(cluster.home, 'cluster', path);
    const bytes = readFileSync(file);
    bytes[9000] ^= 8;
    writeFileSync(file, bytes);
    const again = await start(join(cluster.home, '../..'));
    await expect(query(again.admin, 'select sum(n) from kept')).rejects.toThrow(/invalid page/);
    await again.stop();
  });

  test('that is damaged or half-made is left as it is, and its password too', async () => {
    const root = checkout();
    const cluster = await start(root);
    await cluster.stop();
    const password = readFileSync(join(cluster.home, 'password'), 'utf8');
    const version = join(cluster.home, 'cluster/PG_VERSION');
    const content = readFileSync(version);
    rmSync(version);
    await expect(start(root)).rejects.toThrow(/is not a whole database cluster \(PG_VERSION is missing\)/);
    expect(existsSync(join(cluster.home, 'cluster/base'))).toBe(true);
    expect(readFileSync(join(cluster.home, 'password'), 'utf8')).toBe(password);
    writeFileSync(version, content);
    rmSync(join(cluster.home, 'password'));
    await expect(start(root)).rejects.toThrow(/password is missing/);
    writeFileSync(join(cluster.home, 'password'), password);
    const whole = await start(root);
    expect(await query(whole.admin, 'select 1 as one')).toEqual([{ one: 1 }]);
    await whole.stop();
  });

  test('has a password that is in no list of processes', async () => {
    const cluster = await start(checkout());
    const password = readFileSync(join(cluster.home, 'password'), 'utf8');
    const commands = readdirSync('/proc')
      .filter((p) => /^\d+$/.test(p))
      .map((p) => {
        try {
          return readFileSync(`/proc/${p}/cmdline`, 'utf8');
        } catch {
          return '';
        }
      });
    expect(commands.some((c) => c.includes('postgres'))).toBe(true);
    expect(commands.some((c) => c.includes(password))).toBe(false);
    await cluster.stop();
  });

  (canMount() ? test : test.skip)('on a disk that is full refuses in words, and keeps what it has', async () => {
    const root = checkout();
    const home = join(root, '.data/data');
    mkdirSync(home, { recursive: true });
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=110m', 'tmpfs', home]);
    try {
      // The folder has to have room before a cluster is made at all.
      await expect(start(root)).rejects.toThrow(/MB free; a new database needs about/);
      execFileSync('mount', ['-o', 'remount,size=240m', home]);
      const cluster = await start(root);
      await query(cluster.admin, 'create table kept (t text); insert into kept values (1)');
      writeFileSync(join(home, 'ballast'), Buffer.alloc(80e6));
      const fill = query(
        cluster.admin,
        `insert into kept select md5(g::text) || repeat(md5((g * 7)::text), 20) from generate_series(1, 200000) g`,
      );
      await expect(fill).rejects.toThrow();
      rmSync(join(home, 'ballast'));
      const after = await start(root);
      expect(await query(after.admin, 'select count(*)::int as n from kept')).toEqual([{ n: 1 }]);
      await query(after.admin, 'insert into kept values (2)');
      await after.stop();
    } finally {
      execFileSync('umount', ['-l', home]);
    }
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
