import type { LedgerRow } from '@/workers/plan.worker';

/** The row's time as a small bar over the range of the plan; progress is the denser band along its lower edge. */
export function TimeStrip({
  row,
  range,
  statusDay,
}: {
  row: LedgerRow;
  range: [number, number] | null;
  statusDay: number | null;
}) {
  if (!range || row.start === null || row.finish === null) return <span role="cell" />;
  const length = range[1] + 1 - range[0];
  const at = (day: number) => `${(100 * (day - range[0])) / length}%`;
  const width = `${(100 * (row.finish + 1 - row.start)) / length}%`;
  const point = row.kind.endsWith('Milestone');
  return (
    <span role="cell" aria-hidden className="relative block h-full">
      {statusDay !== null && statusDay >= range[0] && statusDay <= range[1] && (
        <span className="absolute inset-y-0 w-px bg-kelp/50" style={{ left: at(statusDay) }} />
      )}
      {point ? (
        <span
          className={`absolute top-[10px] size-[9px] -translate-x-1/2 rotate-45 border border-kelp ${row.percent === 100 ? 'bg-kelp' : 'bg-paper'}`}
          style={{ left: at(row.start + 0.5) }}
        />
      ) : row.summary ? (
        <span className="absolute top-[14px] h-[2px] rounded bg-soft" style={{ left: at(row.start), width }} />
      ) : (
        <span
          className="absolute top-[10px] h-[10px] min-w-[2px] overflow-hidden rounded-[3px] bg-kelp/30"
          style={{ left: at(row.start), width }}
        >
          <span className="absolute bottom-0 left-0 h-[5px] bg-kelp" style={{ width: `${row.percent}%` }} />
          {row.critical && <span className="absolute inset-x-0 top-0 h-[2px] bg-ink" />}
        </span>
      )}
    </span>
  );
}
