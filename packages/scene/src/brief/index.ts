export { fitWords, shownWords } from '../graph/shown';
export * from './kinds';
export * from './pages';
export * from './parts';
export type { ReadBrief } from './read';
export * from './ready';
export * from './timeline';
export * from './variance';
export type { PlanWords } from './words';
