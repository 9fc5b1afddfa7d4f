// `npm test`: sets up what is missing and runs every check and test; ends with a line that counts the tests.
// It uses a cluster, a build folder and ports of its own, so it can run while the application runs.
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildWeb } from './lib/build.mjs';
import { freePort, startCluster } from './lib/cluster.mjs';
import { findPostgres, findProgram, installPackages, makeFonts, needDebian, needNode } from './lib/install.mjs';
import { capture, run } from './lib/run.mjs';
import { fail, say, step } from './lib/say.mjs';
import { startWeb, startWorker } from './lib/services.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const bin = (name) => join(root, 'node_modules/.bin', name);
const totals = { passed: 0, failed: 0 };
const only = process.argv.slice(2);
const clusters = [];
const services = [];
/** How many tests of the interface run side by side. */
const LANES = 2;

/** Checks side by side, each of which needs one processor; they print only when they fail. */
async function checks(list) {
  const name = list.map(([title]) => title).join(', ');
  const ended = await step(name, () =>
    Promise.all(
      list.map(([, command, args]) =>
        capture(command, args, { cwd: root, env: { ...process.env, npm_config_loglevel: 'error' } }),
      ),
    ),
  );
  ended.forEach(({ code, output }, k) => {
    if (code === 0) return;
    totals.failed++;
    say(`${list[k][0]}:\n${output.trimEnd()}`);
  });
}

async function jest(project, env = {}, workers = ['--runInBand']) {
  const report = join(root, 'tests/out', `${project}.json`);
  rmSync(report, { force: true });
  const args = [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    join(root, 'node_modules/jest/bin/jest.js'),
    '--selectProjects',
    project,
    '--json',
    `--outputFile=${report}`,
    ...workers,
  ];
  const { output } = await step(`Tests: ${project}`, () =>
    capture(process.execPath, args, { cwd: root, env: { ...process.env, ...env } }),
  );
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    totals.passed += result.numPassedTests;
    totals.failed +=
      result.numFailedTests +
      result.testResults.filter((t) => t.status === 'failed' && t.assertionResults.length === 0).length;
    say(`  ${result.numPassedTests} passed, ${result.numFailedTests} failed`);
    for (const test of result.testResults.flatMap((t) => t.assertionResults))
      for (const reason of test.retryReasons ?? [])
        say(
          `  ${test.status} at its second try: ${test.fullName}\n    ${reason.trim().split('\n').slice(0, 25).join('\n    ')}`,
        );
    if (!result.success)
      say(
        result.testResults
          .filter((t) => t.status === 'failed')
          .map((t) => t.message)
          .join('\n'),
      );
  } catch {
    totals.failed++;
    say(output.slice(-8000));
  }
}

const databaseOf = (cluster, name) => cluster.url.replace(/\/[^/]*$/, `/${name}`);

/** A module of Debian's own Python. */
const findPython = (module) => {
  const path = `/usr/lib/python3/dist-packages/${module}`;
  return existsSync(path) ? path : null;
};

