export * from './site';
export * from './tern-cove';
export * from './tcpip-service';
