export * from './signs';
export * from './rules';
export * from './likely';
