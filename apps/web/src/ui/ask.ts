/** An answer of the server that says what went wrong. */
export class Refused extends Error {
  constructor(
    message: string,
    /** The status of the answer; 0 where there was none. */
    readonly status = 0,
    /** What else it says. */
    readonly body: unknown = null,
  ) {
    super(message);
  }
}

/** Asks the server and reads its JSON; what it refuses is thrown with its words. */
export async function ask<T>(
  path: string,
  init?: Omit<RequestInit, 'body'> & { json?: unknown; form?: FormData },
): Promise<T> {
  const { json, form, headers, ...rest } = init ?? {};
  let response: Response;
  try {
    response = await fetch(path, {
      ...rest,
      ...(json !== undefined && { body: JSON.stringify(json) }),
      headers: { ...(json !== undefined && { 'Content-Type': 'application/json' }), ...headers },
      ...(form && { body: form }),
    });
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    throw new Refused(
      'The server does not answer. Check that Clembo is still running, then try again; nothing typed is lost.',
    );
  }
  const body = (await response
    .json()
    .catch(() => ({ error: 'The server answered in a way that could not be read. Try again.' }))) as T & {
    error?: string;
  };
  // Nobody is signed in any more: that is put right elsewhere, and leads back here.
  if (response.status === 401 && typeof location !== 'undefined')
    location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`);
  if (!response.ok)
    throw new Refused(body.error ?? 'The server refused without a reason. Try again.', response.status, body);
  return body;
}

/** How a job stands, as the server says it. */
interface JobStanding {
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  revision: number;
  step: string;
  share: number;
  before: number;
  result: unknown;
  error: string | null;
}

/** How often a server that does not answer is asked again, a second apart: the job goes on meanwhile. */
const PATIENCE = 30;

async function askPatiently<T>(path: string, signal: AbortSignal | undefined): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await ask<T>(path, signal ? { signal } : {});
    } catch (error) {
      const away = error instanceof Refused && (error.status === 0 || error.status === 503);
      if (!away || tries === PATIENCE) throw error;
      await new Promise((r) => setTimeout(r, 1000));
    }
  }
}

/** Waits for a job and returns what came of it; `onStep` hears what it is at. Aborting cancels it on the server. */
export async function awaitJob<T>(
  id: string,
  { signal, onStep }: { signal?: AbortSignal; onStep?: (words: string) => void } = {},
): Promise<T> {
  const path = `/api/jobs/${id}`;
  const cancel = () => void ask(path, { method: 'DELETE', keepalive: true }).catch(() => {});
  if (signal?.aborted) cancel();
  signal?.addEventListener('abort', cancel);
  try {
    for (let revision = 0; ; ) {
      const job = await askPatiently<JobStanding>(`${path}?after=${revision}`, signal);
      revision = job.revision;
      if (job.state === 'done') return job.result as T;
      if (job.state === 'failed') throw new Refused(job.error ?? 'It could not be done. Try again.');
      if (job.state === 'cancelled') throw new DOMException('cancelled', 'AbortError');
      const before = job.before === 1 ? 'one other is' : `${job.before} others are`;
      onStep?.(job.before > 0 ? `Waiting: ${before} before it` : job.step);
    }
  } finally {
    signal?.removeEventListener('abort', cancel);
  }
}
