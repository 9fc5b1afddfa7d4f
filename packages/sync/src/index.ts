export { next, type Next } from './next';
export * from './state';
