/** Millimetres of paper for one unit of a line, or for one day. */

/** A scale as it stands in a sentence. */
export const SCALE = /^(?:1\s*:\s*\d+(?:,\d{3})*|\d+(?:\.\d+)?\s*mm (?:an?|per) [a-z]+)/i;

/** Metres of the units in which lines are measured; null for what is no length. */
const METRES: Record<string, number> = {
  m: 1,
  metre: 1,
  metres: 1,
  meter: 1,
  meters: 1,
  chainage: 1,
  station: 1,
  stationing: 1,
  km: 1000,
  mile: 1609.344,
  miles: 1609.344,
  mi: 1609.344,
  ft: 0.3048,
  foot: 0.3048,
  feet: 0.3048,
  yd: 0.9144,
  yards: 0.9144,
};

const metresOf = (unit: string): number | null => METRES[unit.trim().toLowerCase()] ?? null;

const plain = (n: number): string => String(Number(n.toPrecision(6)));
const grouped = (n: number): string => plain(n).replace(/\B(?=(\d{3})+$)/g, ',');

/** A scale of places, given in millimetres a unit: `1 : 5,000`, or `12 mm a floor` where units are no lengths. */
export function placeScaleWords(mm: number, unit: string): string {
  const metres = metresOf(unit);
  return metres === null ? `${plain(mm)} mm a ${singular(unit)}` : `1 : ${grouped(Math.round((metres * 1000) / mm))}`;
}

const singular = (unit: string): string => unit.trim().replace(/s$/i, '') || 'unit';

/** Reads a scale of places: `1 : 5,000`, `1:5000`, `20 mm a km`, `12 mm a floor`. Millimetres a unit; null for none. */
export function readPlaceScale(text: string, unit: string): number | null {
  const metres = metresOf(unit);
  const ratio = /^1\s*:\s*(\d[\d,.  ]*)$/.exec(text.trim());
  if (ratio) {
    const by = Number(ratio[1]!.replace(/[,.  ]/g, ''));
    return metres === null || !(by >= 1) ? null : inReach((metres * 1000) / by);
  }
  const amount = /^(\d+(?:[.,]\d+)?)\s*mm\s+(?:a|an|per|\/)\s*(.+)$/i.exec(text.trim());
  if (!amount) return null;
  const mm = Number(amount[1]!.replace(',', '.'));
  const per = amount[2]!.trim();
  const other = metresOf(per);
  if (metres !== null && other !== null) return inReach((mm * metres) / other);
  return singular(per).toLowerCase() === singular(unit).toLowerCase() ? inReach(mm) : null;
}

/** Days of the periods that a scale of time may name; months and years are those of the calendar on the average. */
const DAYS = { day: 1, week: 7, month: 365.25 / 12, quarter: 365.25 / 4, year: 365.25 } as const;

/** A scale of time, given in millimetres a day: `12 mm a month`. */
export function timeScaleWords(mm: number): string {
  const [period] = Object.entries(DAYS).filter(([name, days]) => name !== 'quarter' && isPlain(mm * days));
  const [name, days] = period ?? ['month', DAYS.month];
  return `${plain(Math.round(mm * days * 1000) / 1000)} mm a ${name}`;
}

const isPlain = (n: number): boolean => n >= 0.5 && Math.abs(n * 10 - Math.round(n * 10)) < 1e-6;

/** Reads a scale of time: `12 mm a month`, `5 mm per week`. Millimetres a day; null for none. */
export function readTimeScale(text: string): number | null {
  const amount = /^(\d+(?:[.,]\d+)?)\s*mm\s+(?:a|an|per|\/)\s*(day|week|month|quarter|year)s?$/i.exec(text.trim());
  if (!amount) return null;
  return inReach(Number(amount[1]!.replace(',', '.')) / DAYS[amount[2]!.toLowerCase() as keyof typeof DAYS]);
}

const inReach = (mm: number): number | null => (mm > 1e-7 && mm < 10_000 ? mm : null);
