'use client';
import type { Command, Effect, MatchRule } from '@clembo/core';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { toast, wrong } from '@/ui/Toasts';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import { turnPlan } from '@/workers/planWrites';

const DONE: Record<Effect, readonly [one: string, many: string]> = {
  builds: ['is built by', 'are built by'],
  removes: ['is removed by', 'are removed by'],
  stands: ['stands for', 'stand for'],
};

/** So many of what was not understood are named; the others are counted. */
const NAMED = 5;

/** What can be done to the matches and codes of the elements; each says what it did and can be undone at once. */
export function useMatching(planId: string, open: OpenRoom, book: ModelBook, workName: (ref: string) => string) {
  const { busy, change } = usePlanChange(planId);
  const { room } = open;
  const done = (words: string) =>
    toast(words, { action: { label: 'Undo', run: () => void turnPlan(planId, true).catch(wrong) } });
  const refsOf = (elements: readonly number[]) => elements.map((e) => book.elements[e]!.ref);

  return {
    busy,
    put: (settings: Extract<Command, { do: 'setPlan' }>['settings'], words: string) =>
      change({ do: 'setPlan', settings }, words),

    /** True when they were matched. */
    match: async (ref: string, elements: readonly number[], effect: Effect): Promise<boolean> => {
      if (elements.length === 0) return false;
      if (!(await change({ do: 'matchElements', match: { activity: ref, effect, elements: refsOf(elements) } })))
        return false;
      const [one, many] = DONE[effect];
      done(`${elementsWords(elements.length)} ${elements.length === 1 ? one : many} ${workName(ref)}.`);
      return true;
    },

    unmatch: async (ref: string, elements: readonly number[], effect: Effect) => {
      if (await change({ do: 'unmatchElements', match: { activity: ref, effect, elements: refsOf(elements) } }))
        done(`Taken from ${workName(ref)}.`);
    },

    run: said(async (rules: MatchRule[], words: string) => {
      const command = await room.rulesCommand(rules);
      if (!command) return toast('Nothing new was found.');
      if (await change(command, words)) done(`${elementsWords(countOf(command))} matched.`);
    }),

    /** Matches as a model of tasks says it. */
    assign: said(async (modelId: string) => {
      const command = await room.assignedCommand(modelId);
      if (!command) return toast('The plan has none of the tasks that the model names.');
      if (await change(command, 'Match as the model says')) done(`${elementsWords(countOf(command))} matched.`);
    }),

    code: said(async (field: string, code: string, elements: readonly number[]) => {
      const { command, count } = await room.codedElements(field, code, [...elements]);
      if (command && (await change(command, `Code ${elementsWords(count)}`))) done(`${elementsWords(count)} coded.`);
    }),

    codeByField: said(async (field: string, from: string, characters: number | null) => {
      const { command, count } = await room.codesFromField(field, from, characters);
      if (!command) return toast('No element says anything there.');
      if (await change(command, `Code ${elementsWords(count)} by what they say`))
        done(`${elementsWords(count)} coded.`);
    }),

    codeByPaste: said(async (field: string, key: string, table: string[][]) => {
      const { command, count, heading, unknown, twofold } = await room.pastedElementCodes(field, key, table);
      if (command && (await change(command, `Code ${elementsWords(count)} by a paste`)))
        done(`${elementsWords(count)} coded.`);
      const trouble = [
        unknown.length > 0 && `${keysWords(unknown, 'is', 'are')} of no element: ${someOf(unknown)}`,
        twofold.length > 0 &&
          `${keysWords(twofold, 'has', 'have')} several codes and ${twofold.length === 1 ? 'was' : 'were'} left: ${someOf(twofold)}`,
      ].filter((t) => t !== false);
      const first = heading === null ? '' : ` The first row (“${heading}”) was read as headings.`;
      if (trouble.length > 0) wrong(new Error(`${trouble.join('. ')}.${first}`));
      else if (!command) toast(`No row was about an element.${first}`);
      else if (first !== '') toast(first.trim());
    }),
  };
}

/** Something that may fail; what went wrong is said to the person. */
function said<A extends unknown[]>(act: (...args: A) => Promise<unknown>): (...args: A) => void {
  return (...args) => void act(...args).catch(wrong);
}

const elementsWords = (n: number) => `${n} ${n === 1 ? 'element' : 'elements'}`;
const keysWords = (keys: readonly string[], one: string, many: string) =>
  keys.length === 1 ? `1 key ${one}` : `${keys.length} keys ${many}`;
const someOf = (keys: readonly string[]) => keys.slice(0, NAMED).join(', ') + (keys.length > NAMED ? ' …' : '');

/** How many elements a command matches. */
function countOf(command: Command): number {
  if (command.do === 'matchElements') return command.match.elements.length;
  return command.do === 'all' ? command.commands.reduce((n, c) => n + countOf(c), 0) : 0;
}
