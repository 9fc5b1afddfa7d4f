import {
  type Body,
  bodyOf,
  type BuildElement,
  buildRange,
  type BuildTimes,
  buildTimes,
  caughtByRules,
  type Command,
  type Condition,
  conflicts,
  coverage,
  type Day,
  type Effect,
  elementFields,
  type ElementMatch,
  elementReader,
  elementsHold,
  type FieldReader,
  fieldType,
  isoDate,
  likelyPairings,
  makeValue,
  type MatchRule,
  type ModelChanges,
  type PastedElementCodes,
  pastedElementCodes,
  quantityBuilt,
  type SelectField,
  selectFields,
  shownDays,
  unpackGeometry,
  valueText,
} from '@clembo/core';
import { type BuildBrief, CATEGORIES, formatDay, type Promised } from '@clembo/scene';
import { countWords, type DateStanding, standingsOf } from '@clembo/scene/standings';
import { writeMatchesCsv } from '@clembo/formats/matches';
import { writePlanModel } from '@clembo/formats/tasks';
import { LOOK_BYTES, packLooks } from '@clembo/scene/model';
import type { Held } from './held';

/** A model as the list of models shows it. */
export interface ModelEntry {
  id: string;
  key: string;
  file: string;
  elements: number;
  notes: string[];
  /** Elements by the tasks that the model itself assigns to them. */
  assigned: { activity: string; name: string; elements: string[] }[];
  replaces: string | null;
  changes: ModelChanges | null;
  taken: boolean;
}

/** All that is known of the models of a plan. */
export interface ModelBook {
  models: ModelEntry[];
  elements: BuildElement[];
  body: Body;
  fields: SelectField[];
}

async function fetched(path: string): Promise<Response> {
  const response = await fetch(path);
  if (!response.ok)
    throw new Error(
      ((await response.json().catch(() => null)) as { error?: string } | null)?.error ??
        'The model could not be loaded.',
    );
  return response;
}

/** Reads the models of a plan: what belongs to it, and what waits to be taken in. */
export async function fetchModels(planId: string): Promise<ModelBook> {
  const { models } = (await (await fetched(`/api/plans/${planId}/models`)).json()) as { models: ModelEntry[] };
  const read = await Promise.all(
    models
      .filter((m) => m.taken)
      .map(async ({ id }) => {
        const [{ elements }, bytes] = await Promise.all([
          fetched(`/api/models/${id}/elements`).then((r) => r.json() as Promise<{ elements: BuildElement[] }>),
          fetched(`/api/models/${id}/geometry`).then((r) =>
            new Response(r.body!.pipeThrough(new DecompressionStream('gzip'))).arrayBuffer(),
          ),
        ]);
        return { elements, geometry: unpackGeometry(new Uint8Array(bytes)) };
      }),
  );
  const elements = read.flatMap((r) => r.elements);
  return {
    models,
    elements,
    body: bodyOf(read.map((r) => ({ count: r.elements.length, geometry: r.geometry }))),
    fields: elementFields(elements),
  };
}

/** What is asked of the model: when, and of which elements. */
export interface StandingAsked {
  day: Day;
  where: Condition;
  colour: string | null;
  promised: boolean;
}

export interface StandingShown {
  /** How each element is drawn, packed; and as it was promised. */
  looks: Uint8Array;
  promisedLooks: Uint8Array | null;
  /** How each element stands, as a position in the list of stages. */
  words: string;
  /** 1 for each element that the condition means. */
  meant: Uint8Array;
  underWay: { ref: string; name: string; share: number; elements: number }[];
}

const PLAIN: Omit<BuildBrief, 'kind' | 'title' | 'page' | 'where' | 'colour'> = {
  when: 'own',
  dates: [],
  measure: 'count',
  compare: null,
  toCome: true,
  loose: true,
  turn: 0,
  height: 0,
  perspective: false,
  middle: null,
  span: null,
  lift: 0,
  cut: null,
  print: 'colour',
  palette: [],
};

