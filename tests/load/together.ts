// `npm run together`: five people change one plan and ten read it, over a line that loses every seventh answer, while
// editions are kept and older ones are worked on again. CLEMBO_ADDRESS says where the application runs, CLEMBO_KILL the
// process of a web server that is killed in the middle. What they saw is compared with what was done, step by step.
import { createHash, randomUUID } from 'node:crypto';
import { applyCommand, collide, type Command, makeActivity, makeLink, type Plan, planFault } from '@clembo/core';
import { type Asked, type Effect, type Event, next, opened, type State, type Step } from '@clembo/sync';
import { seeded } from '../../packages/core/tests/helpers';

const address = process.env.CLEMBO_ADDRESS ?? 'http://127.0.0.1:3000';
const SECONDS = Number(process.env.CLEMBO_SECONDS ?? 60);
const ROWS = 1500;
const json = { 'Content-Type': 'application/json' };
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
const random = seeded(Number(process.env.CLEMBO_SEED ?? 1));
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** Answers that say that something went wrong on the server. */
const faults: string[] = [];
/** What the plan was at each version, as everybody saw it who saw it whole. */
const seen = new Map<number, Set<string>>();
const steps = new Map<number, Step>();
const made = new Map<string, { who: number; asked: Asked; seen: number }>();
const kept = new Set<string>();
const counts = { asked: 0, kept: 0, overtaken: 0, refused: 0, reopened: 0, lost: 0, read: 0, editions: 0, worked: 0 };

/** What an edition holds: its work and its status date, in whatever order links stand. */
const digest = ({ activities, links, statusDate }: Plan): string =>
  createHash('sha256')
    .update(JSON.stringify([activities, links.map((l) => JSON.stringify(l, sorted)).sort(), statusDate], sorted))
    .digest('hex');
const sorted = (_: string, value: unknown): unknown =>
  value && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;
/** Plans as they were read, by their versions. */
const whole = new Map<number, Plan>();
const note = (version: number, plan: Plan): void => {
  whole.set(version, plan);
  seen.set(version, (seen.get(version) ?? new Set()).add(digest(plan)));
};

/** An answer, or null where the server is away. */
async function ask<T>(path: string, init?: RequestInit): Promise<{ status: number; body: T } | null> {
  try {
    const answer = await fetch(`${address}${path}`, init);
    if (answer.status === 503) return null;
    const body = (await answer.json()) as T;
    if (answer.status >= 500) faults.push(`${init?.method ?? 'GET'} ${path}: ${JSON.stringify(body)}`);
    return { status: answer.status, body };
  } catch {
    return null;
  }
}
async function surely<T>(path: string): Promise<T> {
  for (;;) {
    const answer = await ask<T>(path);
    if (answer?.status === 200) return answer.body;
    await wait(300);
  }
}
const open = (id: string, edition = '') => surely<{ plan: Plan; version: number }>(`/api/plans/${id}${edition}`);

function noteStep(step: Step): void {
  const asked = made.get(step.request ?? '')?.asked;
  const command = step.command ?? (asked?.kind === 'change' ? asked.command : null);
  if (command) steps.set(step.version, { ...step, command });
}

class Editor {
  state!: State;
  private sends = 0;
  private reopening = false;

  constructor(
    private readonly id: string,
    private readonly who: number,
  ) {}

  async open(): Promise<void> {
    const { plan, version } = await open(this.id);
    note(version, plan);
    this.state = opened(plan, version);
    this.reopening = false;
  }

  ask(asked: Asked): void {
    const id = randomUUID();
    made.set(id, { who: this.who, asked, seen: this.state.version });
    counts.asked++;
    this.take({ kind: 'asked', id, asked, seen: this.state.version });
  }

  take(event: Event): void {
    if (this.reopening) return;
    if (event.kind === 'steps' || event.kind === 'answered') for (const s of event.steps ?? []) noteStep(s);
    const { state, effects } = next(this.state, event);
    this.state = state;
    for (const effect of effects) this.perform(effect);
  }

