export * from './brief';
export * from './sentence';
export { shownWords } from '../graph/shown';