const words = (s: DateStanding): string => {
  const [first, ...more] = countWords(s);
  return `On ${formatDay(s.day, 'long')}: ${[first, ...more].join(', ')}.`;
};

/** The model as it stands on a day, and beside it as it was promised. */
export function standingShown(
  { plan, schedule }: Held,
  { elements, body }: ModelBook,
  promised: Promised | null,
  asked: StandingAsked,
): StandingShown {
  const start = asked.day * 1440;
  const brief = {
    ...PLAIN,
    where: asked.where,
    colour: asked.colour,
    dates: [{ name: '-', start, finish: null }],
  };
  const model = { elements, body };
  const { dates, meant } = standingsOf({ plan, schedule, promised, brief }, model);
  const [now] = dates as [DateStanding];
  const then =
    promised && asked.promised
      ? standingsOf(
          {
            plan: {
              ...promised.plan,
              matches: plan.matches,
              elementCodes: plan.elementCodes,
              codeFields: plan.codeFields,
            },
            schedule: promised.schedule,
            promised: null,
            brief,
          },
          model,
        ).dates[0]!
      : null;
  return {
    looks: packLooks(now.looks),
    promisedLooks: then && packLooks(then.looks),
    words: words(now),
    meant,
    underWay: now.underWay.map(({ ref, name, share, elements: n }) => ({ ref, name, share, elements: n })),
  };
}

/** A work as a card of a tray. */
export interface WorkCard {
  ref: string;
  name: string;
  dates: string;
  colour: string | null;
  elements: number;
}

/** Elements of a kind: the same type in the same storey. */
export interface KindCard {
  key: string;
  name: string;
  storey: string;
  /** Positions of the elements. */
  elements: number[];
}

/** A pairing that is likely, in words, and the rule that makes it. */
export interface PairingOffer {
  words: string;
  rule: Omit<MatchRule, 'id'>;
  elements: number;
  activities: string[];
}

export interface ConflictShown {
  kind: 'builtTwice' | 'removedBeforeBuilt' | 'standsAndBuilt';
  words: string;
  /** Positions of the elements, and references of the activities. */
  elements: number[];
  activities: { ref: string; name: string }[];
}

/** What has a partner and what waits for one. */
export interface MatchingShown {
  works: WorkCard[];
  idle: number;
  of: number;
  kinds: KindCard[];
  loose: number;
  elements: number;
  offers: PairingOffer[];
  conflicts: ConflictShown[];
  /** What is built in each step, to be drawn below the model. */
  curve: { bounds: Day[]; steps: number[] } | null;
}

/** Fields of activities that codes of elements are likely to speak of. */
const activityFields = (held: Held): string[] => ['ref', 'name', ...held.plan.codeFields.map((f) => `code.${f.id}`)];

const kindName = (e: BuildElement): string => e.type || e.class;

