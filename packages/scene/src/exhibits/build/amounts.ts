import type { BuildBrief } from '../../brief/build';
import type { AmountWords } from '../../text/amounts';

const UNITS = { count: '', volume: ' m³', area: ' m²', length: ' m' };

/** What is built, in its unit: `214`, `1,240 m³`, `3.4 m³`. */
export function amountWords(value: number, measure: BuildBrief['measure'], amounts: AmountWords): string {
  const shown = measure === 'count' || value >= 100 ? Math.round(value) : Math.round(value * 10) / 10;
  return `${amounts.number(shown)}${UNITS[measure]}`;
}
