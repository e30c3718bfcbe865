import type { Countersign, Sign } from '@ipsonomo/core/causes';

/** What was seen, as a clause. */
export const SIGN_WORDS: Readonly<Record<Sign, string>> = {
  'no-link': 'the laptop’s socket has no link',
  'nothing-heard': 'nothing at all is heard here',
  silent: 'nothing answers at its address',
  'asks-unanswered': 'it asks for an address and does not have it yet',
  'another-answers': 'another device answers at its address',
  'several-answer': 'more than one device answers at its address',
  'no-ping': 'it answers ARP but not ping',
  elsewhere: 'it was seen with another address',
  'still-at-factory': 'it is still where it was before',
  'fresh-brothers': 'several devices answer at its factory address',
  'other-server': 'a DHCP server that is not planned answers here',
  'voice-taken': 'somebody has the address Ipsonomo would speak from',
  'in-use': 'a controller uses it',
  'other-revision': 'it is of another revision',
  'other-kind': 'it says it is another kind',
  'other-serial': 'it has another serial number',
  'service-closed': 'a service of it does not answer',
  unreadable: 'it sends what cannot be read',
  'other-question': 'it answers another question than was asked',
  'layer2-silent': 'it does not answer over layer 2',
  'name-slip': 'its name is nearly the planned one',
  'name-other': 'it has another name',
  'name-doubled': 'another device has its name',
  'named-without-address': 'its name is right, and it has no address',
  'asks-again': 'after power off and on it asked again',
  tagged: 'frames of other VLANs come in with a tag',
  'answers-for-all': 'one device answers for many addresses',
  twins: 'two devices have its MAC',
  'changes-number': 'it chooses under another number than it asked under',
  'not-settable': 'it refused to keep its address',
  'far-fails': 'by the plan the route to it does not work there and back',
  'drops-in-beat': 'it drops out again and again, in a beat of its own',
  drops: 'it drops out now and then',
  'lamp-off': 'its lamps are dark',
  'lamp-conflict': 'its network lamp is red',
  'display-otherwise': 'its display shows another address',
  'other-vlan': 'the laptop’s socket is in another VLAN than its subnet',
  'other-modules': 'its modules are other than planned',
  'other-sizes': 'its connection has other sizes or instances than planned',
  'connection-faulted': 'it says that a connection to it is faulted',
  'page-read-only': 'nothing can be typed into its page',
};

/** What excludes a cause, as a clause. */
export const COUNTERSIGN_WORDS: Readonly<Record<Countersign, string>> = {
  heard: 'it is heard',
  answers: 'it answers',
  'lamp-on': 'its lamp is lit',
  asks: 'it asks',
  link: 'the laptop has a link',
};

/** What only somebody at the device can see, as they would say it. */
export const SEEN_AT_DEVICE: readonly {
  readonly sign: Sign | Countersign;
  readonly title: string;
}[] = [
  { sign: 'lamp-off', title: 'Its lamps are dark' },
  { sign: 'lamp-on', title: 'Its network lamp is lit' },
  { sign: 'lamp-conflict', title: 'Its network lamp is red' },
  { sign: 'display-otherwise', title: 'Its display shows another address' },
  { sign: 'page-read-only', title: 'Nothing can be typed into its page' },
];