/** What of a plan and its models is matched, and what is not. */
export function matchingShown(held: Held, book: ModelBook, all: { works: boolean; kinds: boolean }): MatchingShown {
  const { plan, schedule } = held;
  const { elements } = book;
  const cover = coverage(plan, schedule, elements);
  const idle = new Set(cover.idle);
  const dated = (i: number): string => {
    const shown = shownDays(schedule, i);
    return shown ? `${formatDay(shown.first, 'short')} to ${formatDay(shown.last, 'medium')}` : 'without dates';
  };
  const colours = plan.codeFields[0];
  const works = plan.activities.flatMap((a, i): WorkCard[] => {
    if (
      all.works ? schedule.outline.isSummary[i] || (a.kind !== 'activity' && a.kind !== 'levelOfEffort') : !idle.has(i)
    )
      return [];
    const at = colours?.values.findIndex((v) => v.code === a.codes[colours.id]) ?? -1;
    const colour = at < 0 ? null : (colours!.values[at]!.colour ?? CATEGORIES[at] ?? null);
    return [
      {
        ref: a.ref,
        name: a.name || a.ref,
        dates: dated(i),
        colour,
        elements: cover.counts.get(i) ?? 0,
      },
    ];
  });
  const loose = new Set(cover.loose);
  const kinds = new Map<string, KindCard>();
  elements.forEach((e, i) => {
    if (!all.kinds && !loose.has(i)) return;
    const key = `${kindName(e)}\n${e.storey}`;
    const own = kinds.get(key) ?? { key, name: kindName(e), storey: e.storey, elements: [] };
    own.elements.push(i);
    kinds.set(key, own);
  });
  const times = buildTimes(plan, schedule, elements);
  const offers = offersOf(held, book);
  // What is likely to find a partner stands first.
  const likely = new Set(offers[0]?.activities);
  return {
    works: [...works.filter((w) => likely.has(w.ref)), ...works.filter((w) => !likely.has(w.ref))],
    idle: cover.idle.length,
    of: cover.activities,
    kinds: [...kinds.values()].sort((a, b) => b.elements.length - a.elements.length || (a.key < b.key ? -1 : 1)),
    loose: cover.loose.length,
    elements: elements.length,
    offers,
    conflicts: conflictsShown(held, elements, times),
    curve: curveOf(times, elements),
  };
}

/** At most so many bars stand below the model. */
const MOST_BARS = 90;

function curveOf(times: BuildTimes, elements: readonly BuildElement[]): MatchingShown['curve'] {
  const range = buildRange(times);
  if (!range) return null;
  const step = Math.max(7, Math.ceil((range.last - range.first + 1) / MOST_BARS / 7) * 7);
  const bounds = [range.first];
  while (bounds.at(-1)! <= range.last) bounds.push(bounds.at(-1)! + step);
  const { built } = quantityBuilt(
    times,
    elements,
    'count',
    bounds.map((d) => d - 1),
  );
  return { bounds, steps: bounds.slice(1).map((_, k) => built[k + 1]! - built[k]!) };
}

function offersOf(held: Held, { elements, fields }: ModelBook): PairingOffer[] {
  const { plan, schedule } = held;
  const element = [
    ...fields
      .filter((f) => f.type === 'text' && f.id !== 'element.identifier' && f.id !== 'element.model')
      .map((f) => f.id),
    ...plan.codeFields.map((f) => `code.${f.id}`),
  ];
  const names = new Map(
    [...selectFields(plan), ...fields].map((f) => [f.id, f.name.replace(/^.*: /, '').toLowerCase()] as const),
  );
  return likelyPairings(plan, schedule, elements, { element, activity: activityFields(held) })
    .slice(0, 3)
    .flatMap((p): PairingOffer[] => {
      const rule = {
        name: '',
        where: { match: 'all', tests: [] } as Condition,
        effect: 'builds' as const,
        to: null,
        same: { element: p.element, activity: p.activity },
      };
      const [found] = caughtByRules(plan, schedule, elements, [{ id: 'offer', ...rule }]);
      const matches = found!.matches;
      const total = matches.reduce((n, m) => n + m.elements.length, 0);
      if (total === 0) return [];
      const name = (ref: string) => plan.activities[schedule.outline.indexOf.get(ref)!]!.name || ref;
      const told = matches.slice(0, 2).map((m) => `${m.elements.length} with ${name(m.activity)}`);
      const more = matches.length > 2 ? ` and ${matches.length - 2} more` : '';
      return [
        {
          words: `Same value: ${names.get(p.element) ?? p.element} of elements, ${names.get(p.activity) ?? p.activity} of activities. It pairs ${told.join(', ')}${more}.`,
          rule,
          elements: total,
          activities: matches.map((m) => m.activity),
        },
      ];
    });
}

