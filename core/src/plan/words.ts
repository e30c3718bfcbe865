/** How a device gets its address. */
export const WAYS = [
  'bootp',
  'dhcp-mac',
  'dhcp-name',
  'dhcp-port',
  'switches',
  'web-page',
  'layer2-name',
  'controller',
  'keypad',
  'makers-tool',
  'card',
] as const;

export type Way = (typeof WAYS)[number];

/** Does a device of this way ask for its address, so that somebody can answer? */
export const isAsking = (way: Way): boolean =>
  way === 'bootp' || way === 'dhcp-mac' || way === 'dhcp-name' || way === 'dhcp-port';

/** What an address or a device is for; a band keeps a range of a subnet for one of them. */
export const ROLES = [
  'infrastructure',
  'controllers',
  'panels',
  'gateways',
  'drives',
  'io',
  'sensors',
  'pool',
  'held',
  'laptops',
] as const;

export type Role = (typeof ROLES)[number];