  private perform(effect: Effect): void {
    if (effect.do === 'send') void this.send(effect);
    else if (effect.do === 'fetch') void this.hear();
    else if (effect.do === 'reopen') {
      counts.reopened++;
      this.reopening = true;
      void this.open();
    } else if (effect.do === 'kept') {
      counts.kept++;
      kept.add(effect.id);
    } else counts[effect.reason.kind === 'overtaken' ? 'overtaken' : 'refused']++;
  }

  private async send({ id, version, asked, isAgain }: Extract<Effect, { do: 'send' }>): Promise<void> {
    if (isAgain) await wait(200);
    const { kind, ...what } = asked;
    const [path, method] = kind === 'change' ? ['', 'PATCH'] : ['/turn', 'POST'];
    const answer = await ask<{ steps: Step[] | null; error?: string }>(`/api/plans/${this.id}${path}`, {
      method,
      headers: json,
      body: JSON.stringify({ version, request: id, ...what }),
    });
    // Every seventh answer does not arrive.
    if (!answer || ++this.sends % 7 === 0) {
      counts.lost++;
      this.take({ kind: 'unanswered', id });
    } else if (answer.status === 200) this.take({ kind: 'answered', id, steps: answer.body.steps });
    else this.take({ kind: 'refused', id, message: answer.body.error ?? '', status: answer.status });
  }

  async hear(): Promise<void> {
    const answer = await ask<{ version: number; steps: Step[] | null }>(
      `/api/plans/${this.id}/steps?after=${this.state.version}&now=1`,
    );
    if (answer?.status === 200) this.take({ kind: 'steps', ...answer.body });
  }
}

let fresh = 0;
function change(plan: Plan): Command {
  const ref = pick(plan.activities).ref;
  const what = random();
  if (what < 0.5) return { do: 'changeActivity', ref: `R${Math.floor(random() * 40)}`, part: { name: `n${fresh++}` } };
  if (what < 0.65) return { do: 'changeActivity', ref, part: { duration: 480 * Math.floor(1 + random() * 9) } };
  if (what < 0.75) return { do: 'addActivity', activity: makeActivity({ ref: `X${fresh++}` }), before: ref };
  if (what < 0.82) return { do: 'removeActivity', ref };
  if (what < 0.88) return { do: 'moveActivity', ref, before: null };
  if (what < 0.94) return { do: 'addLink', link: makeLink({ from: ref, to: pick(plan.activities).ref }) };
  return { do: 'setPlan', settings: { statusDate: 1440 * (20_500 + Math.floor(random() * 90)) } };
}

const begun = await ask<{ planId: string }>('/api/plans', {
  method: 'POST',
  headers: json,
  body: JSON.stringify({ name: 'Together', from: null }),
});
if (begun?.status !== 200) throw new Error(`no plan can be made at ${address}`);
const id = begun.body.planId;
await ask(`/api/plans/${id}`, {
  method: 'PATCH',
  headers: json,
  body: JSON.stringify({
    version: 1,
    command: {
      do: 'all',
      commands: Array.from({ length: ROWS }, (_, k) => ({
        do: 'addActivity',
        activity: makeActivity({ ref: `R${k}`, name: `Row ${k}`, duration: 480 }),
        before: null,
      })),
    },
  }),
});

const until = Date.now() + SECONDS * 1000;
const isOver = () => Date.now() >= until;
const editors = Array.from({ length: 5 }, (_, who) => new Editor(id, who));
await Promise.all(editors.map((e) => e.open()));

