// `npm run bench:intake`: how long 50,000 rows of CSV take from the upload to the page, in a real browser, beside what
// cannot be done without: reading the text and copying the rows into the database. In one run against a running
// application (CLEMBO_ADDRESS) and its database (DATABASE_URL).
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import Papa from 'papaparse';
import pg from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { address } from '../support/address';
import { openBrowser, openPage } from '../support/browser';

const ROWS = 50_000;
const TIMES = 4;

const day = (k: number) => new Date(Date.UTC(2026, 0, 5) + k * 86_400_000).toISOString().slice(0, 10);
const folder = mkdtempSync(join(tmpdir(), 'clembo-bench-'));
const path = join(folder, 'Fifty thousand.csv');
const lines = Array.from({ length: ROWS }, (_, k) => {
  const before = k > 3 && k % 3 === 0 ? `A${k - 3}` : '';
  return [`A${k}`, `Activity number ${k}`, day(k % 900), day((k % 900) + 9), `Phase ${k % 12}`, before].join(',');
});
writeFileSync(path, `ID,Name,Start,Finish,Phase,Predecessors\n${lines.join('\n')}\n`);

const least = (list: number[]): number => Math.min(...list);
async function timed(work: () => unknown): Promise<number> {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}

/** Takes the file in as a person would; gives how long it took until the page is drawn, and the plan. */
async function takeIn(): Promise<{ took: number; id: string }> {
  const { browser, close } = await openBrowser();
  const page = await openPage(browser, address);
  const input = (await page.$('input[type="file"]'))! as Awaited<ReturnType<typeof page.$<'input'>>>;
  const took = await timed(async () => {
    await input!.uploadFile(path);
    const make = (await page.waitForSelector('button:not(:disabled)::-p-text(Make the plan)', { timeout: 60_000 }))!;
    await make.click();
    await page.waitForSelector('main a[href*="/show/"] svg', { timeout: 60_000 });
  });
  const id = new URL(page.url()).pathname.split('/')[2]!;
  await close();
  return { took, id };
}

/** The page is drawn before the rows are written: they follow within seconds, and are waited for here. */
async function rowsWritten(client: pg.Client, plan: string): Promise<void> {
  const owing = 'select 1 from edition where plan_id = $1 and owed is not null';
  for (let k = 0; k < 600 && (await client.query(owing, [plan])).rows.length > 0; k++)
    await new Promise((r) => setTimeout(r, 100));
}

/** Copies the rows of a plan into its tables once more, and takes that back. */
async function copyAgain(client: pg.Client, plan: string): Promise<number> {
  const { rows } = await client.query('select id from edition where plan_id = $1', [plan]);
  const edition = rows[0].id as string;
  let took = 0;
  for (const table of ['activity', 'link']) {
    const chunks: Buffer[] = [];
    const out = client.query(copyTo(`copy (select * from ${table} where edition_id = '${edition}') to stdout`));
    for await (const chunk of out) chunks.push(chunk as Buffer);
    await client.query('begin');
    await client.query(`delete from ${table} where edition_id = $1`, [edition]);
    took += await timed(() => pipeline(Readable.from(chunks), client.query(copyFrom(`copy ${table} from stdin`))));
    await client.query('rollback');
  }
  return took;
}

const client = new pg.Client(process.env.DATABASE_URL);
await client.connect();
const text = readFileSync(path, 'utf8');
const [whole, read, copied]: [number[], number[], number[]] = [[], [], []];
for (let k = 0; k < TIMES; k++) {
  const { took, id } = await takeIn();
  whole.push(took);
  await rowsWritten(client, id);
  read.push(await timed(() => Papa.parse(text)));
  copied.push(await copyAgain(client, id));
  await fetch(`${address}/api/plans/${id}`, { method: 'DELETE', headers: { Origin: address } });
}
await client.end();
rmSync(folder, { recursive: true });
const needed = least(read) + least(copied);
console.log(
  `${ROWS} rows: reading ${least(read).toFixed(0)} ms, copying ${least(copied).toFixed(0)} ms; from upload to page ${least(whole).toFixed(0)} ms, at first ${whole[0]!.toFixed(0)} ms; ratio ${(least(whole) / needed).toFixed(1)}`,
);
