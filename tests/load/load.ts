// `npm run load`: fifty people at once, at a running application (CLEMBO_ADDRESS; half of them at a second process of
// it, CLEMBO_SECOND; signed in by CLEMBO_COOKIE where that is needed). What they wait is compared with
// what one person waits in the same run. They open a plan of 150 activities, change its pages and its data, export,
// and take files in, with the pauses of people who read; each hears of the changes to their plan as a screen does.
// CLEMBO_KILL names a web process that is killed halfway: whoever has no answer asks again, as screens do. At the end
// every change that was said to be kept is looked for.
import { readFileSync } from 'node:fs';
import { seeded } from '../support/random';

const address = process.env.CLEMBO_ADDRESS ?? 'http://127.0.0.1:3000';
const second = process.env.CLEMBO_SECOND ?? address;
const cookie = process.env.CLEMBO_COOKIE;
const KILLED = process.env.CLEMBO_KILL ? Number(process.env.CLEMBO_KILL) : null;
/** How often nobody answered, and was asked again. */
let again = 0;
async function fetch(url: string, init: RequestInit = {}): Promise<Response> {
  const own = cookie ? { ...init, headers: { ...init.headers, Cookie: cookie } } : init;
  for (let k = 0; ; k++)
    try {
      return await globalThis.fetch(url, own);
    } catch (error) {
      if (KILLED === null || k === 60) throw error;
      again++;
      await wait(250);
    }
}
const PEOPLE = Number(process.env.CLEMBO_PEOPLE ?? 50);
const SECONDS = Number(process.env.CLEMBO_SECONDS ?? 40);
/** Between one thing and the next, on average. */
const PAUSE = 2000;

/** What was made for this run. */
const plans: string[] = [];

type Kind = 'page' | 'shared' | 'plan' | 'plan again' | 'brief' | 'edit' | 'export' | 'intake';
interface Took {
  kind: Kind;
  ms: number;
  ok: boolean;
}

const random = seeded(7);
const json = { 'Content-Type': 'application/json' };
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));

async function timed(kind: Kind, took: Took[], work: () => Promise<boolean>): Promise<void> {
  const began = performance.now();
  const ok = await work().catch(() => false);
  took.push({ kind, ms: performance.now() - began, ok });
}

async function jobDone(id: string): Promise<{ state: string; result: unknown }> {
  for (let after = 0; ; ) {
    const job = await (await fetch(`${address}/api/jobs/${id}?after=${after}`)).json();
    if (['done', 'failed', 'cancelled'].includes(job.state)) return job;
    after = job.revision;
  }
}

const table = (rows: number): string =>
  `ID,Name,Start,Finish,Phase,Predecessors\n${Array.from({ length: rows }, (_, i) => {
    const day = new Date(Date.UTC(2026, 0, 5 + i));
    return `A${i},Activity ${i},${day.toISOString().slice(0, 10)},${new Date(day.getTime() + 9 * 864e5).toISOString().slice(0, 10)},Phase ${i % 7},${i > 3 ? `A${i - 3}` : ''}`;
  }).join('\n')}\n`;

async function takeIn(name: string, rows: number): Promise<string> {
  const form = new FormData();
  form.set('file', new Blob([table(rows)]), `${name}.csv`);
  const { job } = await (await fetch(`${address}/api/intakes`, { method: 'POST', body: form })).json();
  const { intakeId } = (await jobDone(job)).result as { intakeId: string };
  const made = await fetch(`${address}/api/intakes/${intakeId}/plan`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ name }),
  });
  const { planId } = (await jobDone((await made.json()).job)).result as { planId: string };
  plans.push(planId);
  return planId;
}

interface Person {
  /** The process that answers them. */
  address: string;
  plan: string;
  version: number;
  exhibit: string;
  exhibitVersion: number;
  tag: string;
  /** The names that were said to be kept, by reference. */
  kept: Map<string, string>;
}

async function arrive(k: number): Promise<Person> {
  const plan = await takeIn(`Load ${k}`, 150);
  const made = await fetch(`${address}/api/plans/${plan}/exhibits`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ name: 'Mine', brief: { kind: 'timeline' } }),
  });
  return {
    address: k % 2 === 0 ? address : second,
    plan,
    version: 1,
    exhibit: (await made.json()).id,
    exhibitVersion: 1,
    tag: '',
    kept: new Map(),
  };
}

/** The address of a page that is shared, whose plan nobody changes meanwhile. */
async function shareBoard(): Promise<string> {
  const { plan, exhibit } = await arrive(-1);
  const made = await fetch(`${address}/api/plans/${plan}/shared`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ what: { exhibit }, lay: 'pages', frozen: null, until: null, password: null, origins: [] }),
  });
  const token = ((await made.json()) as { address: string }).address.split('/').at(-1)!;
  await globalThis.fetch(`${address}/s/${token}`);
  return token;
}

