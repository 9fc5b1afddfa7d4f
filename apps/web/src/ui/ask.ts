/** An answer of the server that says what went wrong. */
export class Refused extends Error {}

/** Asks the server and reads its JSON; what it refuses is thrown with its words. */
export async function ask<T>(
  path: string,
  init?: Omit<RequestInit, 'body'> & { json?: unknown; form?: FormData },
): Promise<T> {
  const { json, form, ...rest } = init ?? {};
  let response: Response;
  try {
    response = await fetch(path, {
      ...rest,
      ...(json !== undefined && { body: JSON.stringify(json), headers: { 'Content-Type': 'application/json' } }),
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
  if (!response.ok) throw new Refused(body.error ?? 'The server refused without a reason. Try again.');
  return body;
}
