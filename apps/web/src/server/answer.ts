import 'server-only';
import { CommandRefused, findUnusableText } from '@clembo/core';
import { depthOf } from '@clembo/formats';
import {
  AccessRefused,
  ExhibitPassed,
  FolioPassed,
  PlanGone,
  PlanRefused,
  RefreshConflict,
  StoreDamaged,
  TurnRefused,
  VersionPassed,
} from '@clembo/store';
import { NextResponse } from 'next/server';
import { z } from 'zod';
import { SignInNeeded } from './access';
import { refusal } from './guard';
import { logAnswer, logFault } from './log';
import { metrics, routeOf } from './metrics';

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

/** What is refused in words of its own, the status that goes with it, and what else the person needs to know. */
const REFUSALS: [kind: new (...args: never[]) => Error, status: number, more?: (error: never) => object][] = [
  [PlanRefused, 422],
  [CommandRefused, 409],
  [TurnRefused, 422],
  [VersionPassed, 409],
  [ExhibitPassed, 409, ({ now, parts }: ExhibitPassed) => ({ now, parts })],
  [FolioPassed, 409, ({ now }: FolioPassed) => ({ now })],
  [RefreshConflict, 409],
  [PlanGone, 404],
  [SignInNeeded, 401],
  [AccessRefused, 403],
  [StoreDamaged, 500],
];

const says = (error: string, status: number, more: object = {}): Response =>
  NextResponse.json({ error, ...more }, { status });

/** Runs a route's work, if the request may be answered at all, and turns what it throws into an answer in words. */
export async function answer(request: Request, work: () => Promise<unknown>): Promise<Response> {
  const begun = performance.now();
  const response = await answerOf(request, work);
  const path = routeOf(new URL(request.url).pathname);
  const milliseconds = performance.now() - begun;
  metrics()
    .answers.labels(path, request.method, String(response.status))
    .observe(milliseconds / 1000);
  logAnswer(request.method, path, response.status, milliseconds);
  return response;
}

async function answerOf(request: Request, work: () => Promise<unknown>): Promise<Response> {
  const refused = refusal(request.headers, false);
  if (refused) return says(refused, 403);
  try {
    const result = await work();
    return result instanceof Response ? result : NextResponse.json(result ?? { done: true });
  } catch (error) {
    if (error instanceof BadRequest) return says(error.message, error.status);
    for (const [kind, status, more] of REFUSALS)
      if (error instanceof kind) return says(error.message, status, more?.(error as never));
    if (error instanceof z.ZodError) {
      const places = error.issues.slice(0, 3).map((i) => `${i.path.join('.') || 'request'}: ${i.message}`);
      return says(`The request is not valid. ${places.join('; ')}.`, 400);
    }
    logFault(`${request.method} ${new URL(request.url).pathname} failed`, error);
    if (isDatabaseAway(error))
      return says('The database does not answer. It is being started again; try again in a moment.', 503);
    return says('Something went wrong on the server; nothing was changed. Try again.', 500);
  }
}

const AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P02', '57P03', '08006', '08003', '08001']);

function isDatabaseAway(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    if (AWAY.has((at as { code?: string }).code ?? '')) return true;
    if (/Connection terminated|timeout exceeded when trying to connect/.test(at.message)) return true;
  }
  return false;
}

/** An id from a path; what is no id does not exist. */
export function readId(text: string, what: string): string {
  const id = z.uuid().safeParse(text);
  if (!id.success) throw notFound(what);
  return id.data;
}

const MEGABYTE = 1_048_576;

/** How much more than is taken in is listened to, and thrown away. */
const HEARD_OUT = 64 * MEGABYTE;

/** The body of a request, of which no more is held than it may be. */
export async function readBytes(request: Request, most: number, what: string): Promise<Uint8Array> {
  const tooLarge = () =>
    new BadRequest(`${what} is larger than ${Math.round((most / MEGABYTE) * 10) / 10} MB; it was not taken in.`, 413);
  if (!request.body) return new Uint8Array();
  let parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size <= most) parts.push(part);
    else parts = [];
    // Whoever sends is heard to the end, as long as that is bearable: else the answer would not reach them.
    if (size > most + HEARD_OUT) throw tooLarge();
  }
  if (size > most) throw tooLarge();
  return Buffer.concat(parts);
}

/** Deeper than any request is nested. */
const MAX_DEPTH = 60;

/** The body of a request as JSON of a schema; at most one megabyte unless said otherwise. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>, most = MEGABYTE): Promise<T> {
  if (!/^application\/json\b/i.test(request.headers.get('content-type') ?? ''))
    throw new BadRequest('The request does not say that it is JSON (Content-Type: application/json).', 415);
  const bytes = await readBytes(request, most, 'The request');
  let body: unknown;
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    if (depthOf(text) > MAX_DEPTH) throw new BadRequest(`The request is nested more than ${MAX_DEPTH} deep.`);
    body = JSON.parse(text);
  } catch (error) {
    throw error instanceof BadRequest ? error : new BadRequest('The request is not JSON.');
  }
  const unusable = findUnusableText(body);
  if (unusable)
    throw new BadRequest(
      `${unusable.map(String).join('.') || 'The request'} holds a character that cannot be kept (U+0000, or half a character).`,
    );
  return schema.parse(body);
}
