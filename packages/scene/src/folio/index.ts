export { enlarged } from './bind';
export * from './folio';
export * from './ready';
