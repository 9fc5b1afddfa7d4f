import Holidays from 'date-holidays';

/** A country, or a part of one, whose public holidays are known. */
export interface HolidayRegion {
  /** ISO 3166 code: `GB`, `DE-BE`. */
  code: string;
  name: string;
}

/** All countries whose holidays are known, and their parts behind them, in the order of their names. */
export function holidayRegions(): HolidayRegion[] {
  const known = new Holidays();
  return Object.entries(known.getCountries('en'))
    .sort(([, a], [, b]) => a.localeCompare(b, 'en'))
    .flatMap(([code, name]) => [
      { code, name },
      ...Object.entries(known.getStates(code, 'en') ?? {})
        .sort(([, a], [, b]) => a.localeCompare(b, 'en'))
        .map(([part, partName]) => ({ code: `${code}-${part}`, name: `${name}, ${partName}` })),
    ]);
}
