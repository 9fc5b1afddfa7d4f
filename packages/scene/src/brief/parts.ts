import type { Condition, SelectField } from '@clembo/core';
import { conditionWords, dayOf, finishDayOf, lowered, MomentValue, toldApart } from '@clembo/core';
import { z } from 'zod';
import { formatDay } from '../text/dates';
import { PAGES, type PageName, type PageSize, pageWords } from './pages';
import { listWords, type PlanWords } from './words';

/** Plain words, or words that stand for a part. */
export type Segment = { text: string; part?: string };

type Choice = [value: string, words: string];

/** A day, or a period from one day to another, that a page marks by name. Moments. */
export const NamedDate = z.object({
  name: z.string().trim().min(1).max(120),
  start: MomentValue,
  /** The end of its last day; null for a single day. */
  finish: MomentValue.nullable().default(null),
});
export type NamedDate = z.infer<typeof NamedDate>;

/** So many characters of a picture are kept with a brief. */
export const MOST_PICTURE = 300_000;

/** A picture of pixels, such as a logo, as a data URL. */
export const Picture = z.object({
  data: z
    .string()
    .max(MOST_PICTURE)
    .regex(/^data:image\/(?:png|jpeg);base64,[A-Za-z0-9+/]+=*$/, 'a picture is a PNG or JPEG as a data URL'),
  width: z.int().min(1).max(10_000),
  height: z.int().min(1).max(10_000),
});
export type Picture = z.infer<typeof Picture>;

/** What a sentence says of a page with a picture, and of one without. */
export const PICTURE_WORDS = { yes: 'with a picture', no: 'without a picture' } as const;

/** What a sentence says of a page that marks no dates of its own. */
export const NO_DATES = 'no dates of its own';

/** A text within a sentence: in quotes, so that it is told from the words of the sentence. */
export const quoted = (text: string): string => `“${quotable(text)}”`;

