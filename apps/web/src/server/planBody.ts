import 'server-only';
import { promisify } from 'node:util';
import { constants, gzip } from 'node:zlib';
import { type Access, localeOf, readPlan, readPlanAsColumns, readPlanMark } from '@clembo/store';
import { notFound } from './answer';
import { store } from './store';

/** How many bytes of answers are held, in all. */
const HELD_BYTES = 64 * 1_048_576;

/** An answer with the mark of the state that it holds. */
interface Answer {
  tag: string;
  bytes: Uint8Array;
}

/** Answers by the mark of what they hold; the one that was asked for longest ago goes first. */
const held = new Map<string, Promise<Answer>>();
const sizes = new Map<string, number>();

function hold(asked: string, make: () => Promise<Answer>): Promise<Answer> {
  const known = held.get(asked);
  if (known) {
    held.delete(asked);
    held.set(asked, known);
    return known;
  }
  const made = make();
  held.set(asked, made);
  made.then(
    ({ tag, bytes }) => {
      // The plan was changed between the question for its mark and that for its content: what was read is held as what it is.
      if (tag !== asked) {
        held.delete(asked);
        held.set(tag, made);
      }
      sizes.set(tag, bytes.length);
      let total = [...sizes.values()].reduce((a, b) => a + b, 0);
      for (const old of [...held.keys()]) {
        if (total <= HELD_BYTES || old === tag) continue;
        total -= sizes.get(old) ?? 0;
        held.delete(old);
        sizes.delete(old);
      }
    },
    () => held.delete(asked),
  );
  return made;
}

const pressed = promisify(gzip) as (data: string, options: object) => Promise<Buffer>;

/**
 * A plan as an answer: made once for each state of it, however many ask; nothing but a word for those who have it
 * already (If-None-Match). With `?form=columns` it is JSON pressed by gzip, as it is held, and not pressed for each who
 * asks.
 */
export async function planAnswer(
  request: Request,
  access: Access,
  planId: string,
  edition?: string,
): Promise<Response> {
  const asColumns = new URL(request.url).searchParams.get('form') === 'columns';
  const state = await readPlanMark(store(), access, planId, edition);
  if (!state) throw notFound(edition === undefined ? 'plan' : 'edition');
  const locale = await localeOf(store(), access);
  const tagOf = (mark: string) => `"${mark}-${locale}${asColumns ? '-c' : ''}"`;
  const asked = tagOf(state);
  const headers = { 'Cache-Control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === asked)
    return new Response(null, { status: 304, headers: { ...headers, ETag: asked } });
  const { tag, bytes } = await hold(asked, async () => {
    const read = asColumns ? readPlanAsColumns : readPlan;
    const stored = await read(store(), access, planId, edition);
    if (!stored) throw notFound(edition === undefined ? 'plan' : 'edition');
    const { plan, version, sources } = stored;
    const body = JSON.stringify({
      plan,
      edition: stored.edition,
      locale,
      version,
      editions: stored.editions.map(({ id, name, working, baseline }) => ({ id, name, working, baseline })),
      sources: sources.map(({ no, name, sheet }) => ({ no, name, sheet })),
      ...('rows' in stored && { rows: stored.rows }),
    });
    const bytes =
      'columns' in stored
        ? // Columns are text already, which need not be read to be sent on.
          await pressed(`${body.slice(0, -1)},"columns":${stored.columns}}`, { level: constants.Z_BEST_SPEED })
        : new TextEncoder().encode(body);
    return { tag: tagOf(stored.mark), bytes };
  });
  const type = asColumns ? 'application/gzip' : 'application/json';
  return new Response(bytes as BodyInit, { headers: { ...headers, ETag: tag, 'Content-Type': type } });
}
