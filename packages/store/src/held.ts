import type { Plan } from '@clembo/core';

/** How many bytes are held, in all, as near as they can be told. */
const MOST = 400 * 1_048_576;
/** What an activity with its fields, a link and the reference of an element take in memory: measured over 50,000 of each (Node 20). */
const [ACTIVITY, LINK, ELEMENT] = [540, 70, 56];

/** About so many bytes a plan takes in memory. */
function bytesOf(plan: Plan): number {
  const texts =
    plan.pictures.reduce((sum, p) => sum + p.data.length, 0) +
    plan.activities.reduce((sum, a) => sum + a.notes.length + a.name.length, 0);
  const elements = [...plan.matches, ...plan.elementCodes].reduce((sum, g) => sum + ELEMENT * g.elements.length, 0);
  return 10_000 + ACTIVITY * plan.activities.length + LINK * plan.links.length + texts + elements;
}

/**
 * Working editions as they were last read or written here, so that an edit need not read the plan again. What is
 * held counts only while the database has the same version of it: other processes write too.
 */
export class HeldEditions {
  private readonly held = new Map<string, { version: number; plan: Plan; bytes: number }>();
  private total = 0;

  constructor(private readonly most = MOST) {}

  get(editionId: string, version: number): Plan | null {
    const found = this.held.get(editionId);
    if (found?.version !== version) return null;
    this.held.delete(editionId);
    this.held.set(editionId, found);
    return found.plan;
  }

  put(editionId: string, version: number, plan: Plan): void {
    this.drop(editionId);
    const bytes = bytesOf(plan);
    this.held.set(editionId, { version, plan, bytes });
    this.total += bytes;
    // Those that were used longest ago go first, and one that is too large alone goes too.
    for (const id of [...this.held.keys()]) if (this.total > this.most) this.drop(id);
  }

  private drop(editionId: string): void {
    this.total -= this.held.get(editionId)?.bytes ?? 0;
    this.held.delete(editionId);
  }
}
