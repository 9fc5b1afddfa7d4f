import { packPlan } from '@clembo/core';
import { fileStem, holdsSeveral, PAGE_TYPES } from '@clembo/render';
import { Brief, EXHIBITS, MOST_EDITIONS, PROMISED } from '@clembo/scene';
import {
  listModels,
  localeOf,
  type PageFormat,
  readElements,
  readExhibit,
  readGeometry,
  readPlan,
  type StoredExhibit,
  type StoredPlan,
} from '@clembo/store';
import { type SentModels, type SentPlanOfPages, WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';

/** Exhibits of one plan with all that composing them needs; of an edition of it where one is named. */
export async function gatherPages(room: Room, ids: readonly string[], edition?: string) {
  const { store, access } = room;
  const exhibits: StoredExhibit[] = [];
  for (const id of ids) {
    const exhibit = await readExhibit(store, access, id);
    if (exhibit) exhibits.push(exhibit);
  }
  const [first] = exhibits;
  const stored = first && (await readPlan(store, access, first.planId, edition));
  if (!stored || exhibits.some((e) => e.planId !== stored.id))
    throw new JobRefused('There is no such exhibit (any more).');
  const pages = [];
  const editionOf = editionsOf(room, stored.id);
  for (const exhibit of exhibits) pages.push({ of: 0, ...(await pageOf(exhibit, stored, editionOf)) });
  return {
    exhibits,
    stored,
    sent: {
      plans: [await sentPlan(room, stored, pages)],
      folio: null,
      pages,
      locale: await localeOf(store, access),
      // A file carries the date of its edition: the same page gives the same bytes, whenever it is exported.
      date: dateOf(stored).getTime(),
    },
  };
}

/** Writes exhibits of one plan as one file, from the plan as it is now. */
export async function writePagesJob(room: Room, ids: string[], format: PageFormat, sheet?: number): Promise<Outcome> {
  const { exhibits, stored, sent } = await gatherPages(room, ids);
  const first = exhibits[0]!;
  // A drawing or a picture holds one page; what holds several holds all.
  const one = exhibits.length === 1 && !holdsSeveral(format);
  const [title, name] =
    exhibits.length === 1 ? [first.name, `“${first.name}”`] : ['exhibits', `${ids.length} exhibits`];
  const { bytes } = await room.hand(
    'writePages',
    { ...sent, format, sheet: one ? (sheet ?? 1) : null },
    WrittenPage,
    `Writing ${name}`,
  );
  const packed = !holdsSeveral(format) && !one;
  const number = one && (sheet ?? 1) > 1 ? ` - ${sheet}` : '';
  const file = `${fileStem(`${stored.plan.name} - ${title}${number}`)}.${packed ? 'zip' : format}`;
  return { result: { file, type: packed ? 'application/zip' : PAGE_TYPES[format] }, file: bytes };
}

/** A file carries the date of its edition. */
export const dateOf = (stored: StoredPlan): Date =>
  stored.editions.find((e) => e.id === stored.editionId)?.createdAt ?? new Date(0);

/** Editions of a plan, each read once. */
export function editionsOf({ store, access }: Room, planId: string) {
  const known = new Map<string, ReturnType<typeof readPlan>>();
  return (id: string): ReturnType<typeof readPlan> => {
    const own = known.get(id) ?? readPlan(store, access, planId, id);
    known.set(id, own);
    return own;
  };
}

/** A plan as its pages need it: with its models where one of them shows those. */
export async function sentPlan(
  room: Room,
  stored: StoredPlan,
  pages: readonly { brief: Brief }[],
): Promise<SentPlanOfPages> {
  const shows = pages.some((p) => EXHIBITS[p.brief.kind].needsModel);
  return {
    id: stored.id,
    plan: packPlan(stored.plan),
    edition: stored.edition,
    models: shows ? await modelsOf(room, stored.id) : null,
    promised: null,
  };
}

/** The models that belong to a plan. */
async function modelsOf({ store, access }: Room, planId: string): Promise<SentModels> {
  const models: SentModels = [];
  for (const { id, taken } of (await listModels(store, access, planId)) ?? []) {
    if (!taken) continue;
    const elements = await readElements(store, access, id);
    const geometry = await readGeometry(store, access, id);
    if (elements && geometry) models.push({ elements, geometry });
  }
  return models;
}

/** An exhibit with the editions that it looks at. */
export async function pageOf(
  exhibit: StoredExhibit,
  stored: StoredPlan,
  editionOf: (id: string) => Promise<StoredPlan | null>,
) {
  const brief = Brief.parse(exhibit.brief);
  const kept = stored.editions.filter((e) => !e.working);
  const edition = brief.compare === PROMISED ? kept.find((e) => e.baseline) : kept.find((e) => e.id === brief.compare);
  const promised = edition ? await editionOf(edition.id) : null;
  const editions = [];
  for (const { id } of EXHIBITS[brief.kind].allEditions ? kept.slice(0, MOST_EDITIONS).reverse() : []) {
    const found = await editionOf(id);
    if (found) editions.push({ plan: packPlan(found.plan), name: found.edition });
  }
  return {
    exhibit: exhibit.id,
    name: exhibit.name,
    brief,
    promised: promised && { plan: packPlan(promised.plan), name: promised.edition },
    editions,
  };
}
