// What the main thread and the wire's thread say to each other.
export * from './commands';
export * from './heard-changes';
export * from './notices';
export * from './plan';
export * from './plan-news';
export * from './refusal';
export * from './reports';
export * from './seen';
export * from './status';
export * from './vigil-ring';
