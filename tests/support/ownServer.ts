import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { freePort } from '../../tools/lib/cluster.mjs';
import { startWeb, startWorker } from '../../tools/lib/services.mjs';

/** An application of its own: what it is told about people does not concern the other tests. */
export interface OwnServer {
  address: string;
  /** The database, to be looked at. */
  pool: pg.Pool;
  url: string;
  /** What was said while it was set up. */
  said: string;
  /** The port of this machine on which it answers. */
  port: number;
  stop(): Promise<void>;
}

const root = join(import.meta.dirname, '../..');

/**
 * Starts one with a database of its own that holds the demo plans. Where a host is named, other machines reach it, under
 * that name.
 */
export async function ownServer(name: string, host: string | null = null): Promise<OwnServer> {
  const given = new URL(process.env.DATABASE_URL!);
  const at = (database: string): string => Object.assign(new URL(given.href), { pathname: `/${database}` }).href;
  const url = at(name);
  const folders = mkdtempSync(join(tmpdir(), 'clembo-own-'));
  const port = await freePort();
  const address = `http://${host ?? '127.0.0.1'}:${port}`;
  const bind = host === null ? '127.0.0.1' : '0.0.0.0';
  const before = { ...process.env };
  Object.assign(process.env, { CLEMBO_SECRET: `${name} `.repeat(8), CLEMBO_FOLDERS: folders });
  if (host !== null) Object.assign(process.env, { BASE_URL: address, CLEMBO_BIND: bind });
  const said = execFileSync(process.execPath, ['--import', 'tsx', join(root, 'tools/prepare-store.ts'), '--fresh'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: url, CLEMBO_ADMIN_URL: at('postgres') },
    stdio: 'pipe',
    encoding: 'utf8',
  });
  const tell = () => {};
  const services = [
    startWorker(root, url, tell, tell),
    await startWeb(root, port, url, process.env.CLEMBO_DIST ?? '.next', tell, tell, bind),
  ];
  process.env = before;
  const pool = new pg.Pool({ connectionString: url, max: 2 });
  pool.on('error', () => {});
  return {
    address,
    pool,
    url,
    said,
    port,
    async stop() {
      await Promise.all(services.map((s: { stop: () => Promise<void> }) => s.stop()));
      await pool.end();
      rmSync(folders, { recursive: true, force: true });
    },
  };
}

/** Who asks an application over its API, by the cookies that it gave. */
export class Asker {
  private readonly cookies = new Map<string, string>();

  constructor(private readonly address: string) {}

  async ask(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: string; headers: Headers }> {
    const answer = await fetch(`${this.address}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        ...(body !== undefined && { 'Content-Type': 'application/json' }),
        ...(this.cookies.size > 0 && { Cookie: this.sent() }),
        ...headers,
      },
      ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    for (const cookie of answer.headers.getSetCookie()) {
      const [pair, ...attributes] = cookie.split(';');
      const [name, value] = pair!.split('=') as [string, string];
      if (attributes.some((a) => /^\s*max-age=0$/i.test(a))) this.cookies.delete(name);
      else this.cookies.set(name, value);
    }
    return { status: answer.status, body: await answer.text(), headers: answer.headers };
  }

  /** As {@link ask}, for what has to be answered well. */
  async get<T>(method: string, path: string, body?: unknown): Promise<T> {
    const { status, body: text } = await this.ask(method, path, body);
    if (status !== 200) throw new Error(`${method} ${path}: ${status} ${text.slice(0, 300)}`);
    return JSON.parse(text) as T;
  }

  sent = (): string => [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; ');
}
