import type { Plan } from '@clembo/core';

/** How many activities are held, in all. */
const MOST = 400_000;

/**
 * Working editions as they were last read or written here, so that an edit need not read the plan again. What is
 * held counts only while the database has the same version of it: other processes write too.
 */
export class HeldEditions {
  private readonly held = new Map<string, { version: number; plan: Plan }>();

  get(editionId: string, version: number): Plan | null {
    const found = this.held.get(editionId);
    if (found?.version !== version) return null;
    this.held.delete(editionId);
    this.held.set(editionId, found);
    return found.plan;
  }

  put(editionId: string, version: number, plan: Plan): void {
    this.held.delete(editionId);
    this.held.set(editionId, { version, plan });
    let count = 0;
    for (const { plan: p } of this.held.values()) count += p.activities.length + 1;
    for (const [id, { plan: p }] of this.held) {
      if (count <= MOST) return;
      count -= p.activities.length + 1;
      this.held.delete(id);
    }
  }
}