async function main() {
  needNode();
  await installPackages(root);
  await makeFonts(root);
  mkdirSync(join(root, 'tests/out'), { recursive: true });
  const wants = (name) => only.length === 0 || only.includes(name);
  const wanted = [
    ...(wants('types') ? [['Types', bin('tsc'), ['--noEmit', '-p', 'tsconfig.json']]] : []),
    ...(wants('lint')
      ? [
          ['Lint', bin('eslint'), ['.']],
          [
            'Import boundaries',
            bin('depcruise'),
            [
              'packages',
              'apps/cli/src',
              'apps/web/src',
              'apps/worker/src',
              'demo',
              '--config',
              '.dependency-cruiser.cjs',
            ],
          ],
          ['Format', bin('biome'), ['check', '.']],
        ]
      : []),
  ];
  if (wanted.length > 0) await checks(wanted);
  if (wants('unit')) {
    // Readers that are not ours, beside which ours are tested.
    for (const module of ['openpyxl', 'icalendar'])
      await needDebian(`python3-${module}`, () => findPython(module), `Python's ${module}`);
    // A model that is not ours, and a reader of models that is not ours either.
    await needDebian(
      'assimp-testmodels',
      () => (existsSync('/usr/share/assimp/models/IFC/AC14-FZK-Haus.ifc') ? '/usr/share/assimp' : null),
      'a public building model (assimp-testmodels)',
    );
    await needDebian('assimp-utils', () => findProgram('assimp'), 'assimp (assimp-utils)');
    // Both processors: by itself it would leave one of two idle.
    await jest('unit', {}, ['--maxWorkers=100%']);
    // By itself: its hands have low priority and few seconds, which tests beside them would use up.
    await jest('fuzz');
  }
  if (!wants('store') && !wants('e2e')) return;
  const postgres = await needDebian('postgresql', findPostgres, 'PostgreSQL');
  const begun = async (name) => {
    const cluster = await startCluster(root, name, postgres);
    clusters.push(cluster);
    return cluster;
  };
  const cluster = await step('Starting the test database', () => begun('test'));
  if (wants('store'))
    await jest('store', {
      CLEMBO_TEST_ADMIN: cluster.admin,
      CLEMBO_TEST_DATABASE: databaseOf(cluster, 'clembo_store'),
    });
  if (!wants('e2e')) return;
  const chromium = await needDebian(
    'chromium',
    () => process.env.CHROMIUM ?? findProgram('chromium', 'chromium-browser'),
    'Chromium',
  );
  await needDebian('poppler-utils', () => findProgram('pdftotext'), 'pdftotext (poppler-utils)');
  await needDebian('qpdf', () => findProgram('qpdf'), 'qpdf');
  process.env.CLEMBO_SECRET = randomBytes(48).toString('base64url');
  process.env.CLEMBO_FOLDERS = mkdtempSync(join(tmpdir(), 'clembo-folders-'));
  await buildWeb(root, '.next-test');
  const lanes = await step('Starting the applications', async () => {
    // One after the other: a free port is taken before the next one is looked for.
    const all = [await lane(cluster)];
    while (all.length < LANES) all.push(await lane(await begun(`test-${all.length + 1}`)));
    return all;
  });
  await jest('e2e', { CLEMBO_LANES: JSON.stringify(lanes), CHROMIUM: chromium, CLEMBO_DIST: '.next-test' }, [
    `--maxWorkers=${LANES}`,
  ]);
}

/** An application on a database server of its own, with the test data; gives what tests have to know of it. */
async function lane(cluster) {
  const url = databaseOf(cluster, 'clembo_e2e');
  await run(process.execPath, ['--import', 'tsx', join(root, 'tools/prepare-store.ts'), '--fresh'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: url, CLEMBO_ADMIN_URL: cluster.admin },
  });
  const tell = (words) => say(`  ${words}`);
  cluster.watch(tell).catch(fail);
  services.push(startWorker(root, url, tell));
  const web = async () => {
    const port = await freePort();
    services.push(await startWeb(root, port, url, '.next-test', tell));
    return `http://127.0.0.1:${port}`;
  };
  return {
    CLEMBO_ADDRESS: await web(),
    // A second one, since people need not be served by the same process.
    CLEMBO_SECOND: await web(),
    DATABASE_URL: url,
    CLEMBO_CLUSTER: cluster.home,
    CLEMBO_ADMIN_URL: cluster.admin,
  };
}

async function stop() {
  await Promise.all(services.map((service) => service.stop()));
  await Promise.all(clusters.map((cluster) => cluster.stop()));
  if (process.env.CLEMBO_FOLDERS) rmSync(process.env.CLEMBO_FOLDERS, { recursive: true, force: true });
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop().finally(() => process.exit(130)));

try {
  await main();
} catch (error) {
  totals.failed++;
  fail(error);
} finally {
  await stop().catch(() => {});
}
say(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed > 0 || totals.passed === 0 ? 1 : 0);
