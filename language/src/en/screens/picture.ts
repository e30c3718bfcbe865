import type { Lane } from '@ipsonomo/core/picture';
import { messages } from '../../message';

export const PICTURE_WORDS = messages({
  vlan: '{name} · VLAN {vlan}',
  fold: 'fold',
  translatesAddresses: 'translates addresses',
  rackPassesNoIp: 'rack: passes no IP',
  passesNothingOn: 'passes nothing on',
  showOthers: 'Show {folded} others',
  showDevices: 'Show {folded} devices',
  aLargeSiteTheDevicesOf:
    'A large site: the devices of a subnet are counted. Touch the count to see them.',
  saveThePictureAsSvg: 'Save the picture as SVG',
  thereIsDrawnThroughBackIs: 'There is drawn through, back is dashed.',
  lane: 'Lane',
  joinsLanesChooseOneAbove: 'joins {lanes} lanes: choose one above',
  router: 'router',
});

/** What joins subnets, by its kind. */
export const JOINER_WORDS = {
  router: PICTURE_WORDS.router,
  translator: PICTURE_WORDS.translatesAddresses,
  rack: PICTURE_WORDS.rackPassesNoIp,
  'two-sided': PICTURE_WORDS.passesNothingOn,
} as const;

export const laneTitle = ({ name, vlan }: Pick<Lane, 'name' | 'vlan'>): string =>
  vlan === undefined ? name : PICTURE_WORDS.vlan({ name, vlan });
