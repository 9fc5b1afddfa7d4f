import 'server-only';
import { CommandRefused } from '@clembo/core';
import { UnreadableFile } from '@clembo/formats';
import { AccessRefused, PlanRefused, VersionPassed } from '@clembo/store';
import { NextResponse } from 'next/server';
import { z } from 'zod';

/** Something that the person who asked can put right, with the status that goes with it. */
export class BadRequest extends Error {
  constructor(
    message: string,
    readonly status = 400,
  ) {
    super(message);
  }
}

export const notFound = (what: string): BadRequest => new BadRequest(`There is no such ${what} (any more).`, 404);

/** What is refused in words of its own, and the status that goes with it. */
const REFUSALS: [kind: new (...args: never[]) => Error, status: number][] = [
  [UnreadableFile, 422],
  [PlanRefused, 422],
  [CommandRefused, 409],
  [VersionPassed, 409],
  [AccessRefused, 403],
];

/** Runs a route's work and turns what it throws into an answer in words. */
export async function answer(work: () => Promise<unknown>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : NextResponse.json(result ?? { done: true });
  } catch (error) {
    if (error instanceof BadRequest) return NextResponse.json({ error: error.message }, { status: error.status });
    for (const [kind, status] of REFUSALS)
      if (error instanceof kind) return NextResponse.json({ error: error.message }, { status });
    if (error instanceof z.ZodError) {
      const places = error.issues.slice(0, 3).map((i) => `${i.path.join('.') || 'request'}: ${i.message}`);
      return NextResponse.json({ error: `The request is not valid. ${places.join('; ')}.` }, { status: 400 });
    }
    process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
    return NextResponse.json(
      { error: 'Something went wrong on the server; nothing was changed. Try again.' },
      { status: 500 },
    );
  }
}

/** An id from a path; what is no id does not exist. */
export function readId(text: string, what: string): string {
  const id = z.uuid().safeParse(text);
  if (!id.success) throw notFound(what);
  return id.data;
}

/** The body of a request as JSON of a schema. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  let body: unknown;
  try {
    body = await request.json();
  } catch {
    throw new BadRequest('The request is not JSON.');
  }
  return schema.parse(body);
}
