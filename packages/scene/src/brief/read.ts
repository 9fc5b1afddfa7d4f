import { MONTH_NAMES } from './months';
import { type Condition, dayFromCivil, endOfDay, lowered, parseIsoDate, readCondition, startOfDay } from '@clembo/core';
import { type NamedDate, NO_DATES, type Part, PICTURE_WORDS } from './parts';
import { PageSize, sizeWords } from './pages';
import type { PlanWords } from './words';

/** A brief that was read from a sentence. */
export interface ReadBrief<B> {
  brief: B;
  /** What was not understood, and where it stands in the text. */
  unknown: { text: string; from: number; to: number }[];
}

/** What stands at a place of the text: how long it is, and what it changes. */
interface Found<B> {
  length: number;
  change: Partial<B>;
  part: string;
}

/** Words between parts say nothing by themselves. */
const FILLERS = new Set('show and then of on by with in from to the rows against only where'.split(' '));

/**
 * Reads a sentence into a brief: its parts in any order, with or without the words between them. What it does not speak
 * of stays as it was. What `sentence` says of a brief is read back as that brief.
 */
export function readSentence<B>(parts: readonly Part<B>[], text: string, brief: B, plan: PlanWords): ReadBrief<B> {
  const lower = lowered(text);
  const unknown: ReadBrief<B>['unknown'] = [];
  let next = brief;
  for (let at = 0; at < text.length; ) {
    const blank = /^[\s,.;]+/.exec(lower.slice(at));
    if (blank) {
      at += blank[0].length;
      continue;
    }
    let found: Found<B> | null = null;
    for (const part of parts) {
      const here = foundOf(part, text, lower, at, next, plan);
      if (here && here.length > 0 && (found === null || here.length > found.length)) found = here;
    }
    if (found) {
      next = { ...next, ...found.change };
      at += found.length;
      continue;
    }
    const word = /^[^\s,.;]+/.exec(text.slice(at))?.[0] ?? text[at]!;
    if (FILLERS.has(word.toLowerCase())) {
      at += word.length;
      continue;
    }
    const last = unknown.at(-1);
    if (last && /^\s+$/.test(text.slice(last.to, at))) {
      last.text = text.slice(last.from, at + word.length);
      last.to = at + word.length;
    } else unknown.push({ text: word, from: at, to: at + word.length });
    at += word.length;
  }
  return { brief: next, unknown };
}

/** Words without what stands between parts. */
const bare = (words: string): string => lowered(words).replace(/^[\s,]+|\s+$/g, '');

/** The length of a phrase that stands at a place as whole words; 0 where it does not. */
function lengthOf(lower: string, at: number, phrase: string): number {
  if (phrase === '' || !lower.startsWith(phrase, at)) return 0;
  const after = lower[at + phrase.length];
  return after !== undefined && /[\p{L}\p{N}]/u.test(after) && /[\p{L}\p{N}]$/u.test(phrase) ? 0 : phrase.length;
}

/** The words of a choice, and what people say instead: `only what is critical`, `only critical`, `critical only`. */
function spoken(words: string): string[] {
  const what = /^only what is (.+)$/.exec(words)?.[1] ?? /^(.+) only$/.exec(words)?.[1];
  return what === undefined ? [words] : [words, `only ${what}`, `${what} only`];
}

function foundOf<B>(
  part: Part<B>,
  text: string,
  lower: string,
  at: number,
  brief: B,
  plan: PlanWords,
): Found<B> | null {
  const lead = bare(part.lead).replace(/^show\b\s*/, '');
  // With the words before it, as they stand in the sentence or as people say them, or without.
  const leads = [lead, ...(part.also ?? [])].map((words) => lengthOf(lower, at, words));
  const starts = [...leads, 0].map((n) => (n > 0 && lower[at + n] === ' ' ? n + 1 : n));
  let best: Found<B> | null = null;
  for (const start of new Set(starts)) {
    const here = at + start;
    const found = valueOf(part, text, lower, here, brief, plan, start > 0);
    if (found && (best === null || start + found.length > best.length))
      best = { length: start + found.length, change: found.change, part: part.name };
  }
  return best;
}

