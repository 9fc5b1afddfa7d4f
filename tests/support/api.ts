import { address } from './address';

/** How a job ended. */
export interface EndedJob {
  state: string;
  result: unknown;
  error: string | null;
}

/** Waits for a job to end, however it does. */
export async function awaitJob(id: string): Promise<EndedJob> {
  for (let after = 0; ; ) {
    const answer = await fetch(`${address}/api/jobs/${id}?after=${after}`);
    const job = (await answer.json()) as EndedJob & { revision: number; error: string | null };
    if (!answer.ok) throw new Error(job.error ?? 'no such job');
    if (['done', 'failed', 'cancelled'].includes(job.state)) return job;
    after = job.revision;
  }
}

/** Gives a file to the server, as the form of the page does. */
export async function upload(name: string, bytes: Uint8Array): Promise<{ intake: string; job: string }> {
  const form = new FormData();
  form.set('file', new Blob([bytes as BlobPart]), name);
  const answer = await fetch(`${address}/api/intakes`, { method: 'POST', body: form });
  if (!answer.ok) throw new Error(((await answer.json()) as { error: string }).error);
  return (await answer.json()) as { intake: string; job: string };
}

/** Takes a table in and makes it a plan, with the map that is guessed. */
export async function takeIn(name: string, text: string): Promise<string> {
  const { job } = await upload(name, new TextEncoder().encode(text));
  const { intakeId } = (await awaitJob(job)).result as { intakeId: string };
  const answer = await fetch(`${address}/api/intakes/${intakeId}/plan`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: name.replace(/\.\w+$/, '') }),
  });
  return ((await awaitJob(((await answer.json()) as { job: string }).job)).result as { planId: string }).planId;
}

const sent = async (method: string, path: string, body: object): Promise<unknown> => {
  const answer = await fetch(`${address}/api${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(((await answer.json()) as { error: string }).error);
  return answer.json();
};

/** A plan once more, with all that belongs to it, under a name of its own: what tests look for keeps its name alone. */
export async function copyOf(planId: string, name: string): Promise<string> {
  const { job } = (await sent('POST', `/plans/${planId}/file`, { format: 'clembo' })) as { job: string };
  await awaitJob(job);
  const bytes = new Uint8Array(await (await fetch(`${address}/api/jobs/${job}/file`)).arrayBuffer());
  const taken = await upload(`${name}.clembo`, bytes);
  const copy = ((await awaitJob(taken.job)).result as { planId: string }).planId;
  const { version } = (await (await fetch(`${address}/api/plans/${copy}`)).json()) as { version: number };
  await sent('PATCH', `/plans/${copy}`, { version, command: { do: 'setPlan', settings: { name } } });
  return copy;
}

/** The first plan whose name holds some words. */
export async function planNamed(words: string): Promise<string> {
  const found = (await (await fetch(`${address}/api/plans?find=${encodeURIComponent(words)}`)).json()) as {
    id: string;
  }[];
  if (!found[0]) throw new Error(`there is no plan “${words}”`);
  return found[0].id;
}
