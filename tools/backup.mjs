// `npm run backup -- FILE` writes everything that Clembo keeps as one file (the custom format of pg_dump), and beside
// it what its pages look like. `npm run restore -- FILE [--replace]` puts it back and compares: every page has to be
// drawn with the same bytes. Both use DATABASE_URL, or the private database of this folder.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { startCluster } from './lib/cluster.mjs';
import { findPostgres, findProgram } from './lib/install.mjs';
import { capture } from './lib/run.mjs';
import { fail, SetupError, say, step } from './lib/say.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const [command, given] = process.argv.slice(2);
const replace = process.argv.includes('--replace');
const bin = findPostgres();

/** How the programs of the database reach it: passwords go by the environment, which other users cannot read. */
function environmentOf(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    ...process.env,
    PGHOST: hostname.replace(/^\[|\]$/g, ''),
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
  };
}

const program = (name) => {
  const path = bin && existsSync(join(bin, name)) ? join(bin, name) : findProgram(name);
  if (!path) throw new SetupError(`${name} is not there. It comes with PostgreSQL's client programs.`);
  return path;
};

async function tool(name, args, url) {
  const { code, output } = await capture(program(name), args, { env: environmentOf(url) });
  if (code !== 0) throw new SetupError(`${name} failed:\n${output.trim().split('\n').slice(-6).join('\n')}`);
}

/** What every page looks like, as digests by the ids of exhibits. */
const composed = (url) =>
  JSON.parse(
    execFileSync(process.execPath, ['--import', 'tsx', join(root, 'tools/composed.ts')], {
      cwd: root,
      env: { ...process.env, DATABASE_URL: url },
      encoding: 'utf8',
      maxBuffer: 64 * 1_048_576,
      stdio: ['ignore', 'pipe', 'inherit'],
    }),
  );

async function ask(url, text, values = []) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(text, values)).rows;
  } finally {
    await client.end();
  }
}

const checkOf = (file) => `${file}.check.json`;

/** So often a backup is begun again where somebody changes a page while it is written. */
const TRIES = 4;

async function backup(file, { url }) {
  const half = `${file}.half`;
  const compose = () => step('Composing its pages', async () => composed(url));
  let pages = await compose();
  for (let tries = 1; ; tries++) {
    await step('Writing the backup', () => tool('pg_dump', ['-Fc', '--no-owner', '-f', half], url));
    const before = JSON.stringify(pages);
    pages = await compose();
    // What nobody changed meanwhile is what the backup holds.
    if (JSON.stringify(pages) === before) break;
    if (tries === TRIES)
      throw new SetupError(
        'Pages changed each time while the backup was written, so that it could not be compared. Try again when fewer people work.',
      );
    say('  Somebody changed a page meanwhile; it is written again.');
  }
  // Only what is whole gets its name.
  writeFileSync(checkOf(file), `${JSON.stringify({ at: new Date().toISOString(), pages }, null, 1)}\n`);
  renameSync(half, file);
  say(
    `\n${file} holds everything (${Math.max(1, Math.round(statSync(file).size / 1024))} KB); ${checkOf(file)} says what its ${Object.keys(pages).length} pages look like.\nKeep CLEMBO_SECRET (or .data/secret) with it: addresses of shared pages are made with it.`,
  );
}

async function restore(file, { url, admin }) {
  const name = decodeURIComponent(new URL(url).pathname.slice(1));
  const quoted = `"${name.replaceAll('"', '""')}"`;
  const known = await ask(admin, 'select 1 from pg_database where datname = $1', [name]);
  const isEmpty =
    known.length === 0 ||
    (await ask(url, "select 1 from pg_tables where schemaname not in ('pg_catalog', 'information_schema') limit 1"))
      .length === 0;
  if (!isEmpty && !replace)
    throw new SetupError(
      `The database ${name} holds something already, and is left as it is. Restore into an empty one (DATABASE_URL), or say --replace: what is there is then kept beside it under another name.`,
    );
  if (!isEmpty) {
    const old = `${name}_before_${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`;
    await ask(
      admin,
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and pid <> pg_backend_pid()',
      [name],
    );
    await ask(admin, `alter database ${quoted} rename to "${old}"`);
    say(`  What was there is kept as the database ${old}.`);
  }
  if (!isEmpty || known.length === 0) await ask(admin, `create database ${quoted}`);
  await step('Reading the backup', () =>
    tool('pg_restore', ['--no-owner', '--exit-on-error', '--single-transaction', '-d', name, file], url),
  );
  if (!existsSync(checkOf(file)))
    return say(`\nRestored. ${checkOf(file)} is not there, so its pages could not be compared.`);
  const { pages: then } = JSON.parse(readFileSync(checkOf(file), 'utf8'));
  const now = await step('Composing its pages', async () => composed(url));
  const other = [...new Set([...Object.keys(then), ...Object.keys(now)])].filter((id) => then[id] !== now[id]);
  if (other.length > 0)
    throw new SetupError(
      `Restored, but ${other.length} of ${Object.keys(then).length} pages are not drawn as they were: ${other.slice(0, 5).join(', ')}. Was the backup made by another version?`,
    );
  say(`\nRestored. All ${Object.keys(then).length} pages are drawn with the same bytes as when the backup was made.`);
}

async function main() {
  if (!['backup', 'restore'].includes(command) || !given)
    throw new SetupError('usage: npm run backup -- FILE    or    npm run restore -- FILE [--replace]');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), given);
  if (command === 'restore' && !existsSync(file)) throw new SetupError(`${file} is not there.`);
  if (command === 'backup' && existsSync(file))
    throw new SetupError(`${file} is there already, and is left as it is. Give another name.`);
  const said = process.env.DATABASE_URL;
  const own = said ? null : await startCluster(root, 'app', bin ?? fail(new SetupError('PostgreSQL is not there.')));
  const reach = own ?? { url: said, admin: Object.assign(new URL(said), { pathname: '/postgres' }).href };
  try {
    await (command === 'backup' ? backup : restore)(file, reach);
  } finally {
    // A server that was running goes on.
    if (own && !own.adopted) await own.stop();
  }
}

try {
  await main();
} catch (error) {
  fail(error);
  process.exitCode = 1;
}
// A server that was running is watched as long as this process lives.
process.exit();