function valueOf<B>(
  part: Part<B>,
  text: string,
  lower: string,
  at: number,
  brief: B,
  plan: PlanWords,
  led: boolean,
): { length: number; change: Partial<B> } | null {
  switch (part.as) {
    case 'one': {
      let best: { length: number; change: Partial<B> } | null = null;
      for (const [value] of part.options(plan, brief)) {
        const change = part.set(value);
        const phrases = spoken(bare(part.words({ ...brief, ...change }, plan)));
        const length = Math.max(...phrases.map((phrase) => lengthOf(lower, at, phrase)));
        // A short word such as “start” means a part only behind the words that lead to it.
        if (length > (best?.length ?? 0) && (led || length > 8 || isTelling(lower.slice(at, at + length))))
          best = { length, change };
      }
      return best;
    }
    case 'many':
      return manyOf(part, lower, at, brief, plan, led);
    case 'condition': {
      if (!led) return null;
      if (lengthOf(lower, at, 'everything') > 0)
        return { length: 'everything'.length, change: part.set({ match: 'all', tests: [] } satisfies Condition) };
      const fields = part.fields?.(plan);
      const read = readCondition(
        { codeFields: plan.codeFields, effortDay: plan.effortDay ?? null, ...(fields ? { fields } : {}) },
        text.slice(at),
      );
      return read && { length: read.length, change: part.set(read.condition) };
    }
    case 'dates':
      return datesOf(part, text, lower, at);
    case 'picture': {
      // Words cannot bring a picture; they say that the one there is stays, or that there is none.
      const none = lengthOf(lower, at, PICTURE_WORDS.no);
      if (none > 0) return { length: none, change: part.set(null) };
      const kept = lengthOf(lower, at, PICTURE_WORDS.yes);
      return kept > 0 && part.picture(brief) !== null ? { length: kept, change: {} } : null;
    }
    case 'size': {
      const usual = lengthOf(lower, at, sizeWords(null));
      if (usual > 0) return { length: usual, change: part.set(null) };
      const m = /^(\d+(?:\.\d+)?) (?:by|x|×) (\d+(?:\.\d+)?) mm\b/.exec(lower.slice(at));
      const size = m && PageSize.safeParse({ width: Number(m[1]), height: Number(m[2]) });
      return size?.success ? { length: m![0].length, change: part.set(size.data) } : null;
    }
    case 'text': {
      if (!led) return null;
      const said = quoteAt(text.slice(at));
      return said && { length: said.length, change: part.set(said.text) };
    }
    case 'place': {
      if (!led) return null;
      const open = lengthOf(lower, at, part.open);
      if (open > 0) return { length: open, change: part.set(null) };
      if (part.said) {
        const own = part.said.exec(text.slice(at))?.[0];
        const read = own === undefined ? null : part.read(own, plan, brief);
        return read === null ? null : { length: own!.length, change: part.set(read) };
      }
      const unit = lowered(part.unit(brief, plan));
      const number = /^[−-]?\d[\d,.]*(?:[+−-]\d{3}(?:\.\d+)?)?/.exec(lower.slice(at))?.[0].replace(/[,.]+$/, '');
      if (number === undefined) return null;
      const said =
        unit !== '' && lower.startsWith(` ${unit}`, at + number.length)
          ? number.length + 1 + unit.length
          : number.length;
      const place = part.read(number, plan, brief);
      return place === null ? null : { length: said, change: part.set(place) };
    }
    case 'day': {
      if (!led) return null;
      const open = lengthOf(lower, at, part.open);
      if (open > 0) return { length: open, change: part.set(null) };
      const day = dayAt(lower.slice(at));
      return day && { length: day.length, change: part.set(part.isFinish ? endOfDay(day.day) : startOfDay(day.day)) };
    }
  }
}

/** A text in quotes at the beginning of another. */
function quoteAt(text: string): { text: string; length: number } | null {
  const m = /^(?:“([^”]*)”|"([^"]*)")/.exec(text);
  return m && { text: m[1] ?? m[2] ?? '', length: m[0].length };
}

