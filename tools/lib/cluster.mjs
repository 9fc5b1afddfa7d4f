import { spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
  accessSync,
  chownSync,
  closeSync,
  constants,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer, connect } from 'node:net';
import { dirname, join } from 'node:path';
import { capture } from './run.mjs';
import { isRoot, needSpace } from './install.mjs';
import { SetupError, say, step } from './say.mjs';

const USER = 'clembo';

/** Who runs the server: oneself, or as root the user that Debian's package made, since PostgreSQL refuses root. */
async function serverUser() {
  if (!isRoot) return {};
  const id = async (flag) => Number((await capture('id', [flag, 'postgres'])).output.trim());
  const [uid, gid] = [await id('-u'), await id('-g')];
  if (!(uid > 0) || !(gid > 0))
    throw new SetupError(
      'PostgreSQL does not run as root, and there is no user “postgres” to run it as. Install the Debian package postgresql.',
    );
  return { uid, gid };
}

/** The first folder on the way that the user may not enter, or null. */
function closedFolder(path, { uid, gid }) {
  for (let at = path; ; at = dirname(at)) {
    if (existsSync(at)) {
      const s = statSync(at);
      const open = s.uid === uid ? s.mode & 0o100 : s.gid === gid ? s.mode & 0o010 : s.mode & 0o001;
      if (!open) return at;
    }
    if (at === dirname(at)) return null;
  }
}

/** Where the cluster lies: below `.data`, or elsewhere when its user could not get there. */
function clusterHome(root, name, user) {
  const home = join(root, '.data', name);
  if (user.uid === undefined) return home;
  const closed = closedFolder(home, user);
  if (!closed) return home;
  const other = join('/var/lib/clembo', createHash('sha256').update(root).digest('hex').slice(0, 12), name);
  say(`  ${closed} may be entered by root only, and PostgreSQL runs as another user: its data lies in ${other}.`);
  return other;
}

export const freePort = () =>
  new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });

export const isListening = (port, host = '127.0.0.1') =>
  new Promise((resolve) => {
    const socket = connect({ port, host });
    const end = (answer) => {
      socket.destroy();
      resolve(answer);
    };
    socket.setTimeout(1000, () => end(false));
    socket.on('connect', () => end(true));
    socket.on('error', () => end(false));
  });

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

const isPostgres = (pid) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('postgres');
  } catch {
    return false;
  }
};

/** After a crash a server listens before it has mended its data, which may take minutes. */
async function takesQueries(bin, port) {
  if (!(await isListening(port))) return false;
  const ask = join(bin, 'pg_isready');
  return !existsSync(ask) || (await capture(ask, ['-q', '-h', '127.0.0.1', '-p', String(port)])).code === 0;
}

/** A server of this cluster that an earlier start left running, or null. A lock file of a dead one is put away. */
async function leftRunning(data, bin) {
  const file = join(data, 'postmaster.pid');
  if (!existsSync(file)) return null;
  const lines = readFileSync(file, 'utf8').split('\n');
  const [pid, port] = [Number(lines[0]), Number(lines[3])];
  // A server that was killed looks alive for a moment: ask the port as well.
  for (let k = 0; k < 60 && isAlive(pid) && isPostgres(pid); k++) {
    if (await takesQueries(bin, port)) return { pid, port };
    await new Promise((r) => setTimeout(r, 500));
  }
  if (isAlive(pid) && isPostgres(pid))
    throw new SetupError(
      `A PostgreSQL server (process ${pid}) holds ${data} but does not answer. End it, then start again.`,
    );
  rmSync(file, { force: true });
  return null;
}

async function initialise(bin, home, data, user) {
  needSpace(home, 200, 'a new database');
  await step('Making a private database cluster', async () => {
    const fresh = `${data}.new`;
    rmSync(fresh, { recursive: true, force: true });
    const file = join(home, 'password');
    // A password that is there may belong to a cluster that was moved away for a while: it stays.
    if (!existsSync(file)) writeFileSync(file, randomBytes(18).toString('base64url'), { mode: 0o600 });
    if (user.uid !== undefined) chownSync(file, user.uid, user.gid);
    const made = await capture(
      join(bin, 'initdb'),
      [
        '-D',
        fresh,
        '-U',
        USER,
        '-A',
        'scram-sha-256',
        `--pwfile=${file}`,
        '-E',
        'UTF8',
        '--locale=C.UTF-8',
        '--data-checksums',
        '--no-sync',
      ],
      { ...user, cwd: '/' },
    );
    if (made.code !== 0) throw new SetupError(`The database cluster could not be made:\n${made.output.trim()}`);
    // Only a whole cluster gets its name, so that an interrupted start leaves nothing half-made behind.
    renameSync(fresh, data);
  });
}

