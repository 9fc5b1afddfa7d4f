import { packPlan } from '@clembo/core';
import { Brief, EXHIBITS, MOST_EDITIONS, PROMISED } from '@clembo/scene';
import { localeOf, type PageFormat, readExhibit, readPlan } from '@clembo/store';
import { WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';

const TYPES: Record<PageFormat, string> = { pdf: 'application/pdf', svg: 'image/svg+xml', png: 'image/png' };

/** Writes an exhibit as a file, from the plan as it is now. */
export async function writePageJob(room: Room, id: string, format: PageFormat, sheet = 1): Promise<Outcome> {
  const { store, access } = room;
  const exhibit = await readExhibit(store, access, id);
  const stored = exhibit && (await readPlan(store, access, exhibit.planId));
  if (!stored) throw new JobRefused('There is no such exhibit (any more).');
  const brief = Brief.parse(exhibit.brief);
  const kept = stored.editions.filter((e) => !e.working);
  const edition = brief.compare === PROMISED ? kept.find((e) => e.baseline) : kept.find((e) => e.id === brief.compare);
  const promised = edition ? await readPlan(store, access, stored.id, edition.id) : null;
  const editions = [];
  for (const { id: own } of EXHIBITS[brief.kind].allEditions ? kept.slice(0, MOST_EDITIONS).reverse() : []) {
    const found = await readPlan(store, access, stored.id, own);
    if (found) editions.push({ plan: packPlan(found.plan), name: found.edition });
  }
  // A PDF carries the date of its edition: the same page gives the same bytes, whenever it is exported.
  const date = stored.editions.find((e) => e.id === stored.editionId)?.createdAt ?? new Date(0);
  const { bytes } = await room.hand(
    'writePage',
    {
      plan: packPlan(stored.plan),
      edition: stored.edition,
      brief,
      promised: promised && { plan: packPlan(promised.plan), name: promised.edition },
      editions,
      locale: await localeOf(store, access),
      format,
      sheet,
      date: date.getTime(),
    },
    WrittenPage,
    `Writing “${exhibit.name}”`,
  );
  const file = `${`${stored.plan.name} - ${exhibit.name}${format !== 'pdf' && sheet > 1 ? ` - ${sheet}` : ''}`.replace(/[^\p{L}\p{N} ._-]+/gu, '')}.${format}`;
  return { result: { file, type: TYPES[format] }, file: bytes };
}
