// `npm start`: sets up what is missing, starts the database and the application, and stops both on Ctrl-C.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildWeb } from './lib/build.mjs';
import { freePort, isListening, startCluster } from './lib/cluster.mjs';
import { findPostgres, findProgram, installPackages, makeFonts, needDebian, needNode } from './lib/install.mjs';
import { run } from './lib/run.mjs';
import { fail, SetupError, say, step } from './lib/say.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const fresh = process.argv.includes('--fresh');
const lock = join(root, '.data/running.json');
let cluster = null;
let server = null;
let stopping = false;

const commandOf = (pid) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    return '';
  }
};

/** The start that holds this checkout, when it is still there. A server that a killed start left behind is ended. */
async function alreadyRunning() {
  if (!existsSync(lock)) return null;
  let held;
  try {
    held = JSON.parse(readFileSync(lock, 'utf8'));
  } catch {
    return null;
  }
  if (commandOf(held.pid).includes('start.mjs')) return held;
  if (held.server && /next/.test(commandOf(held.server))) {
    process.kill(held.server, 'SIGTERM');
    for (let k = 0; k < 50 && commandOf(held.server) !== ''; k++) await new Promise((r) => setTimeout(r, 100));
    say(`· Ended an application server that an earlier start left behind (process ${held.server}).`);
  }
  return null;
}

async function choosePort() {
  const said = process.env.PORT;
  if (said !== undefined) {
    const port = Number(said);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new SetupError(`PORT is “${said}”; it has to be a number from 1 to 65535.`);
    if (await isListening(port))
      throw new SetupError(
        `Port ${port} is in use. Choose another one with PORT, or leave it out and a free one is found.`,
      );
    return port;
  }
  if (!(await isListening(3000))) return 3000;
  const port = await freePort();
  say(`  Port 3000 is in use; ${port} is taken instead.`);
  return port;
}

async function stop() {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null) {
    const gone = new Promise((resolve) => server.on('exit', resolve));
    server.kill('SIGTERM');
    await Promise.race([gone, new Promise((r) => setTimeout(r, 5000))]);
    if (server.exitCode === null) server.kill('SIGKILL');
  }
  await cluster?.stop();
  rmSync(lock, { force: true });
}

async function start() {
  needNode();
  mkdirSync(join(root, '.data'), { recursive: true });
  const held = await alreadyRunning();
  if (held) {
    say(
      `Clembo is already running${held.address ? ` at ${held.address}` : ' (it is still starting)'} (process ${held.pid}). Stop it there with Ctrl-C before starting again.`,
    );
    return false;
  }
  writeFileSync(lock, JSON.stringify({ pid: process.pid }));
  const port = await choosePort();
  await installPackages(root);
  await makeFonts(root);

  let url = process.env.DATABASE_URL;
  let admin = '-';
  if (url) {
    say(`· Using the database of DATABASE_URL (${new URL(url).host})`);
    if (fresh)
      throw new SetupError(
        '--fresh empties the private database only. To begin anew on your own server, empty its database there.',
      );
  } else {
    const bin = await needDebian('postgresql', findPostgres, 'PostgreSQL');
    cluster = await step('Starting the database', () => startCluster(root, 'app', bin));
    ({ url, admin } = cluster);
  }
  await step(fresh ? 'Making a new demo' : 'Preparing the data', () =>
    run(
      process.execPath,
      ['--import', 'tsx', join(root, 'tools/prepare-store.ts'), admin, url, ...(fresh ? ['--fresh'] : [])],
      { cwd: root },
    ),
  );
  await buildWeb(root, '.next');

  server = spawn(
    process.execPath,
    [join(root, 'node_modules/next/dist/bin/next'), 'start', 'apps/web', '-p', String(port), '-H', '127.0.0.1'],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      detached: true,
      env: { ...process.env, DATABASE_URL: url, NEXT_TELEMETRY_DISABLED: '1', CLEMBO_DIST: '.next' },
    },
  );
  server.on('exit', (code) => {
    if (!stopping)
      void stop().then(() => fail(new SetupError(`The application stopped by itself (exit code ${code}).`)));
  });
  for (let k = 0; k < 600 && server.exitCode === null && !(await isListening(port)); k++)
    await new Promise((r) => setTimeout(r, 100));
  if (server.exitCode !== null) return true;
  const address = `http://127.0.0.1:${port}`;
  writeFileSync(lock, JSON.stringify({ pid: process.pid, server: server.pid, address }));
  say(`\nClembo is ready: ${address}\nStop it with Ctrl-C.`);
  if ((process.env.DISPLAY || process.env.WAYLAND_DISPLAY) && findProgram('xdg-open'))
    spawn('xdg-open', [address], { stdio: 'ignore', detached: true }).unref();
  return true;
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
