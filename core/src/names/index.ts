export * from './host-name';
