/** A number of things in words: `1 activity`, `12 activities`. */
export const countWords = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
