import 'server-only';
import { Brief, Folio } from '@clembo/scene';
import { listExhibits, listPlans, readFolio } from '@clembo/store';
import { notFound } from 'next/navigation';
import { BadRequest, readId } from './answer';
import { pageAccess } from './access';
import { store } from './store';

/** A plan with its exhibits, from which pages of a folio come. */
export interface FolioPlan {
  id: string;
  name: string;
  version: number;
  exhibits: { id: string; name: string; brief: Brief }[];
}

/** A folio with the plans of the workspace and their exhibits, from which its pages come. */
export async function folioPage(idText: string) {
  let id: string;
  try {
    id = readId(idText, 'folio');
  } catch (error) {
    if (error instanceof BadRequest) notFound();
    throw error;
  }
  const access = await pageAccess();
  const stored = await readFolio(store(), access, id);
  if (!stored) notFound();
  const folio = Folio.parse(stored.content);
  return { id, version: stored.version, written: stored.written, folio, plans: await folioPlans() };
}

/** The plans of the workspace with their exhibits. */
export async function folioPlans(): Promise<FolioPlan[]> {
  const access = await pageAccess();
  const plans = await listPlans(store(), access);
  return Promise.all(
    plans.map(async ({ id, name, version }) => ({
      id,
      name,
      version,
      exhibits: (await listExhibits(store(), access, id)).map((e) => ({
        id: e.id,
        name: e.name,
        brief: Brief.parse(e.brief),
      })),
    })),
  );
}
