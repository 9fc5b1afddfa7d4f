import { codeOfFieldId } from '@clembo/core';
import { codeTexts } from './books';
import type { Held } from './held';

/** Something that may be meant by what is typed: the whole text as it would stand then, and what it is. */
export interface Suggestion {
  text: string;
  hint: string;
  /** The colour of a code value. */
  colour?: string;
}

const MOST = 8;

/** What may be meant while a cell is typed into: codes, people, kinds, calendars, activities by reference or name. */
export function suggestionsFor(held: Held, field: string, text: string): Suggestion[] {
  const { plan } = held;
  const plain = text.trim().toLowerCase();
  const code = codeOfFieldId(field);
  if (code !== null) {
    const values = plan.codeFields.find((f) => f.id === code)?.values ?? [];
    return values
      .filter((v) => v.title.toLowerCase().includes(plain) || v.code.toLowerCase().includes(plain))
      .slice(0, MOST)
      .map((v) => ({ text: v.title, hint: v.code === v.title ? '' : v.code, ...(v.colour && { colour: v.colour }) }));
  }
  if (field === 'kind')
    return ['activity', 'milestone', 'supporting work']
      .filter((k) => k.includes(plain))
      .map((k) => ({ text: k, hint: '' }));
  if (field === 'calendar')
    return plan.calendars
      .filter((c) => c.name.toLowerCase().includes(plain))
      .slice(0, MOST)
      .map((c) => ({ text: c.name, hint: '' }));
  if (field === 'line')
    return plan.lines
      .filter((l) => l.name.toLowerCase().includes(plain))
      .slice(0, MOST)
      .map((l) => ({ text: l.name, hint: l.unit }));
  if (field === 'responsible' || field === 'predecessors' || field === 'successors') {
    // The last of several is the one that is being typed.
    const parts = text.split(/[,;]/);
    const last = parts.at(-1)!.trim().toLowerCase();
    const before = parts.length > 1 ? `${parts.slice(0, -1).join(',').trim()}, ` : '';
    if (field === 'responsible')
      return codeTexts(held, 'responsible')
        .filter((t) => last !== '' && t.toLowerCase().includes(last))
        .slice(0, MOST)
        .map((t) => ({ text: before + t, hint: '' }));
    // Behind a reference stand type and lag, which are no name.
    const [word = ''] = last.split(/\s/);
    if (last === '' || (word !== last && plan.activities.some((a) => a.ref.toLowerCase() === word))) return [];
    const found: Suggestion[] = [];
    for (const { ref, name } of plan.activities) {
      if (!ref.toLowerCase().startsWith(last) && !name.toLowerCase().includes(last)) continue;
      found.push({ text: before + ref, hint: name });
      if (found.length === MOST) break;
    }
    return found;
  }
  return [];
}
