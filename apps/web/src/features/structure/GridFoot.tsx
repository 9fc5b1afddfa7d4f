'use client';

/** What can be done with the rows that are chosen, and what would come of what is being done. */
export function GridFoot({
  acts,
  chosen,
  words,
  bad,
  onLeave,
}: {
  acts: [name: string, about: string, run: () => void, can: boolean][];
  chosen: string;
  words: string;
  bad: boolean;
  onLeave: (() => void) | null;
}) {
  return (
    <div className="flex h-9 shrink-0 items-center gap-1 border-t border-line bg-desk px-4 text-[14px]">
      {acts.map(([name, about, run, can]) => (
        <button
          key={name}
          type="button"
          title={about}
          disabled={!can}
          // The choice stays where it is.
          onPointerDown={(e) => e.preventDefault()}
          onClick={run}
          className="rounded px-2 py-0.5 whitespace-nowrap hover:bg-line disabled:opacity-40"
        >
          {name}
        </button>
      ))}
      <span className="ml-2 whitespace-nowrap text-soft">{chosen}</span>
      <span
        role="status"
        data-testid="consequences"
        className={`ml-auto min-w-0 truncate ${bad ? 'text-madder' : ''}`}
        title={words}
      >
        {words}
      </span>
      {onLeave && (
        <button type="button" className="ml-2 shrink-0 text-kelp hover:underline" onClick={onLeave}>
          Leave them as they were
        </button>
      )}
    </div>
  );
}
