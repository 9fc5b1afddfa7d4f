import { type CodeField, isComplete, type Plan, type Schedule } from '@clembo/core';

/** What fields are usually called by what they say, in the languages of plans. */
const MEANINGS = {
  who: /contract|compan|respons|owner|team|trade|crew|supplier|\bwho\b|firm|gewerk|verantwort|auftragnehm|entreprise|\blot\b|respons|empresa|contrat|ditta|impresa|aannemer|bedrijf|ploeg/i,
  phase: /phase|stage|etap|fase|abschnitt/i,
  project: /project|projekt|projet|proyecto|progetto|programme/i,
  place:
    /area|zone|place|building|section|location|site|bereich|gebäude|\bort\b|bâtiment|lieu|área|edificio|zona|gebouw|gebied|luogo/i,
} as const;
export type Meaning = keyof typeof MEANINGS;

/** A field by which a page can be grouped, with how many things have a value of it. */
export interface Grouping {
  /** Id of the code field, or `outline`. */
  id: string;
  name: string;
  /** How many values are used. */
  values: number;
  /** The share of activities that have one. */
  covers: number;
  /** Its values are answers, such as yes and no: it says nothing of what things are. */
  answers: boolean;
}

/** More lanes than these are no overview. */
const MOST = 25;
/** A field that says nothing of most activities groups nothing. */
const LEAST_COVER = 0.5;

/** Answers to a question, in the languages of plans: what is sorted by them is not told apart by what it is. */
const ANSWERS = new Set('yes no y n true false x - n/a none ja nein oui non si sí sim não nee done open'.split(' '));
const titleOf = ({ values }: CodeField, code: string): string => values.find((v) => v.code === code)?.title ?? code;

/** What decides the finish and is not done yet, by reference; groups are not work. */
export const decisive = (plan: Plan, { critical, outline }: Schedule): string[] =>
  plan.activities.flatMap((a, i) => (critical[i] === 1 && !outline.isSummary[i] && !isComplete(a) ? [a.ref] : []));

/** The fields of a plan that group its activities into a readable number of lanes, the likeliest first. */
export function groupings(plan: Plan, { outline }: Schedule): Grouping[] {
  const leaves = plan.activities.filter((_, i) => !outline.isSummary[i]);
  const of = (field: CodeField): Grouping => {
    const used = new Map<string, number>();
    for (const a of leaves) {
      const code = a.codes[field.id];
      if (code) used.set(code, (used.get(code) ?? 0) + 1);
    }
    const covered = [...used.values()].reduce((sum, n) => sum + n, 0);
    return {
      id: field.id,
      name: field.name,
      values: used.size,
      covers: covered / Math.max(1, leaves.length),
      answers: [...used.keys()].every((code) => ANSWERS.has(titleOf(field, code).trim().toLowerCase())),
    };
  };
  const roots = outline.roots.filter((i) => outline.isSummary[i]);
  const top: Grouping = {
    id: 'outline',
    name: 'Outline',
    values: roots.length,
    answers: false,
    covers: leaves.length === 0 ? 0 : 1 - outline.roots.filter((i) => !outline.isSummary[i]).length / leaves.length,
  };
  const all = [...plan.codeFields.map(of), top].filter(
    (g) => g.values >= 2 && g.values <= MOST && g.covers >= LEAST_COVER,
  );
  // Three to nine lanes read best; what says something of everything comes before what does not.
  const fit = (g: Grouping) => (g.values >= 3 && g.values <= 9 ? 0 : g.values <= 15 ? 1 : 2);
  return all.sort((a, b) => Number(a.answers) - Number(b.answers) || fit(a) - fit(b) || b.covers - a.covers);
}

/** The first of several groupings that means something. */
export const meaning = (list: readonly Grouping[], what: Meaning): Grouping | undefined =>
  list.find((g) => MEANINGS[what].test(g.name));

/** Whether every value of one field lies within one value of another: what nests well. */
export function liesWithin(plan: Plan, inner: string, outer: string): boolean {
  const home = new Map<string, string>();
  let stray = 0;
  let of = 0;
  for (const a of plan.activities) {
    const [i, o] = [a.codes[inner], a.codes[outer]];
    if (!i || !o) continue;
    of++;
    const known = home.get(i);
    if (known === undefined) home.set(i, o);
    else if (known !== o) stray++;
  }
  return of > 0 && stray / of < 0.1;
}

/** Whether a field by this name says who does something. */
export const meansWho = (name: string): boolean => MEANINGS.who.test(name);
