/** What tests written in TypeScript use of it. */
export function freePort(): Promise<number>;

/** A private PostgreSQL server: addresses of its databases, and how to end it. */
export function startCluster(
  root: string,
  name: string,
  bin: string,
): Promise<{ url: string; admin: string; adopted: boolean; stop: () => Promise<void> }>;
