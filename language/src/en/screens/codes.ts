import { messages } from '../../message';

export const CODES_WORDS = messages({
  ethernetIpGeneral: 'EtherNet/IP, general',
  twoDigits01PerhapsWithA: 'two digits, "01", perhaps with a second number',
  ethernetIpConnection: 'EtherNet/IP, connection',
  fourDigits0127: 'four digits, "0127"',
  modbusException: 'Modbus exception',
  oneNumber1To11: 'one number, 1 to 11',
  layer2RefusedSet: 'Layer 2, refused set',
  oneNumber1To6: 'one number, 1 to 6',
  whatDoesThisCodeMean: 'What does this code mean?',
  asAControllerAToolOr: 'As a controller, a tool or a panel shows it, hex or decimal.',
  whereIsItFrom: 'Where is it from?',
  theCode: 'The code',
  ofWhichDevice: 'Of which device?',
  noDeviceInParticular: 'no device in particular',
  typeTheDigitsAs012716: 'Type the digits, as 0127, 16#0127, 0x0127 or 295.',
  thereIsNoNumberInIt: 'There is no number in it',
  itMayBeACodeOf: 'It may be a code of the maker: look in the papers of the kind.',
  isNotInTheTable: '{one} is not in the table',
});