function conflictsShown({ plan }: Held, elements: readonly BuildElement[], times: BuildTimes): ConflictShown[] {
  const groups = new Map<string, ConflictShown>();
  for (const c of conflicts(times)) {
    const key = `${c.kind} ${c.activities.join(' ')}`;
    const activities = [...new Set(c.activities)].map((i) => ({
      ref: plan.activities[i]!.ref,
      name: plan.activities[i]!.name || plan.activities[i]!.ref,
    }));
    const own = groups.get(key) ?? { kind: c.kind, words: '', elements: [], activities };
    own.elements.push(c.element);
    groups.set(key, own);
  }
  return [...groups.values()].map((g) => {
    const what =
      g.elements.length === 1 ? `“${elements[g.elements[0]!]!.name}” is` : `${g.elements.length} elements are`;
    const by = g.activities.map((a) => a.name).join(' and ');
    return {
      ...g,
      words:
        g.kind === 'builtTwice'
          ? `${what} built by ${by}`
          : g.kind === 'standsAndBuilt'
            ? `${what} said to stand for a while, and to be built or removed: ${by}`
            : `${what} removed before ${g.elements.length === 1 ? 'it stands' : 'they stand'}: ${by}`,
    };
  });
}

/** What rules catch, in their order, for their list. */
export interface RuleShown {
  rule: MatchRule;
  words: string;
  caught: number;
  fresh: number;
  taken: number;
  without: number;
  /** Why it cannot be asked; null where it can. */
  trouble: string | null;
}

const EFFECT_WORDS: Record<Effect, string> = { builds: 'are built by', removes: 'are removed by', stands: 'stand for' };

export function rulesShown(
  held: Held,
  book: ModelBook,
  rules: readonly MatchRule[],
  say: (c: Condition) => string,
): RuleShown[] {
  const { plan, schedule } = held;
  const names = new Map([...selectFields(plan), ...book.fields].map((f) => [f.id, f.name] as const));
  const told = (rule: MatchRule): string => {
    const who = rule.where.tests.length === 0 ? 'All elements' : `Elements where ${say(rule.where)}`;
    const at = rule.to === null ? undefined : schedule.outline.indexOf.get(rule.to);
    const whom = rule.same
      ? `the activity whose ${names.get(rule.same.activity) ?? rule.same.activity} is their ${names.get(rule.same.element) ?? rule.same.element}`
      : at === undefined
        ? `${rule.to ?? 'nothing'}, which is not in the plan`
        : plan.activities[at]!.name || rule.to!;
    return `${who} ${EFFECT_WORDS[rule.effect]} ${whom}.`;
  };
  // Each rule is looked at behind those before it; one that cannot be asked takes nothing.
  const good = rules.filter((r) => troubleOf(held, book, r) === null);
  const caught = new Map(caughtByRules(plan, schedule, book.elements, good).map((c) => [c.rule, c]));
  return rules.map((rule) => {
    const c = caught.get(rule);
    return {
      rule,
      words: told(rule),
      caught: c?.caught.length ?? 0,
      fresh: c?.matches.reduce((n, m) => n + new Set(m.elements).size, 0) ?? 0,
      taken: c?.taken ?? 0,
      without: c?.without ?? 0,
      trouble: troubleOf(held, book, rule),
    };
  });
}

