/** How amounts of a plan are written; given to whoever composes, since it depends on a locale. */
export interface AmountWords {
  /** Money from hundredths: `£412,000`, `£7.1 M`. */
  money(hundredths: number): string;
  /** Effort from minutes: `26,300 h`, or `3,288 person-days`. */
  effort(minutes: number): string;
  /** Money or effort. */
  amount(value: number, of: 'cost' | 'effort'): string;
  /** The same as a plain number of units, hours or person-days. */
  size(value: number, of: 'cost' | 'effort'): number;
  /** What the plain number is in: `£`, `h`, `person-days`; an empty text for costs without a currency. */
  unit(of: 'cost' | 'effort'): string;
  number(value: number): string;
}
