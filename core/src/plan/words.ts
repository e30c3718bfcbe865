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

/** As people and their lists write them. */
export const WAY_WORDS: Readonly<Record<Way, string>> = {
  bootp: 'BootP',
  'dhcp-mac': 'DHCP by MAC',
  'dhcp-name': 'DHCP by name',
  'dhcp-port': 'DHCP by switch port',
  switches: 'switches',
  'web-page': 'web page',
  'layer2-name': 'layer-2 name',
  controller: 'given by its controller',
  keypad: 'keypad',
  'makers-tool': "maker's tool",
  card: 'memory card',
};

/** Does a device of this way ask for its address, so that somebody can answer? */
export const isAsking = (way: Way): boolean =>
  way === 'bootp' || way === 'dhcp-mac' || way === 'dhcp-name' || way === 'dhcp-port';

/** Ways in which the name is given over layer 2. */
export const isNamedOverLayer2 = (way: Way): boolean =>
  way === 'layer2-name' || way === 'controller';

/** In these ways a person gives the address at the device itself, and nothing asks for it. */
export const isByHand = (way: Way): boolean =>
  way === 'web-page' || way === 'keypad' || way === 'makers-tool' || way === 'card';

/**
 * In these ways not the MAC is the key but a name or a switch port: another device under the same name is the
 * same device of the plan, which is what makes a swap without a laptop.
 */
export const isKeyed = (way: Way): boolean => way === 'dhcp-name' || way === 'dhcp-port';

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
