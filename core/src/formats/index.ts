export * from './plan-file';
