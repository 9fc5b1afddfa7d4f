import { factRef } from './blocks/facts';
import { phaseRef } from './blocks/phases';
import type { PlanFacts } from './facts';

/** Something on the overview that leads to where it can be seen: any of some things on a page of its plan. */
export interface Lead {
  /** The reference that it has on the overview. */
  ref: string;
  plan: string;
  things: readonly string[];
}

/** What leads by itself from the facts and phases of plans. */
export const leadsOfFacts = (plans: readonly PlanFacts[]): Lead[] =>
  plans.flatMap(({ id, phases, facts }) => [
    ...phases.flatMap((p): Lead[] =>
      p.ref === null ? [] : [{ ref: phaseRef(id, p.ref), plan: id, things: [p.ref, ...p.within] }],
    ),
    ...facts.flatMap((f): Lead[] => (f.ref === null ? [] : [{ ref: factRef(id, f.ref), plan: id, things: [f.ref] }])),
  ]);
