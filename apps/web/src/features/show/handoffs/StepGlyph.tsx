import type { StepKind } from '@clembo/scene/brief';

const PATHS: Record<StepKind, string> = {
  step: 'M1 1H21V13H1Z',
  start: 'M7 1H15A6 6 0 0 1 15 13H7A6 6 0 0 1 7 1Z',
  end: 'M7 1H15A6 6 0 0 1 15 13H7A6 6 0 0 1 7 1Z',
  decision: 'M11 0.5L21.5 7L11 13.5L0.5 7Z',
  document: 'M1 1H21V11.5C14 8 8 15 1 11.5Z',
  waiting: 'M1 1H15A6 6 0 0 1 15 13H1Z',
};

/** The symbol of a kind of step, as the page draws it. An end is filled. */
export function StepGlyph({ kind }: { kind: StepKind }) {
  return (
    <svg aria-hidden viewBox="0 0 22 14" width={22} height={14} className="stroke-ink" strokeWidth={1.1}>
      <path d={PATHS[kind]} className={kind === 'end' ? 'fill-ink/30' : 'fill-none'} />
    </svg>
  );
}
