/** No table that is taken in has more. */
const MOST_COLUMNS = 300;

/**
 * The first table of an HTML text from the clipboard, as text that a table is read from: columns by tabs, cells with
 * line breaks in quotation marks. Null where there is none.
 */
export function tableFromHtml(html: string): string | null {
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  if (!table) return null;
  const rows: string[][] = [];
  [...table.rows].forEach((row, r) => {
    rows[r] ??= [];
    const line = rows[r];
    let c = 0;
    for (const cell of row.cells) {
      while (line[c] !== undefined) c++;
      const text = cellText(cell);
      // What a joined cell says stands in all its rows, and in the first of its columns.
      for (let down = 0; down < Math.min(cell.rowSpan || 1, table.rows.length - r); down++)
        for (let across = 0; across < cell.colSpan && c + across < MOST_COLUMNS; across++) {
          rows[r + down] ??= [];
          rows[r + down]![c + across] = across === 0 ? text : '';
        }
      c += cell.colSpan;
    }
  });
  const lines = rows.map((row) => Array.from(row, (text) => quoted(text ?? '')).join('\t'));
  return lines.length < 2 ? null : lines.join('\n');
}

function cellText(cell: HTMLTableCellElement): string {
  for (const br of cell.querySelectorAll('br')) br.replaceWith('\n');
  const text = (cell.textContent ?? '').replace(/[ \t\r\f]*\n[ \t\r\f]*/g, '\n').replace(/[ \t]+/g, ' ');
  const bare = text.replace(/^[ \n]+|[ \n]+$/g, '');
  // Blanks that do not break set a name in.
  return bare.replace(/\u00a0/g, ' ').trimEnd();
}

const quoted = (text: string): string => (/[\t\n"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
