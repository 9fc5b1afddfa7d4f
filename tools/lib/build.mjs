import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { needSpace } from './install.mjs';
import { run } from './run.mjs';
import { step } from './say.mjs';

const SOURCES = ['packages', 'apps/web', 'package-lock.json', 'tsconfig.json'];
const PASSED_OVER = new Set(['node_modules', '.next', '.next-test', 'tests', 'next-env.d.ts']);

/** A mark that changes when any source of the web application does. */
function sourceMark(root) {
  const hash = createHash('sha256');
  const walk = (path) => {
    const s = statSync(path);
    if (!s.isDirectory()) {
      hash.update(path.slice(root.length)).update(readFileSync(path));
      return;
    }
    for (const name of readdirSync(path).sort()) if (!PASSED_OVER.has(name)) walk(join(path, name));
  };
  for (const source of SOURCES) walk(join(root, source));
  return hash.digest('hex');
}

/** Builds the web application into a folder below apps/web, unless it holds a build of these sources already. */
export async function buildWeb(root, folder) {
  const stamp = join(root, 'apps/web', folder, 'clembo-built');
  const mark = sourceMark(root);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === mark) return;
  needSpace(root, 600, 'building');
  const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1', CLEMBO_DIST: folder };
  await step('Building the application (about a minute)', () =>
    run(join(root, 'node_modules/.bin/next'), ['build', 'apps/web'], {
      cwd: root,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    }),
  );
  writeFileSync(stamp, mark);
}
