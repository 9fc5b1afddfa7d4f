'use client';
import type { Command } from '@clembo/core';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { isTyping } from '@/ui/keys';
import { wrong } from '@/ui/Toasts';
import type { Consequences } from '@/workers/answers/consequences';
import type { OpenRoom } from '@/workers/planRoom';
import type { Wanted } from '@/workers/planWrites';

/** A change that is understood before it is made. */
export interface Proposal {
  wanted: Wanted;
  words: string;
  would: Consequences;
}

/** Changes that stand with their consequences until they are kept or left. */
export function useProposal(
  open: OpenRoom,
  inSight: RefObject<string[]>,
  change: (wanted: Wanted, words?: string) => Promise<boolean>,
) {
  const [proposal, setProposal] = useState<Proposal | null>(null);
  const propose = async (wanted: Wanted, words: string) => {
    try {
      const command: Command | null = typeof wanted === 'function' ? await wanted(open.room) : wanted;
      if (!command) return;
      setProposal({ wanted, words, would: await open.room.consequences(command, inSight.current) });
    } catch (error) {
      wrong(error);
    }
  };
  const keep = () => {
    if (!proposal) return;
    setProposal(null);
    void change(proposal.wanted, proposal.words);
  };
  const keys = useRef(keep);
  keys.current = keep;
  const stands = proposal !== null;
  useEffect(() => {
    if (!stands) return;
    const key = (e: KeyboardEvent) => {
      if (isTyping(e.target) || (e.key !== 'Enter' && e.key !== 'Escape')) return;
      e.preventDefault();
      e.stopPropagation();
      if (e.key === 'Enter') keys.current();
      else setProposal(null);
    };
    // Wherever the keys are: what is proposed is answered first.
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  }, [stands]);
  return { proposal, propose, keep, leave: () => setProposal(null) };
}
