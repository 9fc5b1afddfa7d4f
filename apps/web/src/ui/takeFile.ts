'use client';
import { ask, awaitJob } from './ask';
import { toast, wrong } from './Toasts';

/** Has the server write a file as a job, says how it goes, and hands the file over. */
export async function takeFile(path: string, format: string, more: Record<string, unknown> = {}): Promise<void> {
  try {
    const { job } = await ask<{ job: string }>(path, { method: 'POST', json: { format, ...more } });
    const stop = new AbortController();
    const note = toast(`Writing the ${format.toUpperCase()} …`, {
      seconds: Number.POSITIVE_INFINITY,
      action: { label: 'Cancel', run: () => stop.abort() },
    });
    try {
      const { file } = await awaitJob<{ file: string }>(job, {
        signal: stop.signal,
        onStep: (words) => words !== '' && note.say(`${words} …`),
      });
      const link = document.createElement('a');
      link.href = `/api/jobs/${job}/file`;
      link.download = file;
      link.click();
    } finally {
      note.end();
    }
  } catch (error) {
    if ((error as Error).name !== 'AbortError') wrong(error);
  }
}