/** `“Board” on 14 September 2026 and “Freeze” from 1 March 2027 to 5 March 2027`, or that there are none. */
function datesOf<B>(
  part: Part<B> & { as: 'dates' },
  text: string,
  lower: string,
  at: number,
): { length: number; change: Partial<B> } | null {
  const none = lengthOf(lower, at, NO_DATES);
  if (none > 0) return { length: none, change: part.set([]) };
  const dates: NamedDate[] = [];
  let here = at;
  for (;;) {
    const joint = dates.length === 0 ? '' : (/^(?:, | and )/.exec(lower.slice(here))?.[0] ?? null);
    if (joint === null) break;
    const name = quoteAt(text.slice(here + joint.length));
    if (!name || name.text.trim() === '') break;
    let end = here + joint.length + name.length;
    const lead = /^ (on|from) /.exec(lower.slice(end))?.[0];
    if (lead === undefined) break;
    const first = dayAt(lower.slice(end + lead.length));
    if (!first) break;
    end += lead.length + first.length;
    const date: NamedDate = { name: name.text.trim(), start: startOfDay(first.day), finish: null };
    if (lead === ' from ') {
      const last = lower.startsWith(' to ', end) ? dayAt(lower.slice(end + 4)) : null;
      if (!last || last.day < first.day) break;
      date.finish = endOfDay(last.day);
      end += 4 + last.length;
    }
    dates.push(date);
    here = end;
  }
  return dates.length === 0 ? null : { length: here - at, change: part.set(dates) };
}

/** Words that mean something wherever they stand. */
const isTelling = (words: string): boolean => /^(?:packed|each|slips?|a[1-4] |letter|tabloid|effort|cost)/.test(words);

function manyOf<B>(
  part: Part<B> & { as: 'many' },
  lower: string,
  at: number,
  brief: B,
  plan: PlanWords,
  led: boolean,
): { length: number; change: Partial<B> } | null {
  // A list alone may be meant for any part: only words before it say for which.
  if (!led && bare(part.lead) !== '' && !/^show\b/i.test(part.lead)) return null;
  const none = lengthOf(lower, at, bare(part.words({ ...brief, ...part.set([]) }, plan)));
  if (none > 0) return { length: none, change: part.set([]) };
  const options = part
    .options(plan, brief)
    .map(([value, words]) => ({ value, words: bare(words) }))
    .sort((a, b) => b.words.length - a.words.length);
  const [sample] = options;
  if (!sample) return null;
  // What is said before the list, as in “in lanes by”.
  const said = bare(part.words({ ...brief, ...part.set([sample.value]) }, plan));
  const head = said.endsWith(sample.words) ? said.slice(0, said.length - sample.words.length) : '';
  let here = at;
  if (head !== '' && lower.startsWith(head, at)) here += head.length;
  else if (head !== '' && !led) return null;
  const values: string[] = [];
  for (;;) {
    const found = options.find((o) => lengthOf(lower, here, o.words) > 0 && !values.includes(o.value));
    if (!found) break;
    values.push(found.value);
    here += found.words.length;
    const joint = /^(?:, then |, | and )/.exec(lower.slice(here))?.[0];
    if (joint === undefined || !options.some((o) => lengthOf(lower, here + joint.length, o.words) > 0)) break;
    here += joint.length;
  }
  return values.length === 0 || values.length > (part.most ?? values.length)
    ? null
    : { length: here - at, change: part.set(values) };
}

/** A day at the beginning of a text: `14 September 2026`, `14 sep 2026`, `2026-09-14`. */
function dayAt(lower: string): { day: number; length: number } | null {
  const iso = /^\d{4}-\d{2}-\d{2}\b/.exec(lower)?.[0];
  if (iso !== undefined) {
    const day = parseIsoDate(iso);
    return day === null ? null : { day, length: iso.length };
  }
  const m = /^(\d{1,2}) ([a-z]{3,9}) (\d{4})\b/.exec(lower);
  const month = m ? MONTH_NAMES.findIndex((n) => n === m[2] || n.slice(0, 3) === m[2]) : -1;
  if (!m || month < 0) return null;
  const [day, year] = [Number(m[1]), Number(m[3])];
  return day < 1 || day > 31 || year < 1900 || year > 2299
    ? null
    : { day: dayFromCivil(year, month + 1, day), length: m[0].length };
}
