export * from './host-name';
export * from './station-name';
export * from './other-names';
export * from './convert';
export * from './pattern';
