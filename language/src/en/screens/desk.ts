import { messages } from '../../message';

export const DESK_WORDS = messages({
  scanOrTypeTheStickerOf:
    'Scan or type the sticker of each box as it comes in. On site the device is answered at its first power-up.',
  stickerOfTheBox: 'Sticker of the box',
  readAs: '{from} read as {to}',
  lettersThatAreNoHexWere: 'Letters that are no hex were repaired',
  whatIsInTheBox: 'What is in the box',
  anyKind: 'Any kind',
  deviceWithoutAMac: '{count, plural, one {# device} other {# devices}} without a MAC',
  nothingWaitsForASticker: 'Nothing waits for a sticker',
  otherWithoutAMacMac: '{waiting, plural, one {# device} other {# devices}} without a MAC',
  bindTo: 'Bind to {title}',
  chooseWhichDeviceItIs: 'Choose which device it is',
  itIs: 'it is {title}',
  takeItBack: 'Take it back',
  isBound: '{title} is bound',
});
