import { messages } from '../../message';

export const COPY_WORDS = messages({
  copiedDevicesTimes: 'copied {devices} devices {count} times',
  thisWouldMakeNewWrongSnag:
    'This would make {newWrong, plural, one {# new wrong snag} other {# new wrong snags}}.',
  nothingNewIsWrongWithIt: 'Nothing new is wrong with it.',
  chooseWhatIsCopied: 'Choose what is copied.',
  addDevice: 'Add {copies, plural, one {# device} other {# devices}}',
  copy: 'Copy',
  whichSubnetsAreTheMachinesOwn:
    'Which subnets are the machine’s own? Every copy gets one of each.',
  deviceInThem: '{devices, plural, one {# device} other {# devices}} in them',
  howManyCopies: 'How many copies',
  numberOfTheFirst: 'Number of the first',
  otherAddresses: 'Other addresses',
  sameAddressesOwnRealm: 'Same addresses, own realm',
  everyCopySoManyAddressesFurther: 'Every copy so many addresses further',
  inNamesThis: 'In names, this …',
  whatComesOfIt: 'What comes of it',
  andMore: 'and {copies} more',
  becomes: '… becomes ({count} is the number)',
});
