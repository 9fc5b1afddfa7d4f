export { enlarged } from './bind';
export type { PlanFacts } from './facts';
export * from './folio';
export * from './ready';
