export { rawText, unwritable, unwritableIn, visibleText, type Unwritable } from './visible-text';
export * from './host-name';
export * from './station-name';
export * from './other-names';
export * from './convert';
export * from './pattern';