/** A text on one line, its own quotes single. */
export const quotable = (text: string): string => text.replace(/[“”"]/g, '’').replace(/\s+/g, ' ').trim();

/** `“Board” on 14 September 2026 and “Freeze” from 1 March 2027 to 5 March 2027`. */
export const namedDateWords = (dates: readonly NamedDate[]): string =>
  listWords(
    dates.map(({ name, start, finish }) =>
      finish === null
        ? `${quoted(name)} on ${formatDay(dayOf(start), 'long')}`
        : `${quoted(name)} from ${formatDay(dayOf(start), 'long')} to ${formatDay(finishDayOf(finish), 'long')}`,
    ),
  );

interface Common<Brief> {
  /** A word of its own, by which the part is found. */
  name: string;
  /** What it is called where it is chosen. */
  label: string;
  /** The plain words before it. */
  lead: string;
  /** Other words before it, in lower case, by which people ask for it. */
  also?: readonly string[];
  words(brief: Brief, plan: PlanWords): string;
  /** Whether it is as it is where nobody says anything: then it is not said. */
  quiet?(brief: Brief): boolean;
  /** Whether it has something to say of a plan. */
  shown?(brief: Brief, plan: PlanWords): boolean;
}

/** A part of a brief: how it reads in the sentence, what it can be, and what a choice changes. */
export type Part<Brief> = Common<Brief> &
  (
    | {
        as: 'one';
        value(brief: Brief): string;
        options(plan: PlanWords, brief: Brief): Choice[];
        set(value: string): Partial<Brief>;
      }
    | {
        as: 'many';
        values(brief: Brief): string[];
        options(plan: PlanWords, brief: Brief): Choice[];
        most?: number;
        set(values: string[]): Partial<Brief>;
      }
    | { as: 'dates'; dates(brief: Brief): NamedDate[]; set(dates: NamedDate[]): Partial<Brief> }
    | { as: 'size'; size(brief: Brief): PageSize | null; set(size: PageSize | null): Partial<Brief> }
    | { as: 'picture'; picture(brief: Brief): Picture | null; set(picture: Picture | null): Partial<Brief> }
    | { as: 'text'; text(brief: Brief): string; most: number; set(text: string): Partial<Brief> }
    | {
        as: 'place';
        /** Thousandths of the unit of the line; null where it is left open. */
        place(brief: Brief): number | null;
        unit(brief: Brief, plan: PlanWords): string;
        /** What it says while no place is chosen. */
        open: string;
        read(text: string, plan: PlanWords, brief: Brief): number | null;
        /** How it stands in a sentence, and as it is typed, where that is not as a place of the line. */
        said?: RegExp;
        typed?(brief: Brief, plan: PlanWords): string;
        set(place: number | null): Partial<Brief>;
      }
    | {
        as: 'condition';
        where(brief: Brief): Condition;
        /** What can be asked, where that is not the fields of activities. */
        fields?(plan: PlanWords): readonly SelectField[];
        set(where: Condition): Partial<Brief>;
      }
    | {
        as: 'day';
        moment(brief: Brief): number | null;
        /** What it says while no day is chosen. */
        open: string;
        isFinish: boolean;
        set(moment: number | null): Partial<Brief>;
      }
  );

/** Parts that apply to a plan and are not said, for someone who may add them. */
export const unsaid = <Brief>(parts: readonly Part<Brief>[], brief: Brief, plan: PlanWords): Part<Brief>[] =>
  parts.filter((p) => (p.quiet?.(brief) ?? false) && (p.shown?.(brief, plan) ?? true));

/**
 * A brief as a sentence in plain language, in segments. Parts at their default are not said.
 * @param added parts that are said although they are at their default
 */
export function sentence<Brief>(
  parts: readonly Part<Brief>[],
  brief: Brief,
  plan: PlanWords,
  added: ReadonlySet<string> = new Set(),
): Segment[] {
  const quiet = new Set(unsaid(parts, brief, plan).map((p) => p.name));
  const said = parts.filter((p) => (p.shown?.(brief, plan) ?? true) && (!quiet.has(p.name) || added.has(p.name)));
  return [
    ...said.flatMap((p): Segment[] => [{ text: p.lead }, { text: p.words(brief, plan), part: p.name }]),
    { text: '.' },
  ];
}

/** A part that is one of fixed choices, each with the words that stand for it in the sentence. */
export function onePart<Brief, Key extends keyof Brief & string>(
  key: Key,
  label: string,
  lead: string,
  choices: Readonly<Record<Brief[Key] & string, string>>,
): Part<Brief> {
  return {
    as: 'one',
    name: key,
    label,
    lead,
    value: (b) => String(b[key]),
    words: (b) => choices[b[key] as Brief[Key] & string],
    options: () => Object.entries(choices) as Choice[],
    set: (value) => ({ [key]: value }) as unknown as Partial<Brief>,
  };
}

/** A part that is so or not, and is not said where it is as it is by default. */
export const yesPart = <Brief>(
  key: keyof Brief & string,
  label: string,
  words: { yes: string; no: string },
  byDefault: boolean,
): Part<Brief> => ({
  as: 'one',
  name: key,
  label,
  lead: ', ',
  quiet: (b) => (b[key] as unknown as boolean) === byDefault,
  value: (b) => (b[key] ? 'yes' : 'no'),
  words: (b) => (b[key] ? words.yes : words.no),
  options: () => [
    ['yes', words.yes],
    ['no', words.no],
  ],
  set: (v) => ({ [key]: v === 'yes' }) as unknown as Partial<Brief>,
});

export const fieldName = (plan: PlanWords, id: string): string =>
  id === 'outline'
    ? 'outline'
    : id === RESPONSIBLE
      ? WHO
      : (namesOf(plan)[plan.codeFields.findIndex((f) => f.id === id)] ?? id);

/** The names of the code fields of a plan within a sentence, no two alike. */
const namesOf = (plan: PlanWords): string[] =>
  toldApart(
    plan.codeFields.map((f) => lowered(f.name)),
    ['outline', WHO],
  );

/** Stands for lanes of those who are responsible. */
export const RESPONSIBLE = 'responsible';
export const WHO = 'who is responsible';

/** Code fields as choices. */
export const fieldChoices = (plan: PlanWords): Choice[] => {
  const names = namesOf(plan);
  return plan.codeFields.map((f, k) => [f.id, names[k]!]);
};

/** The oldest edition that was kept: what was promised. */
export const PROMISED = 'promised';

/** The name of an edition to compare with. */
export function editionName(compare: string | null, plan: PlanWords): string {
  if (compare === null) return 'nothing';
  const edition = compare === PROMISED ? plan.editions?.at(-1) : plan.editions?.find((e) => e.id === compare);
  return edition?.name ?? 'an edition that is gone';
}

/** Editions as choices; the oldest stands for what was promised. */
export const editionChoices = ({ editions = [] }: PlanWords): Choice[] =>
  editions.map(({ id, name }, k): Choice => [k === editions.length - 1 ? PROMISED : id, name]);

export const comparePart = <Brief extends { compare: string }>(lead: string): Part<Brief> => ({
  as: 'one',
  name: 'compare',
  label: 'Compared with',
  lead,
  value: (b) => b.compare,
  words: (b, plan) => editionName(b.compare, plan),
  options: editionChoices,
  set: (compare) => ({ compare }) as Partial<Brief>,
});

/** The edition to compare with, or none. */
export const compareOrNonePart = <Brief extends { compare: string | null }>(): Part<Brief> => ({
  as: 'one',
  name: 'compare',
  label: 'Compared with',
  lead: ', compared with ',
  shown: (b, plan) => (plan.editions?.length ?? 0) > 0 || b.compare !== null,
  quiet: (b) => b.compare === null,
  value: (b) => b.compare ?? '',
  words: (b, plan) => editionName(b.compare, plan),
  options: (plan) => [['', 'nothing'], ...editionChoices(plan)],
  set: (v) => ({ compare: v === '' ? null : v }) as Partial<Brief>,
});

/**
 * A part that is a code field of the plan, or none.
 *
 * @param more choices beside the code fields: ids and names
 */
export const fieldOrNonePart = <Key extends string, Brief extends { [K in Key]: string | null }>(
  key: Key,
  label: string,
  words: (name: string) => string,
  none: string,
  more: readonly [id: string, name: string][] = [],
): Part<Brief> => ({
  as: 'one',
  quiet: (b) => b[key] === null,
  name: key,
  label,
  lead: ', ',
  value: (b) => b[key] ?? '',
  words: (b, plan) => (b[key] === null ? none : words(fieldName(plan, b[key]))),
  options: (plan) => [['', none], ...[...fieldChoices(plan), ...more].map(([id, name]): Choice => [id, words(name)])],
  set: (v) => ({ [key]: v === '' ? null : v }) as Partial<Brief>,
});

export const colourPart = <Brief extends { colour: string | null }>(): Part<Brief> =>
  fieldOrNonePart<'colour', Brief>('colour', 'Colour', (name) => `coloured by ${name}`, 'in one colour');

export const conditionPart = <Brief extends { where: Condition }>(lead: string): Part<Brief> => ({
  as: 'condition',
  quiet: (b) => b.where.tests.length === 0,
  name: 'where',
  label: 'Where',
  lead,
  also: ['only where', 'only'],
  where: (b) => b.where,
  words: (b, plan) => conditionWords({ codeFields: plan.codeFields, effortDay: plan.effortDay ?? null }, b.where),
  set: (where) => ({ where }) as Partial<Brief>,
});

export const dayPart = <Brief extends { from: number | null; to: number | null }>(
  key: 'from' | 'to',
  lead: string,
): Part<Brief> => {
  const isFinish = key === 'to';
  const open = isFinish ? 'the finish' : 'the start';
  return {
    as: 'day',
    name: key,
    label: isFinish ? 'To' : 'From',
    lead,
    quiet: (b) => b[key] === null,
    moment: (b) => b[key],
    open,
    isFinish,
    words: (b) => {
      const moment = b[key];
      return moment === null ? open : formatDay(isFinish ? finishDayOf(moment) : dayOf(moment), 'long');
    },
    set: (moment) => ({ [key]: moment }) as Partial<Brief>,
  };
};

/** The parts that end every sentence: the page, and how it is printed. */
export const pageParts = <
  Brief extends { page: PageName; print: 'colour' | 'grey'; palette: string[] },
>(): Part<Brief>[] => [
  {
    as: 'one',
    name: 'page',
    label: 'Page',
    lead: ', on ',
    value: (b) => b.page,
    words: (b) => pageWords(b.page),
    options: () => Object.keys(PAGES).map((p): Choice => [p, pageWords(p as PageName)]),
    set: (page) => ({ page }) as Partial<Brief>,
  },
  {
    ...onePart<Brief, 'print'>('print', 'Print', ', ', { colour: 'in colour', grey: 'in grey with patterns' } as never),
    quiet: (b) => b.print === 'colour',
  },
  {
    as: 'one',
    name: 'palette',
    label: 'Colours',
    lead: ', ',
    // They come from the house with a new page, and can be left.
    shown: (b) => b.palette.length > 0,
    quiet: (b) => b.palette.length === 0,
    value: (b) => (b.palette.length > 0 ? 'house' : ''),
    words: (b) => (b.palette.length > 0 ? 'in the colours of the house' : 'in the usual colours'),
    options: () => [
      ['house', 'in the colours of the house'],
      ['', 'in the usual colours'],
    ],
    set: (v) => (v === '' ? { palette: [] as string[] } : {}) as Partial<Brief>,
  },
];
