/** Places are kept in thousandths of the unit of their line. */
export const PLACE_UNIT = 1000;

/** Names of units that are written as chainage: whole kilometres, a plus, metres. The numbers are metres. */
const CHAINAGE = /^(chainage|station|stationing)$/i;

export const isChainage = (unit: string): boolean => CHAINAGE.test(unit.trim());

/** Floors are counted upwards, and whole. */
export const isFloors = (unit: string): boolean => /^(floors?|storeys?|levels?)$/i.test(unit.trim());

/** A place as its line writes it: `12+350`, `0−100` below zero, `1,200`; without the unit, which the axis says once. */
export function placeWords(thousandths: number, unit: string): string {
  const value = thousandths / PLACE_UNIT;
  if (isChainage(unit)) {
    const whole = Math.abs(value);
    const km = Math.floor(whole / 1000 + 1e-9);
    const metres = Math.round((whole - km * 1000) * 1000) / 1000;
    const [head, tail] = String(metres).split('.');
    return `${km}${value < 0 ? '−' : '+'}${head!.padStart(3, '0')}${tail ? `.${tail}` : ''}`;
  }
  const [head, tail] = String(Math.abs(Math.round(value * 1000) / 1000)).split('.');
  const grouped = head!.length > 4 ? head!.replace(/\B(?=(\d{3})+$)/g, ',') : head!;
  return `${value < 0 ? '−' : ''}${grouped}${tail ? `.${tail}` : ''}`;
}

/** A place in the unit of a line, in words with that unit: `532 m`, `floor 3`, `1+050`. */
export const placeOn = (line: { unit: string } | null, place: number): string => {
  const unit = line?.unit ?? '';
  const words = placeWords(Math.round(place * PLACE_UNIT), unit);
  return unit === '' || isChainage(unit) ? words : isFloors(unit) ? `floor ${words}` : `${words} ${unit}`;
};

/**
 * A place that was worked out, in the unit of its line: to a thousandth of the line, by powers of ten, since what was
 * worked out from rates is not known more finely.
 *
 * @param place in the unit of the line
 */
export function workedOutPlace(line: { from: number; to: number } | null, place: number): number {
  const length = line === null ? 0 : Math.abs(line.to - line.from) / PLACE_UNIT;
  const step = length > 0 ? 10 ** Math.floor(Math.log10(length / 1000)) : 1 / PLACE_UNIT;
  return Math.round(Math.round(place / step) * step * PLACE_UNIT) / PLACE_UNIT;
}

/** Whether a text can only be a place in chainage: `12+350`, `km 3+040.5`, `-0+250`. */
export const isChainageText = (text: string): boolean =>
  /^(?:km\s*|ch\.?\s*)?[-−–]?\d+\s*\+\s*\d{1,4}(?:[.,]\d+)?$/i.test(text.trim());

/**
 * Reads a place: `12+350`, `12 + 350.5`, `0-100` and `-0+100` (a hundred metres before zero), `1,200`, `−40`, with the
 * unit or without it. Thousandths; null for what is none.
 */
export function readPlace(text: string, unit: string): number | null {
  const plain = text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/\s*(m|km|mi|miles?|metres?|meters?|floors?)$/i, '');
  const chain = /^(?:km\s*|ch\.?\s*)?(-?)(\d+)\s*([+-])\s*(\d{1,4}(?:[.,]\d+)?)$/i.exec(plain);
  const [, minus, kilometres, sign, behind] = chain ?? [];
  if (chain && (sign === '+' || (isChainage(unit) && minus === ''))) {
    const value = Number(kilometres) * 1000 + Number(behind!.replace(',', '.'));
    return Math.round((sign === '-' || minus === '-' ? -value : value) * PLACE_UNIT);
  }
  const number = /^-?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(plain) ? plain.replace(/,/g, '') : plain.replace(',', '.');
  return /^-?\d+(?:\.\d+)?$/.test(number) ? Math.round(Number(number) * PLACE_UNIT) : null;
}
