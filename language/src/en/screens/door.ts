import { messages } from '../../message';

export const DOOR_WORDS = messages({
  aBrowserThatDoesNotSay: 'a browser that does not say what it is',
  aPhoneIos: 'a phone (iOS)',
  aTabletIpados: 'a tablet (iPadOS)',
  aKeyIsNeeded: 'A key is needed',
  ipsonomoSendsOnTheWiresOf:
    'Ipsonomo sends on the wires of a plant, so it answers only browsers that were let in. The key stands on the terminal where it was started, as an address and as a QR code; somebody who is in already can make one under Jobs, Let somebody in.',
  theKeyTwentyLettersAndDigits: 'The key: twenty letters and digits',
  comeIn: 'Come in',
  jobs: '‹ Jobs',
  letSomebodyIn: 'Let somebody in',
  aKeyLetsBrowsersInFor:
    'A key lets browsers in for a day. Each then stays in until it is taken back.',
  browsersThatAreIn: 'Browsers that are in',
  noneYet: 'None yet.',
  keysThatLetIn: 'Keys that let in',
  makeAKey: 'Make a key',
  scanThisWithThePhone: 'Scan this with the phone',
  theAddress: 'The address {first}',
  theKeyToTypeGoodFor: 'The key, to type: {key} (good for {endsAt})',
  startItWithNpmStartOr: 'Start it with npm start, or with HOST=0.0.0.0, to let phones in.',
  thisServerListensOnItsOwn: 'This server listens on its own machine alone',
  noNameGivenYet: 'no name given yet',
  thisBrowser: ' (this browser)',
  hereLetIn: '{device} · here {seenAt} · let in {letInAt}',
  madeByGoodFor: 'made by {by} {madeAt}, good for {endsAt}',
  theKeyOf: 'the key of {by}',
  takeBack: 'Take back',
  takeBack2: 'Take back: {what}',
});