const edits = editors.map(async (editor) => {
  while (!isOver()) {
    await wait(100 + 500 * random());
    const { state } = editor;
    const isFew = state.pending.length < 4;
    if (isFew && random() < 0.85) editor.ask({ kind: 'change', command: change(state.shown) });
    else if (isFew) editor.ask({ kind: 'turn', undo: random() < 0.8 });
    if (random() < 0.7) await editor.hear();
  }
});
const readings = Array.from({ length: 10 }, async () => {
  while (!isOver()) {
    const answer = await ask<{ plan: Plan; version: number }>(`/api/plans/${id}`);
    if (answer?.status === 200) {
      counts.read++;
      note(answer.body.version, answer.body.plan);
    }
    await wait(100 + 400 * random());
  }
});
/** Keeps editions, and now and then goes on from one of them. */
const keeping = (async () => {
  for (let k = 1; !isOver(); k++) {
    await wait(700);
    const name = `Kept ${k}`;
    const post = (path: string, body: object) =>
      ask<{ id: string }>(`/api/plans/${id}/editions${path}`, {
        method: 'POST',
        headers: json,
        body: JSON.stringify(body),
      });
    const edition = await post('', { name });
    if (edition?.status !== 200) continue;
    counts.editions++;
    if (k % 20 === 0 && (await post(`/${edition.body.id}/work`, { keepAs: `Before ${k}` }))?.status === 200)
      counts.worked++;
  }
})();
const kill = process.env.CLEMBO_KILL;
if (kill) setTimeout(() => process.kill(Number(kill), 'SIGKILL'), (SECONDS / 2) * 1000);
await Promise.all([...edits, ...readings, keeping]);
// All that is open comes to its end.
for (let k = 0; k < 200 && editors.some((e) => e.state.pending.length > 0 || e.state.underWay); k++) {
  await wait(150);
  await Promise.all(editors.map((e) => e.hear()));
}
const last = await open(id);
note(last.version, last.plan);
for (const editor of editors) for (let k = 0; k < 20 && editor.state.version < last.version; k++) await editor.hear();

const wrong: string[] = [...faults];
const check = (isRight: boolean, words: string): void => {
  if (!isRight) wrong.push(words);
};
// Everybody who saw a version whole saw the same, and the steps lead from each to the next.
for (const [version, digests] of seen)
  check(digests.size === 1, `version ${version} was seen as ${digests.size} plans`);
for (const [k, { state }] of editors.entries())
  check(digest(state.shown) === digest(last.plan), `editor ${k} ended with another plan (version ${state.version})`);
check(planFault(last.plan) === null, `the plan ended with a fault: ${planFault(last.plan)}`);
const states = await statesByVersion();
for (const [version, digests] of seen)
  check(!states.has(version) || digests.has(states.get(version)!), `version ${version} is not what its steps make`);
// Each edition is the plan at one of its versions.
const all = new Set([...states.values(), ...[...seen.values()].flatMap((d) => [...d])]);
const list = await surely<{ editions: { id: string; working: boolean; name: string }[] }>(`/api/plans/${id}`);
let unknown = 0;
for (const e of list.editions.filter((x) => !x.working)) {
  const { plan } = await open(id, `?edition=${e.id}`);
  if (!all.has(digest(plan))) unknown++;
}
check(unknown === 0, `${unknown} editions are the plan at none of its versions`);
// Nothing was overruled by who had not seen it.
for (const request of kept) {
  const { who, asked, seen: from } = made.get(request)!;
  const own = [...steps.values()].find((s) => s.request === request);
  if (!own || asked.kind !== 'change') continue;
  for (let v = from + 1; v < own.version; v++) {
    const step = steps.get(v);
    if (!step?.command || made.get(step.request ?? '')?.who === who) continue;
    check(!collide(step.command, asked.command), `version ${own.version} overrules version ${v} unsaid`);
  }
}

/** The plan at each version, made by the steps from the versions that were seen whole. */
async function statesByVersion(): Promise<Map<number, string>> {
  const found = new Map<number, string>();
  let plan: Plan | null = null;
  for (let version = 2; version <= last.version; version++) {
    const command = steps.get(version)?.command;
    if (plan && command) plan = applyCommand(plan, command).plan;
    else plan = whole.get(version) ?? null;
    if (plan) found.set(version, digest(plan));
  }
  return found;
}

console.log(
  Object.entries(counts)
    .map(([word, n]) => `${n} ${word}`)
    .join(', '),
);
console.log(`${steps.size} steps, ${seen.size} versions seen whole, ${states.size} of ${last.version} known`);
await fetch(`${address}/api/plans/${id}`, { method: 'DELETE' });
if (wrong.length > 0) {
  console.error(`${wrong.length} things are wrong:\n${wrong.slice(0, 20).join('\n')}`);
  process.exit(1);
}
console.log('Nothing was lost, torn or overwritten unsaid.');
process.exit(0);
