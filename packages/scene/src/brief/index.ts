export * from './brief';
export * from './sentence';
