import { type PackedPlan, type Plan, unpackPlan } from '@clembo/core';
import type { CameFrom } from './answers/facts';

/** A plan as the server gives it. */
export interface PlanBody {
  plan: Plan;
  edition: string;
  editions: { id: string; name: string; working: boolean; baseline: boolean }[];
  locale: string;
  version: number;
  sources: CameFrom['sources'];
  rows: CameFrom['rows'];
}

/** Where the activities of a plan come from, in their order: number of the source and row. */
interface Places {
  sources: (number | null)[];
  rows: (number | null)[];
}

/** Fetches a plan in columns, as it is worked on or as a kept edition has it. Throws the words of the server. */
export async function fetchPlan(planId: string, edition?: string): Promise<PlanBody> {
  const response = await fetch(`/api/plans/${planId}?form=columns${edition ? `&edition=${edition}` : ''}`);
  if (!response.ok) {
    const { error } = (await response.json().catch(() => ({}))) as { error?: string };
    throw new Error(error ?? 'The plan could not be loaded.');
  }
  const body = (await new Response(response.body!.pipeThrough(new DecompressionStream('gzip'))).json()) as Omit<
    PlanBody,
    'plan' | 'rows'
  > & {
    plan: Omit<Plan, 'activities' | 'links'>;
    columns: Pick<PackedPlan, 'activities' | 'links'> & { places: Places | null };
  };
  const { plan, columns, ...rest } = body;
  const { places, ...packed } = columns;
  const read = unpackPlan({ ...plan, ...packed });
  return { ...rest, rows: rowsOf(read, places), plan: read };
}

/** Source and row by reference; found when they are first asked for. */
function rowsOf({ activities }: Plan, places: Places | null): CameFrom['rows'] {
  let found: Map<string, [number, number]> | null = null;
  return () => {
    found ??= new Map(
      activities.flatMap(({ ref }, k): [string, [number, number]][] => {
        const row = places?.rows[k] ?? null;
        return row === null ? [] : [[ref, [places?.sources[k] ?? 1, row]]];
      }),
    );
    return found;
  };
}
