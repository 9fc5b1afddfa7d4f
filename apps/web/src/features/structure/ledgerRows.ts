import type { LedgerRow } from '@/workers/plan.worker';

/** References of the groups that a row lies in. */
export function groupsAround(rows: LedgerRow[], ref: string): string[] {
  const groups: string[] = [];
  for (let at = rows.find((r) => r.ref === ref)?.parent ?? -1; at !== -1; at = rows[at]!.parent)
    groups.push(rows[at]!.ref);
  return groups;
}

/** Rows that no closed summary hides. */
export function visibleRows(rows: LedgerRow[], closed: ReadonlySet<string>): LedgerRow[] {
  if (closed.size === 0) return rows;
  const hidden = new Array<boolean>(rows.length).fill(false);
  return rows.filter((row, k) => {
    const parent = row.parent;
    hidden[k] = parent !== -1 && (hidden[parent]! || closed.has(rows[parent]!.ref));
    return !hidden[k];
  });
}

/** First and last day of all rows; null where none has dates. */
export function dateRange(rows: LedgerRow[]): [number, number] | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const r of rows) {
    if (r.start !== null && r.start < first) first = r.start;
    if (r.finish !== null && r.finish > last) last = r.finish;
  }
  return first > last ? null : [first, last];
}
