export * from './site';
export * from './faults';
export * from './definition';
export * from './device';
export * from './tern-cove';
export * from './tcpip-service';
export { identityOf } from './identity';
