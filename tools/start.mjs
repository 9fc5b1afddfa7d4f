// `npm start`: sets up what is missing, starts the database, the application and the process that does its jobs,
// watches over them, and stops them on Ctrl-C.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildWeb } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { findPostgres, findProgram, installPackages, makeFonts, needDebian, needNode } from './lib/install.mjs';
import { run } from './lib/run.mjs';
import { fail, SetupError, say, step } from './lib/say.mjs';
import { choosePort, readDatabaseUrl, secretIn, startWeb, startWorker } from './lib/services.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const fresh = process.argv.includes('--fresh');
const lock = join(root, '.data/running.json');
let cluster = null;
const services = [];
let stopping = false;

const commandOf = (pid) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    return '';
  }
};

const answers = async (address) => {
  try {
    return (await fetch(address, { signal: AbortSignal.timeout(5000) })).ok;
  } catch {
    return false;
  }
};

/** Ends programs that a killed start left behind. */
async function endLeftovers(held) {
  for (const [pid, mark] of [
    [held.server, /next/],
    [held.worker, /worker\.mjs/],
  ]) {
    if (!pid || !mark.test(commandOf(pid))) continue;
    process.kill(pid, 'SIGTERM');
    for (let k = 0; k < 50 && commandOf(pid) !== ''; k++) await new Promise((r) => setTimeout(r, 100));
    say(`· Ended a program that an earlier start left behind (process ${pid}).`);
  }
}

/** What to say when another start holds this checkout, or null. */
async function alreadyRunning() {
  let held;
  try {
    held = JSON.parse(readFileSync(lock, 'utf8'));
  } catch {
    return null;
  }
  if (!commandOf(held.pid).includes('start.mjs')) {
    await endLeftovers(held);
    return null;
  }
  if (!held.address)
    return `Clembo is already being started (process ${held.pid}). Wait for it, or stop it there with Ctrl-C.`;
  if (await answers(held.address))
    return `Clembo is already running at ${held.address} (process ${held.pid}). Stop it there with Ctrl-C before starting again.`;
  throw new SetupError(
    `Another start of Clembo (process ${held.pid}) holds this folder, but ${held.address} does not answer. Stop it there with Ctrl-C, or end it with: kill ${held.pid}`,
  );
}

async function stop() {
  if (stopping) return;
  stopping = true;
  await Promise.all(services.map((service) => service.stop()));
  await cluster?.stop();
  rmSync(lock, { force: true });
}

/** Something that was to run does not, and starting it again did not help. */
const giveUp = (error) => {
  if (stopping) return;
  void stop().then(() => {
    fail(error);
    process.exit(1);
  });
};

function makeDataFolder() {
  try {
    mkdirSync(join(root, '.data'), { recursive: true });
    writeFileSync(join(root, '.data/written'), '');
    rmSync(join(root, '.data/written'));
  } catch (error) {
    if (error.code === 'ENOSPC') throw error;
    throw new SetupError(
      `${join(root, '.data')} cannot be written (${error.code}). Clembo keeps its data there: let your user write to this folder.`,
    );
  }
}

async function start() {
  needNode();
  makeDataFolder();
  const running = await alreadyRunning();
  if (running) {
    say(running);
    return;
  }
  writeFileSync(lock, JSON.stringify({ pid: process.pid }));
  const port = await choosePort();
  // Where weekly runs take files from and put pages; a planner's folder with the next file of the demo is in it.
  process.env.CLEMBO_SECRET = secretIn(join(root, '.data'));
  process.env.CLEMBO_FOLDERS ??= join(root, '.data/folders');
  const host = process.env.HOST ?? '127.0.0.1';
  process.env.CLEMBO_BIND = host;
  process.env.CLEMBO_PORT = String(port);
  const given = process.env.DATABASE_URL;
  if (given) {
    const { host, name } = readDatabaseUrl(given);
    if (fresh)
      throw new SetupError(
        '--fresh empties the private database only. To begin anew on your own server, empty its database there.',
      );
    say(`· Using the database of DATABASE_URL (${name} on ${host})`);
  }
  await installPackages(root);
  await makeFonts(root);

  let url = given;
  let admin = '';
  if (!given) {
    const bin = await needDebian('postgresql', findPostgres, 'PostgreSQL');
    cluster = await step('Starting the database', () => startCluster(root, 'app', bin));
    ({ url, admin } = cluster);
    cluster.watch((words) => say(`· ${words}`)).catch(giveUp);
  }
  // Addresses hold a password: they go by the environment, which other users cannot read.
  await step(fresh ? 'Making a new demo' : 'Preparing the data', () =>
    run(
      process.execPath,
      ['--import', 'tsx', join(root, 'tools/prepare-store.ts'), ...(fresh ? ['--fresh'] : [])],
      { cwd: root, env: { ...process.env, DATABASE_URL: url, CLEMBO_ADMIN_URL: admin } },
      'The database could not be prepared; what is said above is the reason',
    ),
  );
  await buildWeb(root, '.next');

  const tell = (words) => say(`· ${words}`);
  const address = `http://127.0.0.1:${port}`;
  const holds = { pid: process.pid };
  // Whoever starts after a kill finds what was left behind.
  const hold = (part) => writeFileSync(lock, JSON.stringify(Object.assign(holds, part)));
  const worker = startWorker(root, url, tell, (pid) => hold({ worker: pid }));
  services.push(worker);
  const web = await startWeb(root, port, url, '.next', tell, (pid) => hold({ server: pid }), host);
  services.push(web);
  for (const service of services) service.gaveUp.catch(giveUp);
  if (stopping) return;
  hold({ server: web.pid(), worker: worker.pid(), address });
  say(`\nClembo is ready: ${process.env.BASE_URL ?? address}\nStop it with Ctrl-C.`);
  if ((process.env.DISPLAY || process.env.WAYLAND_DISPLAY) && findProgram('xdg-open'))
    spawn('xdg-open', [address], { stdio: 'ignore', detached: true }).unref();
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    if (stopping) return;
    say('\nStopping …');
    void stop().then(
      () => process.exit(0),
      (error) => (fail(error), process.exit(1)),
    );
  });
}

start().catch(async (error) => {
  if (stopping) return;
  fail(error);
  await stop().catch(() => {});
  process.exit(1);
});
