export * from './issues';
export * from './result';
export * from './ipv4';
export * from './prefix';
export * from './range';
export * from './mac';
export * from './label';
export * from './special';
