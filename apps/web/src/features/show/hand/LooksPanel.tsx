'use client';
import type { Look } from '@clembo/scene/brief';
import { CATEGORIES, INK } from '@clembo/scene/ink';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { ShapeGlyph } from '@/ui/ShapeGlyph';
import type { Handles } from '@clembo/scene';
import type { Hand, Looks } from './useHand';

const SHAPES = ['diamond', 'circle', 'square', 'triangle', 'flag', 'star'] as const;
const SIDES = [
  ['right', 'right'],
  ['left', 'left'],
  ['above', 'above'],
  ['inside', 'inside'],
] as const;

interface Props {
  hand: Hand;
  handles: Handles | null;
  refs: string[];
  /** The name of the thing, where there is one. */
  name: string | null;
  /** Whether any of them is a point in time. */
  points: boolean;
  copied: Looks | null;
  onCopy: (looks: Looks) => void;
}

/** How what is chosen looks other than the brief has it. */
export function LooksPanel({ hand, handles, refs, name, points, copied, onCopy }: Props) {
  const looks = refs.map((ref) => hand.looks.find((l) => l.ref === ref) ?? { ref });
  const [first] = looks as [Look];
  const shared = <K extends keyof Look>(part: K): Look[K] | undefined =>
    looks.every((l) => (l as Look)[part] === first[part]) ? first[part] : undefined;
  const set = (change: Partial<Omit<Look, 'ref'>>) => hand.look(refs, change);
  const any = looks.some((l) => Object.keys(l).length > 1);
  const colour = shared('colour');
  const nudge = (dx: number, dy: number) => {
    const row = handles?.items.find((i) => i.ref === first.ref);
    if (!row || !handles) return;
    const at = first.at ?? { end: 'finish' as const, x: 0.5, y: 0.3 };
    set({ at: { ...at, x: at.x + dx, y: at.y + dy } });
  };
  return (
    <section aria-label="Looks" className="mt-5 border-t border-line pt-3">
      <h3 className="font-semibold">Looks on this page</h3>
      <Line title="Colour">
        <div className="flex flex-wrap items-center gap-1.5">
          {CATEGORIES.map((c, k) => (
            <button
              key={c}
              type="button"
              aria-label={`Colour ${k + 1}`}
              aria-pressed={colour?.toUpperCase() === c}
              className={`size-5 rounded-full border-2 ${colour?.toUpperCase() === c ? 'border-marigold' : 'border-transparent'}`}
              style={{ background: c }}
              onClick={() => set({ colour: c })}
            />
          ))}
          <input
            type="color"
            aria-label="Another colour"
            value={colour ?? INK}
            onChange={(e) => set({ colour: e.target.value.toUpperCase() })}
            className="h-5 w-7 rounded border border-line"
          />
        </div>
      </Line>
      {points && (
        <Line title="Shape">
          <div className="flex gap-1">
            {SHAPES.map((s) => (
              <button
                key={s}
                type="button"
                aria-label={s}
                aria-pressed={shared('shape') === s}
                className={`rounded border p-0.5 ${shared('shape') === s ? 'border-marigold bg-marigold/15' : 'border-transparent hover:border-line'}`}
                onClick={() => set({ shape: shared('shape') === s ? undefined : s })}
              >
                <ShapeGlyph shape={s} colour={colour ?? INK} />
              </button>
            ))}
          </div>
        </Line>
      )}
      {refs.length === 1 && (
        <Line title="Says">
          <Words key={first.ref} value={first.text} placeholder={name ?? ''} onChange={(text) => set({ text })} />
        </Line>
      )}
      <Line title="Label">
        <div className="flex flex-wrap gap-x-2.5 gap-y-1">
          {SIDES.map(([side, words]) => (
            <button
              key={side}
              type="button"
              aria-pressed={shared('side') === side}
              className={shared('side') === side ? 'font-semibold text-kelp' : 'text-soft hover:text-ink'}
              onClick={() => set({ side: shared('side') === side ? undefined : side, at: undefined })}
            >
              {words}
            </button>
          ))}
        </div>
      </Line>
      {refs.length === 1 && (
        <Line title="Moved">
          <div className="flex items-center gap-1">
            {(
              [
                ['left', ArrowLeft, -0.5, 0],
                ['right', ArrowRight, 0.5, 0],
                ['up', ArrowUp, 0, -0.5],
                ['down', ArrowDown, 0, 0.5],
              ] as const
            ).map(([way, Icon, dx, dy]) => (
              <button
                key={way}
                type="button"
                aria-label={`Label ${way}`}
                className="rounded border border-line bg-paper p-0.5 hover:border-soft"
                onClick={() => nudge(dx, dy)}
              >
                <Icon size={14} aria-hidden />
              </button>
            ))}
            {first.at && (
              <button type="button" className="ml-1.5 text-kelp underline" onClick={() => set({ at: undefined })}>
                put back
              </button>
            )}
          </div>
        </Line>
      )}
      <label className="mt-2.5 flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-kelp"
          checked={shared('strong') === true}
          onChange={(e) => set({ strong: e.target.checked || undefined })}
        />
        Pointed out
      </label>
      <div className="mt-3 flex flex-wrap gap-2">
        {refs.length === 1 && (
          <button
            type="button"
            className="quiet py-0.5"
            disabled={!any}
            onClick={() => {
              const { colour: c, shape, side, strong } = first;
              onCopy({ colour: c, shape, side, strong });
            }}
          >
            Copy looks
          </button>
        )}
        {copied && (
          <button type="button" className="quiet py-0.5" onClick={() => set(copied)}>
            Paste looks
          </button>
        )}
        {any && (
          <button type="button" className="quiet py-0.5" onClick={() => hand.clearLooks(refs)}>
            As the brief has it
          </button>
        )}
      </div>
    </section>
  );
}

export function Line({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mt-2.5 grid grid-cols-[58px_1fr] items-start gap-2">
      <span className="text-soft">{title}</span>
      <div>{children}</div>
    </div>
  );
}

/** What a thing says in place of its name: nothing typed is its name, nothing at all is said by the button. */
function Words({
  value,
  placeholder,
  onChange,
}: {
  value: string | undefined;
  placeholder: string;
  onChange: (text: string | undefined) => void;
}) {
  const [text, setText] = useState(value ?? '');
  useEffect(() => setText(value ?? ''), [value]);
  const keep = () => {
    const wanted = text.trim() === '' ? (value === '' ? '' : undefined) : text.trim();
    if (wanted !== value) onChange(wanted);
  };
  return (
    <>
      <input
        aria-label="Words of the label"
        className="w-full rounded border border-line bg-paper px-1.5 py-0.5"
        value={text}
        placeholder={value === '' ? 'no label' : placeholder}
        maxLength={200}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-kelp"
          checked={value === ''}
          onChange={(e) => onChange(e.target.checked ? '' : undefined)}
        />
        no label
      </label>
    </>
  );
}
