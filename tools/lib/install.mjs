import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './run.mjs';
import { SetupError, say, step } from './say.mjs';

export const isRoot = process.getuid?.() === 0;

/** Fails early, and in words, where work would end in a half-written file. */
export function needSpace(folder, megabytes, what) {
  const { bavail, bsize } = statfsSync(folder);
  const free = Math.floor((bavail * bsize) / 1048576);
  if (free < megabytes)
    throw new SetupError(
      `The disk of ${folder} has ${free} MB free; ${what} needs about ${megabytes} MB. Free some space and start again; nothing is lost.`,
    );
}

export function needNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 12))
    throw new SetupError(`Clembo needs Node.js 20.12 or newer; this is ${process.versions.node}.`);
}

/** Installs the npm packages when the lock file is not the one they were installed from. */
export async function installPackages(root) {
  const stamp = join(root, 'node_modules/.clembo-installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) {
    const missing = missingPackages(root);
    if (missing.length === 0) return;
    say(
      `  ${missing[0]} is missing${missing.length > 1 ? `, and ${missing.length - 1} more` : ''}: the packages are installed again.`,
    );
  }
  needSpace(root, 1500, 'installing packages');
  await step('Installing npm packages', () =>
    run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root }),
  );
  writeFileSync(stamp, wanted);
}

/** Packages of the lock file that are not there. Those for other machines, which are optional, do not count. */
function missingPackages(root) {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  return Object.entries(packages)
    .filter(([path, { optional, link, peer }]) => path.startsWith('node_modules/') && !optional && !link && !peer)
    .map(([path]) => path)
    .filter((path) => !existsSync(join(root, path, 'package.json')));
}

/** Makes the page fonts if they are not there. */
export const makeFonts = (root) => run(process.execPath, [join(root, 'tools/make-fonts.mjs')], { cwd: root });

/** The folder with the newest PostgreSQL server programs, or null. */
export function findPostgres() {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).sort((a, b) => Number(b) - Number(a)) : [];
  const folders = [...versions.map((v) => join(base, v, 'bin')), ...(process.env.PATH ?? '').split(':')];
  return folders.find((f) => f !== '' && existsSync(join(f, 'initdb')) && existsSync(join(f, 'postgres'))) ?? null;
}

export const findProgram = (...names) =>
  (process.env.PATH ?? '')
    .split(':')
    .concat('/usr/bin')
    .flatMap((folder) => names.map((n) => join(folder, n)))
    .find((path) => existsSync(path)) ?? null;

let listsRead = false;

/** Installs a Debian package when `find` finds nothing, as root; otherwise says the exact command. */
export async function needDebian(name, find, what) {
  const found = find();
  if (found) return found;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${name}`;
  if (!isRoot)
    throw new SetupError(`${what} is missing. Install it with:\n\n  sudo sh -c '${command}'\n\nand start again.`);
  if (!findProgram('apt-get'))
    throw new SetupError(
      `${what} is missing, and this system has no apt-get to install Debian's package “${name}” with. Install it by hand and start again.`,
    );
  await step(`Installing ${what}`, async () => {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const quiet = { env, stdio: ['ignore', 'ignore', 'inherit'] };
    try {
      if (!listsRead) await run('apt-get', ['update', '-qq'], quiet);
      listsRead = true;
      await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], quiet);
    } catch (error) {
      throw new SetupError(`${what} could not be installed: ${error.message} Try by hand:\n\n  ${command}`);
    }
  });
  const now = find();
  if (!now) throw new SetupError(`Debian's package ${name} was installed, but ${what} is still not found.`);
  return now;
}