function troubleOf({ plan }: Held, { elements }: ModelBook, rule: MatchRule): string | null {
  try {
    elementsHold(elements, plan.elementCodes, rule.where);
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** The matches that rules make, as one command; null where they make none. */
export function rulesCommand(held: Held, book: ModelBook, rules: readonly MatchRule[]): Command | null {
  const good = rules.filter((r) => troubleOf(held, book, r) === null);
  const matches = caughtByRules(held.plan, held.schedule, book.elements, good).flatMap((c) => c.matches);
  return matches.length === 0 ? null : matchAll(matches);
}

const matchAll = (matches: readonly ElementMatch[]): Command => ({
  do: 'all',
  commands: matches.map((match): Command => ({ do: 'matchElements', match })),
});

/** The matches that a model itself states, of activities that the plan has; null where there are none. */
export function assignedCommand({ schedule }: Held, assigned: ModelEntry['assigned']): Command | null {
  const matches = assigned
    .filter((a) => schedule.outline.indexOf.has(a.activity))
    .map((a): ElementMatch => ({ activity: a.activity, effect: 'builds', elements: a.elements }));
  return matches.length === 0 ? null : matchAll(matches);
}

/** What is known of elements that are chosen. */
export interface ElementsFacts {
  count: number;
  /** The name of a single one. */
  name: string | null;
  rows: { id: string; name: string; value: string; values: number }[];
  works: { ref: string; name: string; effect: Effect; elements: number; dates: string }[];
}

/** Facts about chosen elements: a value that all share, or how many there are. */
export function elementsFacts(held: Held, { elements, fields }: ModelBook, chosen: readonly number[]): ElementsFacts {
  const { plan, schedule } = held;
  const codes = plan.codeFields.map((f): SelectField => ({ id: `code.${f.id}`, name: f.name, type: 'text' }));
  const rows = [...fields, ...codes].flatMap((f) => {
    const read = elementReader(elements, plan.elementCodes, f.id);
    if (!read) return [];
    const values = new Set<string>();
    for (const e of chosen) {
      const text = valueText(read(e), fieldType(f.id));
      if (text !== '') values.add(text);
      if (values.size > 200) break;
    }
    if (values.size === 0) return [];
    const [value] = values;
    return [
      { id: f.id, name: f.name, value: values.size === 1 ? value! : `${values.size} values`, values: values.size },
    ];
  });
  const refs = new Set(chosen.map((e) => elements[e]!.ref));
  const works = plan.matches.flatMap((m) => {
    const i = schedule.outline.indexOf.get(m.activity);
    const own = i === undefined ? 0 : m.elements.filter((e) => refs.has(e)).length;
    if (i === undefined || own === 0) return [];
    const shown = shownDays(schedule, i);
    return [
      {
        ref: m.activity,
        name: plan.activities[i]!.name || m.activity,
        effect: m.effect,
        elements: own,
        dates: shown ? `${formatDay(shown.first, 'medium')} to ${formatDay(shown.last, 'medium')}` : 'without dates',
      },
    ];
  });
  return { count: chosen.length, name: chosen.length === 1 ? elements[chosen[0]!]!.name : null, rows, works };
}

/** Positions of the elements that a condition means. */
export function elementsWhere(held: Held, { elements }: ModelBook, where: Condition): number[] {
  const holds = elementsHold(elements, held.plan.elementCodes, where);
  return elements.flatMap((_, i) => (holds(i) ? [i] : []));
}

/** Texts of columns for elements, in their order; for the list of elements. */
export function elementCells(
  held: Held,
  { elements }: ModelBook,
  chosen: readonly number[],
  columns: readonly string[],
): string[][] {
  const readers = columns.map((id) => [elementReader(elements, held.plan.elementCodes, id), fieldType(id)] as const);
  return chosen.map((e) => readers.map(([read, type]) => (read ? valueText(read(e), type) : '')));
}

/** Values that elements have in a field, the most frequent first. */
export function elementTexts(held: Held, { elements }: ModelBook, field: string): string[] {
  const read = elementReader(elements, held.plan.elementCodes, field);
  if (!read) return [];
  const counts = new Map<string, number>();
  elements.forEach((_, i) => {
    const text = valueText(read(i), fieldType(field));
    if (text !== '') counts.set(text, (counts.get(text) ?? 0) + 1);
  });
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .slice(0, 500)
    .map(([text]) => text);
}

/** Elements that an activity has by now, positions. */
export function elementsOfWork({ plan }: Held, { elements }: ModelBook, ref: string): number[] {
  const own = new Set(plan.matches.flatMap((m) => (m.activity === ref ? m.elements : [])));
  return elements.flatMap((e, i) => (own.has(e.ref) ? [i] : []));
}

/** Codes from what elements say themselves: a value, or its first characters; the first where there are several. */
function codesFrom(
  elements: readonly BuildElement[],
  read: FieldReader | null,
  { from, characters }: { from: string; characters: number | null },
): PastedElementCodes {
  const codes = elements.flatMap((e, i): [string, string][] => {
    const value = read?.(i) ?? null;
    const text = (Array.isArray(value) ? (value[0] ?? '') : valueText(value, fieldType(from))).trim();
    const code = characters === null ? text : text.slice(0, characters);
    return code === '' ? [] : [[e.ref, code]];
  });
  return onlyCodes(codes);
}

const onlyCodes = (codes: [string, string][]): PastedElementCodes => ({
  codes,
  heading: null,
  unknown: [],
  twofold: [],
});

/** The command that codes elements, and what could not be used of a paste. */
export interface CodedElements extends Omit<PastedElementCodes, 'codes'> {
  command: Command | null;
  count: number;
}

/** Codes elements by a paste, or those that are chosen; values that the book lacks come to it. */
export function codedElements(
  { plan }: Held,
  { elements }: ModelBook,
  field: string,
  said:
    | { key: string; table: string[][] }
    | { code: string; chosen: readonly number[] }
    | { from: string; characters: number | null },
): CodedElements {
  const { codes, ...left } =
    'table' in said
      ? pastedElementCodes(elements, plan.elementCodes, said.key, said.table)
      : 'from' in said
        ? codesFrom(elements, elementReader(elements, plan.elementCodes, said.from), said)
        : onlyCodes(said.chosen.map((e) => [elements[e]!.ref, said.code]));
  const own = plan.codeFields.find((f) => f.id === field);
  if (!own || codes.length === 0) return { command: null, count: 0, ...left };
  // A code may be written as its title.
  const titled = new Map(own.values.map((v) => [v.title.toLowerCase(), v.code]));
  const known = new Set(own.values.map((v) => v.code));
  const meant = codes.map(([ref, code]): [string, string] => [
    ref,
    known.has(code) ? code : (titled.get(code.toLowerCase()) ?? code),
  ]);
  const fresh = [...new Set(meant.map(([, code]) => code))].filter((code) => code !== '' && !known.has(code));
  const commands: Command[] = [
    ...(fresh.length > 0
      ? [
          {
            do: 'setCodeField' as const,
            field: { ...own, values: [...own.values, ...fresh.map((code) => makeValue({ code }))] },
          },
        ]
      : []),
    { do: 'codeElements', field, codes: meant },
  ];
  return { command: { do: 'all', commands }, count: codes.length, ...left };
}

/** What can be taken out of the matching: the matches as a table, tasks with their elements, the model on a day. */
export type ModelOut = 'csv' | 'ifc' | 'glb';

/** A file of what is matched. */
export async function modelFile(
  { plan, schedule }: Held,
  { elements, body }: ModelBook,
  kind: ModelOut,
  { day, written, looks }: { day: Day; written: number; looks: Uint8Array },
): Promise<{ name: string; type: string; bytes: Uint8Array }> {
  const stem = plan.name.replace(/[\\/:*?"<>|]+/g, ' ').trim() || 'plan';
  const text = (s: string) => new TextEncoder().encode(s);
  if (kind === 'csv')
    return { name: `${stem} - matches.csv`, type: 'text/csv', bytes: text(writeMatchesCsv(plan, schedule, elements)) };
  if (kind === 'ifc')
    return { name: `${stem} - tasks.ifc`, type: 'application/x-step', bytes: text(writePlanModel(plan, written)) };
  // The library is large, and seldom asked for.
  const { writeDateGltf } = await import('@clembo/formats/gltf');
  const shown = elements.map((_, e) => {
    const at = e * LOOK_BYTES;
    if (looks[at + 3] === 0) return null;
    const colour = `#${[0, 1, 2].map((k) => looks[at + k]!.toString(16).padStart(2, '0')).join('')}`;
    return { colour, opacity: Math.max(0.25, looks[at + 12]! / 255) };
  });
  return {
    name: `${stem} - ${isoDate(day)}.glb`,
    type: 'model/gltf-binary',
    bytes: await writeDateGltf(elements, body, shown),
  };
}
