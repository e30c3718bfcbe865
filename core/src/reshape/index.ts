export * from './renumber';
export * from './copy-machine';
