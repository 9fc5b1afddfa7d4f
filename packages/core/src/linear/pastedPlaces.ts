import type { Line, PlaceStyle } from '../plan/schema';
import { endOfDay, parseIsoDate, startOfDay } from '../time/civil';
import { readPlace } from './placeWords';

/** What along a line is pasted. */
export type PlaceKind = 'stations' | 'zones' | 'windows';

export interface PastedPlaces {
  stations: Line['stations'];
  zones: Line['zones'];
  windows: Line['windows'];
  /** Rows that were not read, by their number from 1, and why. */
  problems: { row: number; text: string; why: string }[];
}

const HEADS = {
  name: /name|station|zone|section|what|title|window|label|\bbezeich/i,
  from: /^(from|begin|start place|von|at|place|chainage|km|position|first)\b/i,
  to: /^(to|end|until|bis|last)\b/i,
} as const;

/**
 * Reads rows with places in any order of columns: of a station its name and a place, of a zone its name and two, of a
 * closed window its name, two places, its first and its last day (2026-04-01, 1.4.2026); of stations and zones also
 * their colour (#0F6E6E) and their style. A first row without any place
 * is headings. A column is a place where most of its cells are places; where that leaves two meanings, nothing is
 * guessed: the rows are listed with what to do.
 */
export function readPastedPlaces(rows: readonly (readonly string[])[], kind: PlaceKind, unit: string): PastedPlaces {
  const found: PastedPlaces = { stations: [], zones: [], windows: [], problems: [] };
  const cells = rows.map((r) => r.map((c) => c.trim()));
  const isPlace = (t: string) => dayOf(t) === null && readPlace(t, unit) !== null;
  const headed = cells.length > 1 && cells[0]!.every((c) => !isPlace(c)) && cells.slice(1).some((r) => r.some(isPlace));
  const heads = headed ? cells[0]! : [];
  const body = headed ? cells.slice(1) : cells;
  const width = Math.max(0, ...body.map((r) => r.length));
  const share = (c: number, test: (t: string) => boolean) => {
    const filled = body.map((r) => r[c] ?? '').filter((t) => t !== '');
    return filled.length === 0 ? 0 : filled.filter(test).length / filled.length;
  };
  const every = Array.from({ length: width }, (_, c) => c);
  const colours = every.filter((c) => share(c, (t) => colourOf(t) !== null) > 0.5);
  const styles = every.filter((c) => share(c, (t) => styleOf(t) !== null) > 0.5 && !colours.includes(c));
  const columns = every.filter((c) => !colours.includes(c) && !styles.includes(c));
  const days = columns.filter((c) => share(c, (t) => dayOf(t) !== null) > 0.5);
  let places = columns.filter((c) => !days.includes(c) && share(c, isPlace) > 0.5);
  const wanted = kind === 'stations' ? 1 : 2;
  const named = (test: RegExp) => places.filter((c) => test.test(heads[c] ?? ''));
  if (places.length > wanted) {
    const byHead = [...new Set([...named(HEADS.from), ...(wanted === 2 ? named(HEADS.to) : [])])];
    if (byHead.length === wanted) places = byHead;
  } else if (wanted === 2 && places.length === 2 && named(HEADS.to)[0] === places[0]) places.reverse();
  const text =
    columns.find(
      (c) => !places.includes(c) && !days.includes(c) && (HEADS.name.test(heads[c] ?? '') || heads.length === 0),
    ) ?? columns.find((c) => !places.includes(c) && !days.includes(c));
  const all = (why: string) => {
    body.forEach((r, k) => found.problems.push({ row: k + (headed ? 2 : 1), text: r.join(' · '), why }));
    return found;
  };
  if (places.length > wanted)
    return all(
      `More than ${wanted} ${wanted === 1 ? 'column holds' : 'columns hold'} places. Put headings above them: name, from, to.`,
    );
  if (places.length < wanted)
    return all(wanted === 1 ? 'No column holds places.' : 'Two columns with places are needed: from and to.');
  if (kind === 'windows' && days.length !== 2)
    return all('Two columns with days are needed, the first and the last, as in 2026-04-01 or 1.4.2026.');
  body.forEach((r, k) => {
    if (r.every((c) => c === '')) return;
    const row = k + (headed ? 2 : 1);
    const refuse = (why: string) => found.problems.push({ row, text: r.join(' · '), why });
    const at = places.map((c) => readPlace(r[c] ?? '', unit));
    const bad = at.findIndex((p) => p === null);
    if (bad >= 0) return refuse(`“${r[places[bad]!] ?? ''}” is no place.`);
    const name = text === undefined ? '' : (r[text] ?? '');
    const [ink, style] = [colours[0], styles[0]].map((c) => (c === undefined ? '' : (r[c] ?? '')));
    const colour = ink === '' ? null : colourOf(ink!);
    const drawn = style === '' ? null : styleOf(style!);
    if ((ink !== '' && colour === null) || (style !== '' && drawn === null))
      return refuse(
        `“${ink !== '' && colour === null ? ink : style}” is no colour (as in #0F6E6E) or style (solid, dashed, scale).`,
      );
    const looks = { ...(colour !== null && { colour }), ...(drawn !== null && { style: drawn }) };
    if (kind === 'stations') return found.stations.push({ name, at: at[0]!, ...looks });
    const [from, to] = [at[0]!, at[1]!];
    if (kind === 'zones') return found.zones.push({ name, from, to, ...looks });
    const [first, last] = days.map((c) => dayOf(r[c] ?? ''));
    if (typeof first !== 'number' || typeof last !== 'number')
      return refuse('Its first or its last day cannot be read.');
    if (last < first) return refuse('Its last day lies before its first.');
    return found.windows.push({ name, from, to, start: startOfDay(first), finish: endOfDay(last) });
  });
  return found;
}

/** A day that has one meaning: `2026-04-01`, `1.4.2026`. Null for others. */
function dayOf(text: string): number | null {
  const iso = parseIsoDate(text);
  if (iso !== null) return iso;
  const m = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text);
  return m ? parseIsoDate(`${m[3]}-${m[2]!.padStart(2, '0')}-${m[1]!.padStart(2, '0')}`) : null;
}

/** A colour in six digits, with or without its sign. */
const colourOf = (text: string): string | null => {
  const m = /^#([0-9a-f]{6})$/i.exec(text);
  return m ? `#${m[1]!.toUpperCase()}` : null;
};

const STYLES: [RegExp, PlaceStyle][] = [
  [/^(solid|full|line)$/i, 'solid'],
  [/^(dashed|dash|dotted)$/i, 'dashed'],
  [/^(scale|only at the scale|axis)$/i, 'scale'],
];
const styleOf = (text: string): PlaceStyle | null => STYLES.find(([test]) => test.test(text))?.[1] ?? null;
