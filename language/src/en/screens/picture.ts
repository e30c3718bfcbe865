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
