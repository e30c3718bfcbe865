export * from './queries';
export * from './job';
export * from './mutations';
export * from './settings';
export * from './files';
export * from './field';
export * from './use-now';
export { useServerEvents } from './events';
export { ApiError } from './http';
