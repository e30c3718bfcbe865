export * from './plan-file';
export * from './dnsmasq';
