'use client';
import type { ReactNode } from 'react';
import { PanelHead } from '@/ui/PanelHead';
import type { Facts } from '@/workers/answers/facts';
import type { ComposedPage } from '@/workers/composing';
import { Margin } from '../Margin';
import { type Chosen, sameLane, thing } from './chosen';
import { LanePanel } from './LanePanel';
import { LooksPanel } from './LooksPanel';
import { NotePanel } from './NotePanel';
import type { Hand, Looks } from './useHand';

interface Props {
  planId: string;
  page: ComposedPage | null;
  hand: Hand | null;
  chosen: Chosen;
  /** Of the one thing that is chosen. */
  facts: Facts | null;
  nameOf: (ref: string) => string;
  copied: Looks | null;
  onCopy: (looks: Looks) => void;
  onChoose: (chosen: Chosen) => void;
  /** What else can be done to the one thing that is chosen. */
  children?: ReactNode;
}

const isPoint = (kind: string): boolean => kind.endsWith('Milestone');

/** The margin of a page: the facts and the looks of what is chosen on it. */
export function HandMargin({ planId, page, hand, chosen, facts, nameOf, copied, onCopy, onChoose, children }: Props) {
  const close = () => onChoose(null);
  const handles = page?.handles ?? null;
  switch (chosen?.kind) {
    case 'note': {
      const note = hand?.marks.find((m) => m.id === chosen.id);
      return hand && note ? <NotePanel hand={hand} note={note} nameOf={nameOf} onClose={close} /> : null;
    }
    case 'lane': {
      const lane = handles?.lanes.find((l) => sameLane(l.codes, chosen.codes));
      return hand && handles && lane ? <LanePanel hand={hand} handles={handles} lane={lane} onClose={close} /> : null;
    }
    case 'things': {
      const { refs } = chosen;
      const looks = hand?.setsThings && handles && (
        <LooksPanel
          hand={hand}
          handles={handles}
          refs={refs}
          name={facts?.name ?? null}
          points={refs.length > 1 || (facts !== null && isPoint(facts.kind))}
          copied={copied}
          onCopy={onCopy}
        />
      );
      if (refs.length === 1)
        return facts ? (
          <Margin facts={facts} planId={planId} onChoose={(ref) => onChoose(thing(ref))} onClose={close}>
            {looks}
            {children}
          </Margin>
        ) : null;
      return (
        <aside aria-label="Margin" className="w-[270px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
          <PanelHead title={`${refs.length} things`} close="Close the margin" onClose={close} />
          <ul className="mt-2 max-h-40 overflow-auto text-soft">
            {refs.map((ref) => (
              <li key={ref} className="truncate">
                {nameOf(ref)}
              </li>
            ))}
          </ul>
          {looks}
        </aside>
      );
    }
    default:
      return null;
  }
}
