'use client';
import { formatDay } from '@clembo/scene/dates';
import type { Note } from '@clembo/scene/brief';
import { CATEGORIES, INK } from '@clembo/scene/ink';
import { useEffect, useState } from 'react';
import { PanelHead } from '@/ui/PanelHead';
import { Line } from './LooksPanel';
import type { Hand } from './useHand';

const TITLES = { text: 'Note', arrow: 'Arrow', box: 'Frame', picture: 'Picture' } as const;

/** What a person has put onto the page: its words, its colour, what it is held by. */
export function NotePanel({
  hand,
  note,
  nameOf,
  onClose,
}: {
  hand: Hand;
  note: Note;
  nameOf: (ref: string) => string;
  onClose: () => void;
}) {
  const change = (part: Partial<Note>) => hand.changeNote(note.id, part);
  const { anchor } = note;
  const { at } = anchor;
  return (
    <aside aria-label="Margin" className="w-[270px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <PanelHead title={TITLES[note.kind]} close="Close the margin" onClose={onClose} />
      {note.kind === 'text' && <NoteText key={note.id} text={note.text} onChange={(text) => change({ text })} />}
      {note.kind === 'picture' && (
        <Line title="Says">
          <input
            aria-label="Words for who does not see the picture"
            className="w-full rounded border border-line bg-paper px-1.5 py-0.5"
            defaultValue={note.alt}
            placeholder="what it shows"
            maxLength={200}
            onBlur={(e) => e.target.value !== note.alt && change({ alt: e.target.value })}
          />
        </Line>
      )}
      {(note.kind === 'text' || note.kind === 'picture') && (
        <Line title="Width">
          <input
            type="range"
            aria-label="Width"
            min={note.kind === 'text' ? 6 : 2}
            max={note.kind === 'text' ? 40 : 60}
            value={note.width}
            onChange={(e) => change({ width: Number(e.target.value) })}
            className="w-full accent-kelp"
          />
        </Line>
      )}
      {note.kind !== 'picture' && (
        <Line title="Colour">
          <div className="flex flex-wrap gap-1.5">
            {[INK, ...CATEGORIES].map((c) => (
              <button
                key={c}
                type="button"
                aria-label={`Colour ${c}`}
                aria-pressed={(note.colour ?? '') === c}
                className={`size-5 rounded-full border-2 ${note.colour === c ? 'border-marigold' : 'border-transparent'}`}
                style={{ background: c }}
                onClick={() => change({ colour: c })}
              />
            ))}
          </div>
        </Line>
      )}
      {note.kind === 'text' && (
        <label className="mt-2.5 flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-kelp"
            checked={note.line}
            onChange={(e) => change({ line: e.target.checked })}
          />
          with a line to what it is about
        </label>
      )}
      <p className="mt-3 text-soft">
        Held by{' '}
        {'place' in anchor ? (
          <>
            a place on the line and <span className="text-ink">{formatDay(Math.floor(anchor.at / 1440), 'long')}</span>:
            it stays there whatever the page shows.
          </>
        ) : (
          <>
            {at === 'start' || at === 'finish'
              ? `the ${at} of `
              : `${formatDay(Math.floor(at / 1440), 'long')}, in the row of `}
            <span className="text-ink">{nameOf(anchor.ref)}</span>: it goes along when that moves.
          </>
        )}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {(
          [
            ['left', -1, 0],
            ['right', 1, 0],
            ['up', 0, -1],
            ['down', 0, 1],
          ] as const
        ).map(([way, dx, dy]) => (
          <button key={way} type="button" className="quiet py-0.5" onClick={() => hand.moveNote(note.id, dx, dy)}>
            {way}
          </button>
        ))}
        <button
          type="button"
          className="quiet py-0.5"
          onClick={() => {
            hand.removeNote(note.id);
            onClose();
          }}
        >
          Take it away
        </button>
      </div>
    </aside>
  );
}

function NoteText({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  useEffect(() => setTyped(text), [text]);
  const keep = () => {
    if (typed.trim() === '') setTyped(text);
    else if (typed.trim() !== text) onChange(typed.trim());
  };
  return (
    <textarea
      autoFocus
      aria-label="Words of the note"
      className="mt-3 w-full rounded border border-line bg-paper px-2 py-1"
      rows={4}
      maxLength={500}
      value={typed}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) keep();
      }}
    />
  );
}
