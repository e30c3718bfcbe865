export * from './site';
export * from './device';
export * from './tern-cove';
export * from './tcpip-service';
