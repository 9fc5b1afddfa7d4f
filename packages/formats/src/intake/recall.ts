import type { Table } from '../table/table';
import type { ColumnMap, ColumnMeaning, ColumnStyle } from './columnMap';
import { plainHeading } from './fields';
import { orderInTable, settledOrder } from './settle';

/** So much of the headings of a known map has to be there again, as a share. */
const ENOUGH = 0.75;

/**
 * The map that a person corrected or confirmed for a table with these headings before, carried over to this one: it
 * still fits where a column more or less is there, or where they stand in another order. Null where none fits.
 *
 * @param known maps of earlier tables, the last used first
 */
export function recallMap(table: Table, guess: ColumnMap, known: readonly ColumnMap[]): ColumnMap | null {
  let best: { map: ColumnMap; share: number } | null = null;
  const here = new Set(guess.headings.map(plainHeading).filter((h) => h !== ''));
  if (here.size < 2) return null;
  for (const map of known) {
    const there = new Set(map.headings.map(plainHeading).filter((h) => h !== ''));
    const common = [...there].filter((h) => here.has(h)).length;
    const share = common / Math.max(there.size, here.size);
    if (common >= 2 && share >= ENOUGH && (best === null || share > best.share)) best = { map, share };
  }
  return best === null ? null : carriedOver(table, guess, best.map);
}

function carriedOver(table: Table, guess: ColumnMap, known: ColumnMap): ColumnMap {
  const own = known.headings.length;
  // Headings may come twice: the first is the first again.
  const places = new Map<string, number[]>();
  known.headings.forEach((h, c) => places.set(plainHeading(h), [...(places.get(plainHeading(h)) ?? []), c]));
  const from = guess.headings.map((h) => (plainHeading(h) === '' ? undefined : places.get(plainHeading(h))?.shift()));
  const to = new Map<number, number>();
  from.forEach((k, c) => k !== undefined && to.set(k, c));
  const derived = known.derived
    .map((d, i) => ({ d, meaning: known.columns[own + i]! }))
    .filter(({ d }) => to.has(d.from) && (d.take.kind !== 'join' || to.has(d.take.other)))
    .map(({ d, meaning }) => ({
      meaning,
      d: {
        from: to.get(d.from)!,
        take: d.take.kind === 'join' ? { ...d.take, other: to.get(d.take.other)! } : d.take,
      },
    }));
  const kept = from.flatMap((k) => (k === undefined ? [] : [known.columns[k]!]));
  const columns: ColumnMeaning[] = from.map((k, c) =>
    k === undefined ? fresh(guess.columns[c]!, kept) : known.columns[k]!,
  );
  const styles = from.map(
    (k, c): ColumnStyle => ({ ...(k === undefined ? {} : known.styles[k]), ...settledParts(guess.styles[c]) }),
  );
  const map: ColumnMap = {
    ...known,
    headerRow: guess.headerRow,
    headerRows: guess.headerRows,
    headings: guess.headings,
    columns: [...columns, ...derived.map(({ meaning }) => meaning)],
    derived: derived.map(({ d }) => d),
    styles,
    mends: known.mends.flatMap((m) => (to.has(m.column) ? [{ ...m, column: to.get(m.column)! }] : [])),
    pick: {
      only: known.pick.only.flatMap((p) => (to.has(p.column) ? [{ ...p, column: to.get(p.column)! }] : [])),
      from: known.pick.from,
      to: known.pick.to,
      without: known.pick.without,
    },
    currency: known.currency ?? guess.currency,
    statusDay: guess.statusDay,
    asPromised: known.asPromised,
    // Another file may be of another year.
    year: guess.year,
    shortM: guess.shortM ?? known.shortM,
  };
  return { ...map, dateOrder: settledOrder(orderInTable(table, map)) ?? known.dateOrder };
}

/** A column that is new is taken as guessed, unless what it would be is another one already. */
const fresh = (guess: ColumnMeaning, kept: readonly ColumnMeaning[]): ColumnMeaning =>
  guess.as === 'field' && kept.some((m) => m.as === 'field' && m.field === guess.field) ? { as: 'skip' } : guess;

/** What the values themselves settle goes before what was said for others. */
const settledParts = (style: ColumnStyle | undefined): ColumnStyle =>
  Object.fromEntries(Object.entries(style ?? {}).filter(([, value]) => value !== null));
