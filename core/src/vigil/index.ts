export * from './series';