async function doOne(p: Person, took: Took[]): Promise<void> {
  const dice = random();
  const { address } = p;
  if (dice < 0.1)
    await timed('shared', took, async () => {
      const answer = await fetch(`${address}/s/${board}`);
      await answer.text();
      return answer.ok;
    });
  else if (dice < 0.2)
    await timed('page', took, async () => {
      const answer = await fetch(`${address}/plans/${p.plan}/show/${p.exhibit}`);
      await answer.text();
      return answer.ok;
    });
  else if (dice < 0.4)
    await timed('plan', took, async () => {
      const answer = await fetch(`${address}/api/plans/${p.plan}`);
      p.tag = answer.headers.get('etag') ?? '';
      p.version = (await answer.json()).version;
      return answer.ok;
    });
  else if (dice < 0.5)
    await timed('plan again', took, async () => {
      const answer = await fetch(`${address}/api/plans/${p.plan}`, { headers: { 'If-None-Match': p.tag } });
      await answer.text();
      return answer.status === 304 || answer.ok;
    });
  else if (dice < 0.7)
    await timed('brief', took, async () => {
      const answer = await fetch(`${address}/api/exhibits/${p.exhibit}`, {
        method: 'PATCH',
        headers: { ...json, 'If-Match': `"${p.exhibitVersion}"` },
        body: JSON.stringify({ brief: { level: 1 + Math.floor(random() * 4) } }),
      });
      p.exhibitVersion = (await answer.json()).version ?? p.exhibitVersion;
      return answer.ok;
    });
  else if (dice < 0.95)
    await timed('edit', took, async () => {
      const ref = `A${Math.floor(random() * 150)}`;
      const name = `Named ${Math.floor(random() * 1e6)}`;
      const command = { do: 'changeActivity', ref, part: { name } };
      const answer = await fetch(`${address}/api/plans/${p.plan}`, {
        method: 'PATCH',
        headers: json,
        body: JSON.stringify({ version: p.version, command }),
      });
      const body = await answer.json();
      // The answer to a change may be lost although it is kept: whoever is refused then looks first.
      if (answer.status === 409 && KILLED !== null) {
        const now = await (await fetch(`${address}/api/plans/${p.plan}`)).json();
        p.version = now.version;
        return nameOf(now, ref) === name;
      }
      if (!answer.ok) return false;
      p.version = body.version;
      p.kept.set(ref, name);
      return true;
    });
  else if (dice < 0.98)
    await timed('export', took, async () => {
      const answer = await fetch(`${address}/api/exhibits/${p.exhibit}/page`, {
        method: 'POST',
        headers: json,
        body: JSON.stringify({ format: 'pdf' }),
      });
      return (await jobDone((await answer.json()).job)).state === 'done';
    });
  else await timed('intake', took, async () => (await takeIn('Load again', 400)) !== '');
}

const nameOf = (opened: { plan: { activities: { ref: string; name: string }[] } }, ref: string): string | undefined =>
  opened.plan.activities.find((a) => a.ref === ref)?.name;

/** Hears of the changes to a plan until it is enough; gives how many answers there were. */
async function hear(p: Person, isOver: () => boolean): Promise<number> {
  let heard = 0;
  for (let after = p.version; !isOver(); ) {
    const answer = await fetch(`${p.address}/api/plans/${p.plan}/steps?after=${after}`);
    if (!answer.ok) throw new Error(`changes are not told: ${answer.status}`);
    after = ((await answer.json()) as { version: number }).version;
    heard++;
  }
  return heard;
}

async function during(people: Person[], seconds: number): Promise<Took[]> {
  const took: Took[] = [];
  const until = Date.now() + seconds * 1000;
  if (KILLED !== null) setTimeout(() => process.kill(KILLED, 'SIGKILL'), seconds * 500);
  const ears = people.map((p) => hear(p, () => Date.now() >= until));
  await Promise.all(
    people.map(async (p) => {
      await wait(random() * PAUSE);
      while (Date.now() < until) {
        await doOne(p, took);
        await wait(PAUSE * (0.5 + random()));
      }
    }),
  );
  // Each of them is answered to the end, also after it was cut off.
  const heard = await Promise.all(ears);
  console.log(`changes were told to ${heard.filter((n) => n > 0).length} of ${people.length}`);
  return took;
}

const at = (list: number[], share: number): number => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN;
};

const board = await shareBoard();
const people: Person[] = [];
for (let k = 0; k < PEOPLE; k++) people.push(await arrive(k));
const alone: Took[] = [];
for (let k = 0; k < 120; k++) await doOne(people[0]!, alone);
const together = await during(people, SECONDS);

console.log(`${PEOPLE} people for ${SECONDS} s, one thing every ${PAUSE / 1000} s or so each; milliseconds`);
console.log('what         alone p50  together p50    p95    count  failed  p50 together : alone');
for (const kind of ['page', 'shared', 'plan', 'plan again', 'brief', 'edit', 'export', 'intake'] as const) {
  const [one, all] = [alone, together].map((list) => list.filter((t) => t.kind === kind));
  const [a, b, c] = [
    at(
      one!.map((t) => t.ms),
      0.5,
    ),
    at(
      all!.map((t) => t.ms),
      0.5,
    ),
    at(
      all!.map((t) => t.ms),
      0.95,
    ),
  ];
  const failed = all!.filter((t) => !t.ok).length;
  console.log(
    `${kind.padEnd(12)} ${a.toFixed(0).padStart(9)} ${b.toFixed(0).padStart(13)} ${c.toFixed(0).padStart(6)} ${String(all!.length).padStart(8)} ${String(failed).padStart(7)}  ${(b / a).toFixed(1).padStart(19)}`,
  );
}
try {
  console.log(`load of the machine: ${readFileSync('/proc/loadavg', 'utf8').trim()}`);
} catch {}
let [said, lost] = [0, 0];
for (const p of people) {
  const now = await (await fetch(`${address}/api/plans/${p.plan}`)).json();
  for (const [ref, name] of p.kept) {
    said++;
    if (nameOf(now, ref) !== name) lost++;
  }
}
console.log(`of ${said} names that were said to be kept ${lost} are lost`);
if (KILLED !== null) console.log(`a web process was killed; ${again} times nobody answered, and was asked again`);
// What was made for this is put away again.
for (const plan of plans) await fetch(`${address}/api/plans/${plan}`, { method: 'DELETE' });
process.exitCode = lost === 0 && together.every((t) => t.ok) ? 0 : 1;
