import { type ColumnMap, columnLetters } from '@clembo/formats/columns';

/** What a column is called on screen. */
export const columnTitle = ({ map }: { map: ColumnMap }, column: number): string => {
  const own = map.columns.length - map.derived.length;
  if (column < own) return map.headings[column] || `Column ${columnLetters(column)}`;
  const { from, take } = map.derived[column - own]!;
  const source = map.headings[from] || `Column ${columnLetters(from)}`;
  switch (take.kind) {
    case 'first':
      return `${source}, first ${take.count}`;
    case 'part':
      return `${source}, part ${take.part}`;
    case 'between':
      return `${source}, between ${take.after} ${take.before}`;
    case 'join':
      return `${source} and ${map.headings[take.other] || columnLetters(take.other)}`;
  }
};
