import { SOFT_INK } from '../graph/ink';
import { round, type Scene, type SceneLink, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import { coverScene } from './cover';
import type { PlanFacts } from './facts';
import { COVER, type Folio, frontCount, type Hop, OVERVIEW, type Place } from './folio';
import { overviewScene } from './overview';
import { pageRef } from './blocks/page';
import { leadsOfFacts } from './leads';
import { type Box, placesOf } from './places';

/** A page of a folio, composed: its scenes, since an exhibit may run over several. */
export interface ComposedFolioPage {
  id: string;
  name: string;
  /** The plan that it is of, by name, and by the id that facts know it by. */
  plan: string;
  planId?: string;
  notes: string;
  scenes: readonly Scene[];
}

/** A folio as pages that belong together. */
export interface BoundFolio {
  scenes: Scene[];
  names: string[];
  notes: string[];
  /** Hops whose beginning or end is not there (any more). */
  lost: Hop[];
}

/** Around what is enlarged there is some of what stands beside it: shares of the page. */
const AROUND = 0.06;

/**
 * Binds composed pages into a folio: the cover with its contents, numbers on the pages, and hops as links between
 * places. Contents lead to their pages.
 */
export function bindFolio(
  folio: Folio,
  pages: readonly ComposedFolioPage[],
  measure: Measure,
  facts: readonly PlanFacts[] = [],
): BoundFolio {
  const first = pages.find((p) => p.scenes.length > 0)?.scenes[0];
  if (!first) return { scenes: [], names: [], notes: [], lost: folio.hops };
  const startOf = new Map<string, number>();
  const before = frontCount(folio);
  const overviewAt = folio.cover ? 1 : 0;
  let at = before;
  for (const p of pages) {
    startOf.set(p.id, at);
    at += p.scenes.length;
  }
  const of = at;
  const sections = new Map(folio.pages.map((p) => [p.id, p.section]));
  const cover = folio.cover
    ? [
        coverScene(
          { name: folio.name, under: folio.under, plans: [...new Set(pages.map((p) => p.plan))] },
          pages.map((p) => ({ section: sections.get(p.id) ?? '', name: p.name, number: startOf.get(p.id)! + 1 })),
          first,
          measure,
        ),
      ]
    : [];
  const overview = folio.overview
    ? [
        overviewScene(
          folio.name,
          folio.blocks,
          {
            plans: facts,
            pages: pages.flatMap((p) => {
              const [own] = p.scenes;
              if (!own) return [];
              const { width, height, nodes } = own;
              return [{ id: p.id, name: p.name, number: startOf.get(p.id)! + 1, width, height, nodes }];
            }),
          },
          first,
          measure,
        ).scene,
      ]
    : [];
  const bare: Scene[] = [...cover, ...overview, ...pages.flatMap((p) => p.scenes)];
  const places = bare.map((s) => placesOf(s, measure));
  /** Where a place is: on which page, and which part of it; null where it is not there. */
  const find = ({ page, ref, box }: Place): { page: number; box: Box | null } | null => {
    const start =
      page === COVER
        ? folio.cover
          ? 0
          : undefined
        : page === OVERVIEW
          ? folio.overview
            ? overviewAt
            : undefined
          : startOf.get(page);
    if (start === undefined) return null;
    const count = page === COVER || page === OVERVIEW ? 1 : (pages.find((p) => p.id === page)?.scenes.length ?? 0);
    if (count === 0) return null;
    if (ref !== null) {
      for (let k = start; k < start + count; k++) {
        const own = places[k]!.get(ref);
        if (own) return { page: k, box: own };
      }
      return null;
    }
    const { width, height } = bare[start]!;
    return {
      page: start,
      box: box && { x: box.x * width, y: box.y * height, width: box.width * width, height: box.height * height },
    };
  };
  const links = bare.map((): SceneLink[] => []);
  const lost: Hop[] = [];
  for (const hop of folio.hops) {
    const [from, to] = [find(hop.from), find(hop.to)];
    if (!from?.box || !to) {
      lost.push(hop);
      continue;
    }
    links[from.page]!.push({ ...from.box, page: to.page, to: to.box && enlarged(to.box, bare[to.page]!) });
  }
  // The contents of the cover, and the small pages of the overview, lead to their pages.
  for (const k of Array.from({ length: before }, (_, n) => n))
    for (const p of pages) {
      const number = startOf.get(p.id)! + 1;
      const own = places[k]!.get(pageRef(number));
      if (own) links[k]!.push({ ...own, page: number - 1, to: null });
    }
  // Phases and facts lead to the first page of their plan that shows what they are about, enlarged.
  if (folio.overview)
    for (const { ref, plan, things } of leadsOfFacts(facts)) {
      const from = places[overviewAt]!.get(ref);
      const numbers = pages
        .filter((p) => (p.planId ?? '') === plan)
        .flatMap((p) => p.scenes.map((_, k) => startOf.get(p.id)! + k));
      const to = numbers.find((k) => things.some((thing) => places[k]!.has(thing)));
      if (!from || to === undefined) continue;
      const box = around(things.flatMap((thing) => places[to]!.get(thing) ?? []));
      links[overviewAt]!.push({ ...from, page: to, to: enlarged(box, bare[to]!) });
    }
  return {
    scenes: bare.map((scene, k) => ({
      ...scene,
      nodes: folio.cover && k === 0 ? scene.nodes : [...scene.nodes, numberNode(scene, k + 1, of, measure)],
      links: links[k]!,
    })),
    names: [
      ...(folio.cover ? [folio.name] : []),
      ...(folio.overview ? ['Overview'] : []),
      ...pages.flatMap((p) => p.scenes.map((_, k) => (p.scenes.length > 1 ? `${p.name}, ${k + 1}` : p.name))),
    ],
    notes: [...Array.from({ length: before }, () => ''), ...pages.flatMap((p) => p.scenes.map(() => p.notes))],
    lost,
  };
}

/** The rectangle around some. */
function around(boxes: readonly Box[]): Box {
  const [x, y] = [Math.min(...boxes.map((b) => b.x)), Math.min(...boxes.map((b) => b.y))];
  return {
    x,
    y,
    width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
    height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
  };
}

/** What is shown when something is enlarged: it and some of what is about it, in the proportions of the page. */
export function enlarged({ x, y, width, height }: Box, page: { width: number; height: number }): Box {
  const wide = Math.min(page.width, width + 2 * AROUND * page.width);
  const high = Math.min(page.height, height + 2 * AROUND * page.height);
  const by = Math.max(wide / page.width, high / page.height);
  const [w, h] = [page.width * by, page.height * by];
  const within = (middle: number, size: number, whole: number) =>
    Math.max(0, Math.min(whole - size, middle - size / 2));
  return {
    x: round(within(x + width / 2, w, page.width)),
    y: round(within(y + height / 2, h, page.height)),
    width: round(w),
    height: round(h),
  };
}

/** The number of a page, at its lower edge. */
function numberNode({ width, height }: Scene, number: number, of: number, measure: Measure): SceneNode {
  const size = Math.max(6.5, Math.min(11, Math.min(width, height) / 70));
  const words = `${number} / ${of}`;
  return {
    type: 'text',
    x: round(width - size * 1.6 - measure.width('label', size, words)),
    y: round(height - size * 1.1),
    size,
    runs: [{ text: words, face: 'label', fill: SOFT_INK }],
    role: 'source',
  };
}
