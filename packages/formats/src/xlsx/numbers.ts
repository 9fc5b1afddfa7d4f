import type { NumberFormat } from './styles';

/** Days from 1899-12-30 to 1970-01-01, and between the two epochs of workbooks. */
const EPOCH = 25_569;
const SINCE_1904 = 1462;
const DAY = 86_400_000;

/**
 * A number of a workbook as its reader sees it: dates as ISO text, percent with its sign, as many decimals as the
 * format shows, as far as nothing of the value is lost by it.
 */
export function numberText(raw: string, format: NumberFormat, from1904: boolean): string {
  const value = Number(raw);
  if (raw === '' || !Number.isFinite(value)) return raw;
  switch (format.as) {
    case 'date':
      return dateText(value, from1904);
    case 'time':
      return value >= 0 && value < 1 ? clock(Math.round(value * 1440)) : dateText(value, from1904);
    case 'elapsed':
      return `${plain(value * 24)} h`;
    case 'percent':
      return `${exact(value * 100, format.digits)}%`;
    case 'fixed':
      return exact(value, format.digits);
    default:
      return plain(value);
  }
}

/** Fifteen digits are what a workbook means; what lies beyond is left over from computing. */
const plain = (value: number): string => String(Number(value.toPrecision(15)));

function exact(value: number, digits: number): string {
  const shown = value.toFixed(Math.min(digits, 20));
  return Number(shown) === Number(plain(value)) ? shown : plain(value);
}

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

function dateText(serial: number, from1904: boolean): string {
  // The first epoch counts a 29th of February 1900, which never was.
  const days = from1904 ? serial + SINCE_1904 : serial < 60 ? serial + 1 : serial;
  const time = Math.round((days - EPOCH) * 1440) * 60_000;
  // A number that is formatted as a date, and none: it is listed as not read, whatever it was.
  if (serial < 0 || Math.abs(time) > 4e5 * DAY) return 'not a date in the workbook';
  const text = new Date(time).toISOString();
  return text.slice(11, 16) === '00:00' ? text.slice(0, 10) : text.slice(0, 16);
}
