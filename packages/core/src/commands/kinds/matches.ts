import type { ElementMatch } from '../../build/element';
import type { Command } from '../command';
import { type Kind, type Of, theActivity, type Thing } from '../kind';

type Said = { match: ElementMatch };
const written = ({ match }: Said): Thing[] => match.elements.map((e) => ['match', e, match.activity, match.effect]);
const relied = ({ match }: Said): Thing[] => [theActivity(match.activity)];
/** A command for elements, of which there may be none. */
const forThese = (kind: 'matchElements' | 'unmatchElements', match: ElementMatch, elements: string[]): Command =>
  elements.length === 0 ? { do: 'all', commands: [] } : { do: kind, match: { ...match, elements } };

const things = (count: number): string => (count === 1 ? 'one element' : `${count} elements`);
const EFFECT_WORDS = { builds: 'built by', removes: 'removed by', stands: 'standing for' };

export const matchElements: Kind<Of<'matchElements'>> = {
  apply: (draft, { match }) => {
    draft.activities.get(match.activity);
    draft.touch(match.activity);
    return forThese('unmatchElements', match, draft.matches.add(match));
  },
  writes: written,
  relies: relied,
  words: ({ match }) => `Match ${things(match.elements.length)}, ${EFFECT_WORDS[match.effect]} ${match.activity}`,
};

export const unmatchElements: Kind<Of<'unmatchElements'>> = {
  apply: (draft, { match }) => {
    draft.touch(match.activity);
    return forThese('matchElements', match, draft.matches.remove(match));
  },
  writes: written,
  relies: relied,
  words: ({ match }) => `Take ${things(match.elements.length)} from ${match.activity}`,
};
