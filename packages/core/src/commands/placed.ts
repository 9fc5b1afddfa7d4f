import { CommandRefused } from './refused';

/**
 * A list with a thing put before another, or in the place of the one with its id.
 * @param before null for the end; undefined leaves it where it is
 * @returns also the thing as it was, and what it stood before; null where there was none
 * @throws CommandRefused where what it is to go before is not there
 */
export function placed<T extends { id: string }>(
  list: readonly T[],
  thing: T,
  before: string | null | undefined,
  word: string,
): { list: T[]; was: T | null; behind: string | null } {
  const at = list.findIndex((x) => x.id === thing.id);
  const was = list[at] ?? null;
  const behind = was ? (list[at + 1]?.id ?? null) : null;
  if (was && (before === undefined || before === thing.id))
    return { list: list.map((x) => (x === was ? thing : x)), was, behind };
  const rest = list.filter((x) => x !== was);
  const to = before === null || before === undefined ? rest.length : rest.findIndex((x) => x.id === before);
  if (to < 0) throw new CommandRefused(`There is no ${word} “${before}” in the plan (any more).`);
  return { list: [...rest.slice(0, to), thing, ...rest.slice(to)], was, behind };
}
