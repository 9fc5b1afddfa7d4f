export * from './brief';
export * from './sentence';
export { fitWords, shownWords } from '../graph/shown';
