import type { IntakePreview } from '@clembo/formats/columns';

export const many = (n: number, one: string, others: string): string => `${n} ${n === 1 ? one : others}`;

/** What would come of the intake, in words. */
export function Outcome({ view }: { view: IntakePreview }) {
  const { counts, rowsRead, rowsTaken } = view;
  const some = (n: number, one: string, others: string) => (n === 0 ? null : many(n, one, others));
  const parts = [
    some(counts.activities, 'activity', 'activities'),
    some(counts.milestones, 'milestone', 'milestones'),
    some(counts.summaries, 'summary', 'summaries'),
    some(counts.links, 'link', 'links'),
    some(counts.baseline, 'baseline date', 'baseline dates'),
  ].filter((p) => p !== null);
  return (
    <>
      <span className="font-semibold">{parts.length > 0 ? parts.join(', ') : 'Nothing to take in yet'}</span>
      <span className="text-soft">
        from {rowsTaken} of {rowsRead} rows · {view.calendar}
      </span>
    </>
  );
}
