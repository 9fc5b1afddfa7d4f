import 'server-only';
import { HERE_CHANNEL, type Looker } from '@clembo/store';
import { z } from 'zod';

/** Who has not been heard of for so long has gone, in milliseconds. */
const GONE = 45_000;

const Heard = z.object({
  who: z.string(),
  name: z.string().nullable(),
  ref: z.string().nullable(),
  gone: z.boolean(),
});

type Here = Map<string, Map<string, Omit<Looker, 'gone' | 'who'> & { at: number }>>;
const kept = globalThis as { clemboHere?: Here };
const here = (): Here => (kept.clemboHere ??= new Map());

/** Takes note of what is heard on the channel of those who look at plans. */
export function hearHere(payload: string, channel: string): void {
  if (channel !== HERE_CHANNEL) return;
  const at = payload.indexOf(' ');
  const { who, name, ref, gone } = Heard.parse(JSON.parse(payload.slice(at + 1)));
  const planId = payload.slice(0, at);
  const lookers = here().get(planId) ?? new Map();
  if (gone) lookers.delete(who);
  else lookers.set(who, { name, ref, at: Date.now() });
  if (lookers.size === 0) here().delete(planId);
  else here().set(planId, lookers);
}

/** Who else looks at a plan, in a steady order. */
export function othersHere(planId: string, me: string): { who: string; name: string | null; ref: string | null }[] {
  const lookers = here().get(planId);
  if (!lookers) return [];
  for (const [who, { at }] of lookers) if (at < Date.now() - GONE) lookers.delete(who);
  return [...lookers]
    .filter(([who]) => who !== me)
    .map(([who, { name, ref }]) => ({ who, name, ref }))
    .sort((a, b) => (a.who < b.who ? -1 : 1));
}

/** A short mark of who is where, by which it is seen that it has changed. */
export const hereMark = (others: readonly { who: string; ref: string | null }[]): string =>
  others
    .map(({ who, ref }) => `${who.slice(0, 8)}:${ref ?? ''}`)
    .join(' ')
    .slice(0, 1500);
