/** A lane by the codes on the way to it, as one text. */
export const laneKey = (codes: readonly string[]): string => codes.join('\u0000');
