/** Programs of ours as plain JavaScript: the folder that holds `<entry>.mjs` for every entry. */
export function bundle(name: string, entries: Record<string, string>, packages: string[]): Promise<string>;
