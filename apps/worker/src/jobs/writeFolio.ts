import { packPlan } from '@clembo/core';
import { fileStem, PAGE_TYPES } from '@clembo/render';
import { Folio } from '@clembo/scene';
import {
  type FolioFormat,
  localeOf,
  noteWritten,
  readExhibit,
  readFolio,
  readPlan,
  type StoredPlan,
} from '@clembo/store';
import { WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import { dateOf, editionsOf, pageOf, sentPlan } from './writePages';

/** A folio with all that composing it needs, of its plans as they are now. Pages whose exhibit is gone are left out. */
export async function gatherFolio(room: Room, id: string) {
  const { store, access } = room;
  const stored = await readFolio(store, access, id);
  if (!stored) throw new JobRefused('There is no such folio (any more).');
  const folio = Folio.parse(stored.content);
  const plans: { stored: StoredPlan; editionOf: ReturnType<typeof editionsOf> }[] = [];
  const pages = [];
  for (const page of folio.pages) {
    const exhibit = await readExhibit(store, access, page.exhibit);
    if (!exhibit) continue;
    let of = plans.findIndex((p) => p.stored.id === exhibit.planId);
    if (of < 0) {
      const plan = await readPlan(store, access, exhibit.planId);
      if (!plan) continue;
      of = plans.length;
      plans.push({ stored: plan, editionOf: editionsOf(room, plan.id) });
    }
    const { stored: plan, editionOf } = plans[of]!;
    pages.push({ of, id: page.id, ...(await pageOf(exhibit, plan, editionOf)) });
  }
  if (pages.length === 0) throw new JobRefused('This folio has no pages yet. Put exhibits into it first.');
  const sent = [];
  for (const [k, p] of plans.entries()) {
    const own = pages.filter((x) => x.of === k);
    const baseline = folio.overview ? p.stored.editions.find((e) => e.baseline && !e.working) : undefined;
    const promised = baseline ? await p.editionOf(baseline.id) : null;
    sent.push({
      ...(await sentPlan(room, p.stored, own)),
      promised: promised && { plan: packPlan(promised.plan), name: promised.edition },
    });
  }
  const date = new Date(Math.max(...plans.map((p) => dateOf(p.stored).getTime())));
  return {
    name: stored.name,
    versions: Object.fromEntries(plans.map((p) => [p.stored.id, p.stored.version])),
    sent: {
      plans: sent,
      folio: { content: stored.content as object },
      pages,
      locale: await localeOf(store, access),
      date: date.getTime(),
    },
  };
}

/** Writes a folio as one file, from its plans as they are now. */
export async function writeFolioJob(room: Room, id: string, format: FolioFormat): Promise<Outcome> {
  const { name, versions, sent } = await gatherFolio(room, id);
  const { bytes } = await room.hand('writePages', { ...sent, format, sheet: null }, WrittenPage, `Writing “${name}”`);
  await noteWritten(room.store, room.access, id, versions);
  const packed = format === 'png';
  return {
    result: {
      file: `${fileStem(name)}.${packed ? 'zip' : format}`,
      type: packed ? 'application/zip' : PAGE_TYPES[format],
    },
    file: bytes,
  };
}
