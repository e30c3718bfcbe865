export * from './series';
export * from './state';
