export * from './renumber';
export * from './copy-machine';
export * from './split-edits';
