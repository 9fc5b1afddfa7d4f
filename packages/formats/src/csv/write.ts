import Papa from 'papaparse';

/**
 * A table as delimited text (RFC 4180). Text that a spreadsheet would take for a formula is marked as text with an
 * apostrophe, and control characters, which a terminal would obey, are spaces.
 */
export const writeCsv = <C extends string>(
  columns: readonly C[],
  rows: readonly Record<C, string | number | boolean | null>[],
): string =>
  `${Papa.unparse(
    {
      fields: [...columns],
      data: rows.map((row) =>
        columns.map((c) => {
          const value = row[c];
          return typeof value === 'string' ? value.replace(/\p{Cc}+/gu, ' ') : value;
        }),
      ),
    },
    { newline: '\r\n', escapeFormulae: true },
  )}\r\n`;