/** What a folder holds has to be a whole cluster, or nothing at all: anything else is left as it is. */
function checkCluster(data, home) {
  if (!existsSync(data) || readdirSync(data).length === 0) return false;
  for (const part of ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'])
    if (!existsSync(join(data, part)))
      throw new SetupError(
        `${data} is not a whole database cluster (${part} is missing). It is left as it is. Restore it from a backup, or move it away to begin anew.`,
      );
  if (!existsSync(join(home, 'password')))
    throw new SetupError(
      `${join(home, 'password')} is missing, and without it the cluster beside it cannot be opened. Put it back, or move ${data} away to begin anew.`,
    );
  return true;
}

/** A folder for the cluster that its user may write into. */
function makeHome(home, user) {
  try {
    mkdirSync(home, { recursive: true });
    if (user.uid !== undefined) chownSync(home, user.uid, user.gid);
    accessSync(home, constants.W_OK);
  } catch (error) {
    if (!['EACCES', 'EPERM', 'EROFS', 'ENOTDIR', 'EEXIST'].includes(error.code)) throw error;
    throw new SetupError(
      `${home} cannot be written (${error.code}). The database needs this folder: let your user write there, or use another server with DATABASE_URL.`,
    );
  }
}

/** How long one server may take to mend its data after a crash, in tenths of a second. */
const MENDING = 3000;

/** Starts the server program on a port and waits until it takes queries. */
async function launch(bin, home, data, user, port) {
  const log = join(home, 'server.log');
  const out = openSync(log, 'a');
  const server = spawn(
    join(bin, 'postgres'),
    ['-D', data, '-p', String(port), '-c', 'listen_addresses=127.0.0.1', '-c', 'unix_socket_directories='],
    { ...user, cwd: '/', stdio: ['ignore', out, out], detached: true },
  );
  closeSync(out);
  let ended = false;
  const exit = new Promise((resolve) => {
    const end = () => resolve((ended = true));
    server.on('exit', end);
    server.on('error', end);
  });
  let ready = false;
  for (let k = 0; k < MENDING && !ended && !ready; k++) {
    ready = await takesQueries(bin, port);
    if (!ready) await new Promise((r) => setTimeout(r, 100));
  }
  if (!ready) {
    const tail = readFileSync(log, 'utf8').trim().split('\n').slice(-5).join('\n');
    throw new SetupError(`The database server did not start. The end of ${log} says:\n${tail}`);
  }
  return { end: () => ended || server.kill('SIGINT'), exit };
}

/** A server that an earlier start left running: no child of ours, so it is looked at now and then. */
function adopt({ pid, port }, bin) {
  let ending = false;
  const exit = (async () => {
    for (;;) {
      await new Promise((r) => setTimeout(r, ending ? 100 : 1000));
      if (!isAlive(pid) || (!ending && !isPostgres(pid))) return;
      if (!ending && !(await takesQueries(bin, port)) && !isPostgres(pid)) return;
    }
  })();
  const end = () => {
    ending = true;
    try {
      process.kill(pid, 'SIGINT');
    } catch {}
  };
  return { end, exit };
}

/**
 * Starts the private cluster of that name on a free port of the loopback interface, making it first if there is
 * none. Returns its address, a way to stop it, and one to watch over it.
 */
export async function startCluster(root, name, bin) {
  const user = await serverUser();
  const home = clusterHome(root, name, user);
  makeHome(home, user);
  const data = join(home, 'cluster');
  if (!checkCluster(data, home)) await initialise(bin, home, data, user);
  const has = readFileSync(join(data, 'PG_VERSION'), 'utf8').trim();
  const is = (await capture(join(bin, 'postgres'), ['--version'])).output.match(/(\d+)(\.|$|\s)/)?.[1];
  if (has !== is)
    throw new SetupError(
      `${data} was made by PostgreSQL ${has}; the one found here is ${is}. Install PostgreSQL ${has}, or use another server with DATABASE_URL.`,
    );

  const found = await leftRunning(data, bin);
  if (found) say(`  A database server left by an earlier start is used again (process ${found.pid}).`);
  const port = found?.port ?? (await freePort());
  let server = found ? adopt(found, bin) : await launch(bin, home, data, user, port);
  let stopping = false;

  const stop = async () => {
    stopping = true;
    server.end();
    await server.exit;
  };
  /** Starts the server again on its port whenever it ends by itself; rejects when that does not help. */
  const watch = async (tell) => {
    for (const ends = []; ; ) {
      await server.exit;
      if (stopping) return;
      ends.push(Date.now());
      if (ends.length > AGAIN && ends.at(-1) - ends.at(-1 - AGAIN) < 60_000)
        throw new SetupError(
          `The database server ended ${AGAIN + 1} times within a minute. The end of ${join(home, 'server.log')} says why; nothing that was kept is lost.`,
        );
      tell('The database server ended by itself; it is started again.');
      server = await relaunch(bin, home, data, user, port);
      if (stopping) server.end();
      tell('The database server is there again.');
    }
  };
  const url = (database) =>
    `postgresql://${USER}:${readFileSync(join(home, 'password'), 'utf8')}@127.0.0.1:${port}/${database}`;
  return { url: url('clembo'), admin: url('postgres'), home, stop, watch, adopted: found !== null };
}

/** How often within a minute a server is started again. */
const AGAIN = 3;

/** After a crash the parts of the dead server may hold its memory for a moment longer. */
async function relaunch(bin, home, data, user, port) {
  for (let tries = 1; ; tries++) {
    await leftRunning(data, bin);
    try {
      return await launch(bin, home, data, user, port);
    } catch (error) {
      if (tries === 5) throw error;
      await new Promise((r) => setTimeout(r, 1000));
    }
  }
}
