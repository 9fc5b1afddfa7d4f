import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Store } from './database';

/** How often something may be tried, counted by all processes together. */
export interface Limit {
  /** Counts one try of a key; gives in how many seconds it may be tried again, or null where it may be now. */
  take(key: string): Promise<number | null>;
  /** Forgets the tries of a key. */
  clear(key: string): Promise<void>;
}

/** A limit of so many tries within so many seconds. */
function limit(store: Store, name: string, points: number, seconds: number): Limit {
  const limiter = new RateLimiterPostgres({
    storeClient: store.pool,
    tableName: 'attempt',
    tableCreated: true,
    keyPrefix: name,
    points,
    duration: seconds,
    blockDuration: seconds,
  });
  return {
    async take(key) {
      try {
        await limiter.consume(key.slice(0, 200));
        return null;
      } catch (refused) {
        if (refused instanceof RateLimiterRes) return Math.ceil(refused.msBeforeNext / 1000);
        throw refused;
      }
    },
    async clear(key) {
      await limiter.delete(key.slice(0, 200));
    },
  };
}

/** What is limited: passwords by address and by who asks, mail that is asked for, secrets of links that are guessed. */
export const limits = (store: Store) => ({
  password: limit(store, 'password', 8, 600),
  asker: limit(store, 'asker', 60, 600),
  mail: limit(store, 'mail', 5, 3600),
  link: limit(store, 'link', 40, 600),
});
