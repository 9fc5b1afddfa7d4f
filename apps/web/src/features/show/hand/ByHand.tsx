'use client';
import type { CardHandles, Handles } from '@clembo/scene';
import { type Anchor, heldBy } from '@clembo/scene/brief';
import { type Chosen, thing } from './chosen';
import { type HandEntry, HandList } from './HandList';
import type { Hand } from './useHand';

/** What is set by hand on a page. */
export function ByHand({
  hand,
  handles,
  cards,
  nameOf,
  onChoose,
}: {
  hand: Hand;
  handles: Handles | null;
  cards: CardHandles | null;
  nameOf: (ref: string) => string;
  onChoose: (chosen: Chosen) => void;
}) {
  const { looks, marks, folded, placed } = hand;
  const cardsAway = new Set(cards?.unplaced ?? []);
  const unplaced = handles?.unplaced ?? [];
  const away = (ref: string, note: string | null) => {
    const u = unplaced.find((x) => x.note === note && (note !== null || x.ref === ref));
    return u ? (u.gone ? 'its activity is gone' : 'not on this page') : '';
  };
  const entries: HandEntry[] = [
    ...looks.map(
      ({ ref, ...parts }): HandEntry => ({
        key: `look ${ref}`,
        name: nameOf(ref),
        words:
          away(ref, null) ||
          Object.keys(parts)
            .map((p) => PARTS[p] ?? p)
            .join(', '),
        onLook: () => onChoose(thing(ref)),
        onClear: () => hand.clearLooks([ref]),
      }),
    ),
    ...marks.map(
      (m): HandEntry => ({
        key: `note ${m.id}`,
        name: m.kind === 'text' ? `“${m.text}”` : (NOTES[m.kind] ?? ''),
        words: away('', m.id) || holderName(m.anchor, nameOf),
        onLook: () => onChoose({ kind: 'note', id: m.id }),
        onClear: () => hand.removeNote(m.id),
      }),
    ),
    ...placed.map(
      ({ ref }): HandEntry => ({
        key: `card ${ref}`,
        name: nameOf(ref),
        words: cardsAway.has(ref) ? 'not on this page' : 'its place',
        onLook: () => onChoose(thing(ref)),
        onClear: () => hand.unplace(ref),
      }),
    ),
    ...folded.map(
      (codes): HandEntry => ({
        key: `lane ${codes.join('/')}`,
        name: codes.at(-1)!,
        words: 'one row',
        onLook: () => onChoose({ kind: 'lane', codes }),
        onClear: () => hand.fold(codes, false),
      }),
    ),
  ];
  return <HandList entries={entries} lost={unplaced.filter((u) => u.gone).length} onClearAll={hand.clearAll} />;
}

/** What holds a note. */
function holderName(anchor: Anchor, nameOf: (ref: string) => string): string {
  const ref = heldBy(anchor);
  return ref === null ? 'a place on the line' : nameOf(ref);
}

const PARTS: Record<string, string> = {
  colour: 'colour',
  shape: 'shape',
  text: 'words',
  side: 'label',
  at: 'label moved',
  strong: 'pointed out',
};
const NOTES: Record<string, string> = { arrow: 'An arrow', box: 'A frame', picture: 'A picture' };
