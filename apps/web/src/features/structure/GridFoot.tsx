'use client';

/** Something that can be done with the rows: its name, what it is, what runs, whether it can now, and whether it only looks. */
export type Act = [name: string, about: string, run: () => void, can: boolean, looks?: true];

interface Props {
  acts: Act[];
  chosen: string;
  /** Whether what follows goes along; null where it does so by itself. */
  follow: boolean | null;
  onFollow: (follow: boolean) => void;
  words: string;
  bad: boolean;
  /** What can be answered to the words. */
  ways: [name: string, run: () => void][];
}

/** What can be done with the rows that are chosen, and what would come of what is being done. */
export function GridFoot({ acts, chosen, follow, onFollow, words, bad, ways }: Props) {
  return (
    <div className="flex h-9 shrink-0 items-center gap-0.5 border-t border-line bg-desk px-4 text-[14px]">
      {words === '' &&
        acts.map(([name, about, run, can]) => (
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
      <span
        role="status"
        data-testid="consequences"
        className={`min-w-0 truncate ${bad ? 'text-madder' : ''}`}
        title={words}
      >
        {words}
      </span>
      {ways.map(([name, run]) => (
        <button
          key={name}
          type="button"
          className="ml-2 shrink-0 font-semibold text-kelp hover:underline"
          onPointerDown={(e) => e.preventDefault()}
          onClick={run}
        >
          {name}
        </button>
      ))}
      <span className="ml-auto pl-3 whitespace-nowrap text-soft">{chosen}</span>
      {follow !== null && (
        <label
          className="ml-3 flex shrink-0 items-center gap-1.5 whitespace-nowrap text-soft"
          title="What comes after goes later with what is moved, as far as the links ask"
        >
          <input type="checkbox" checked={follow} onChange={(e) => onFollow(e.target.checked)} />
          what follows goes along
        </label>
      )}
    </div>
  );
}
