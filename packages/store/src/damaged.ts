/** What is stored is not all that was written: nothing is shown as if it were whole. */
export class StoreDamaged extends Error {}
