export { enlarged } from './bind';
export { pageRef } from './blocks/page';
export type { Fact, PlanFacts } from './facts';
export * from './folio';
export * from './leads';
export type { Phase } from './phases';
export * from './ready';
