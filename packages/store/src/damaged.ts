/** What is stored is not all that was written: nothing is shown as if it were whole. */
export class StoreDamaged extends Error {}

/** @throws StoreDamaged where an edition has other rows than were written; where that is not known all is well */
export function checkCount(edition: string, what: 'activities' | 'links', written: number | null, found: number): void {
  if (written !== null && written !== found)
    throw new StoreDamaged(
      `The edition “${edition}” was kept with ${written} ${what}, and ${found} are found. The database has lost or gained some; restore it from a backup, or take the file in again.`,
    );
}
