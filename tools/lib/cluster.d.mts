/** What tests written in TypeScript use of it. */
export function freePort(): Promise<number>;
