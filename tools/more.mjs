// `npm run more -- web` and `npm run more -- worker`: one more process on the database of an application that is set
// up already, watched over until Ctrl-C.
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { needNode } from './lib/install.mjs';
import { fail, SetupError, say } from './lib/say.mjs';
import { choosePort, readDatabaseUrl, secretIn, startWeb, startWorker } from './lib/services.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const kind = process.argv[2];

async function begin() {
  needNode();
  if (kind !== 'web' && kind !== 'worker')
    throw new SetupError('Say what is to run: npm run more -- web, or npm run more -- worker.');
  const url = process.env.DATABASE_URL;
  if (!url) throw new SetupError('DATABASE_URL is not set. It has to be the database of the application that runs.');
  const { host, name } = readDatabaseUrl(url);
  const tell = (words) => say(`· ${words}`);
  process.env.CLEMBO_SECRET = secretIn(join(root, '.data'));
  process.env.CLEMBO_FOLDERS ??= join(root, '.data/folders');
  if (kind === 'worker') {
    say(`One more process for jobs, on ${name} at ${host}. Stop it with Ctrl-C.`);
    return startWorker(root, url, tell, () => {});
  }
  if (!existsSync(join(root, 'apps/web/.next/BUILD_ID')))
    throw new SetupError('The application is not built here. Run npm start once; it builds what is needed.');
  const port = await choosePort();
  const bind = process.env.HOST ?? '127.0.0.1';
  process.env.CLEMBO_BIND = bind;
  process.env.CLEMBO_PORT = String(port);
  const web = await startWeb(root, port, url, '.next', tell, () => {}, bind);
  say(`One more web process, on ${name} at ${host}: http://${bind}:${port}. Stop it with Ctrl-C.`);
  return web;
}

try {
  const service = await begin();
  const end = () => void service.stop().then(() => process.exit(0));
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, end);
  service.gaveUp.catch((error) => {
    fail(error);
    process.exit(1);
  });
} catch (error) {
  fail(error);
  process.exit(1);
}
