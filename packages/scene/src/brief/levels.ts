import type { Part } from './parts';

/** The part that says down to which level of the outline things are shown. */
export const levelPart = <Brief extends { level: number | null }>(): Part<Brief> => ({
  as: 'one',
  name: 'level',
  label: 'Level',
  lead: ' ',
  quiet: (b) => b.level === null,
  value: (b) => String(b.level ?? ''),
  words: (b) => (b.level === null ? 'down to the last level' : `down to level ${b.level}`),
  options: (plan, b) => [
    ['', 'down to the last level'],
    ...[...new Set([...Array.from({ length: (plan.levels ?? 1) - 1 }, (_, k) => k + 1), ...(b.level ? [b.level] : [])])]
      .sort((p, q) => p - q)
      .map((l): [string, string] => [String(l), `down to level ${l}`]),
  ],
  set: (v) => ({ level: v === '' ? null : Number(v) }) as Partial<Brief>,
});
