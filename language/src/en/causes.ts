import type { CauseId, Countersign, Sign } from '@ipsonomo/core/causes';

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

export interface CauseWords {
  readonly title: string;
  /** What singles it out, and what to do. */
  readonly test: string;
}

/** Every cause that is told apart (common practice, no source). */
export const CAUSE_WORDS: Readonly<Record<CauseId, CauseWords>> = {
  'laptop-cable': {
    title: 'The laptop’s own cable or adapter',
    test: 'Look at the lamp of the laptop’s socket; plug the cable into another port.',
  },
  'dead-socket': {
    title: 'The socket is switched off, or of a network nobody is in',
    test: 'Plug into a socket in which another device works.',
  },
  'no-power': {
    title: 'It has no power, or is still starting',
    test: 'Look at its lamps: dark means no power; blinking, wait for its start.',
  },
  'no-cable': {
    title: 'Its cable is out, or in the wrong port',
    test: 'Look at the lamp of its network plug and of the port at the switch; swap the cable.',
  },
  'wrong-vlan': {
    title: 'Its port or the laptop’s is in another VLAN',
    test: 'Plug the laptop into its port: what is heard there is its network. Then look at the VLAN of both ports.',
  },
  'other-network': {
    title: 'The laptop is plugged into another network than the device is in',
    test: 'The socket card names its switch, port and VLAN: plug into one of the device’s network.',
  },
  'trunk-port': {
    title: 'The laptop is in a port that carries several networks with tags',
    test: 'The socket card names the VLANs that come in with a tag: move to a port of one network only.',
  },
  'other-server': {
    title: 'Another server lends addresses on this wire',
    test: 'Unplug the one whose address the notice names, and let it ask again.',
  },
  'voice-taken': {
    title: 'Somebody has the address Ipsonomo would speak from',
    test: 'The notice names its MAC; unplug it, or keep a band for service laptops.',
  },
  'fresh-brothers': {
    title: 'Two fresh devices of this kind have the same factory address',
    test: 'Unplug all but one, look for it again, and do them one after the other.',
  },
  doubled: {
    title: 'Another device has its address',
    test: 'Unplug this device: whoever still answers at its address is the other one. Its MAC stands beside it.',
  },
  'doubled-both': {
    title: 'Two devices have its address, this one and another',
    test: 'Both MACs stand beside it: unplug the one that is not planned.',
  },
  'another-device': {
    title: 'It was replaced, or the label was read wrongly',
    test: 'Read the label of the device that hangs there, letter by letter.',
  },
  twins: {
    title: 'Two devices have one MAC',
    test: 'Unplug one of the two: the other then asks alone. Send one of them back.',
  },
  'in-use': {
    title: 'A controller has it and does not let it be changed',
    test: 'Stop the connection in its controller, then do it again.',
  },
  'page-locked': {
    title: 'Its controller is connected, so its page cannot be changed',
    test: 'Open its page: where no field can be typed in, disconnect its controller first.',
  },
  'not-restarted': {
    title: 'It was stored, but counts only after a restart',
    test: 'Restart it, or power it off and on; then look where it is.',
  },
  'other-revision': {
    title: 'Its hardware or firmware is of another revision than its kind stands for',
    test: 'Read the revision off its label, and take the description file and the sizes of that one.',
  },
  'other-kind': {
    title: 'It is another kind of device than planned',
    test: 'Read the order number off its label and hold it against the plan.',
  },
  'swapped-device': {
    title: 'It was swapped for another one of its kind',
    test: 'Read the serial number off its label; ask who changed it.',
  },
  'cut-frames': {
    title: 'It sends frames that end in the middle: its firmware, a switch or a tool on the way',
    test: 'Plug the laptop into it directly: if they are still cut, it is the device. Look at its firmware.',
  },
  'other-question': {
    title: 'It answers under the number of another question',
    test: 'Ask it again, alone on the cable; if it stays so, look at its firmware.',
  },
  'changes-number': {
    title: 'It chooses its address under another number than it asked under',
    test: 'The capture shows both numbers. Ipsonomo answers it all the same; another server may not.',
  },
  'name-slip': {
    title: 'Its name differs from the planned one by a slip of the hand',
    test: 'Hold both names side by side letter by letter, and give it the planned one again.',
  },
  'name-doubled': {
    title: 'Another device has its name',
    test: 'The MAC of the other stands beside it: let its lamp flash, and give it its own name.',
  },
  'used-before': {
    title: 'It was used before: another plant’s name or address is in it',
    test: 'Set it back to how it left its maker, then give it its name.',
  },
  'project-name': {
    title: 'The name in the controller’s project is another, by a letter perhaps',
    test: 'Read the name in the controller’s project letter by letter; it is the controller that gives the address.',
  },
  'controller-away': {
    title: 'Its controller is off, in stop, or in another network',
    test: 'Look whether the controller is heard on this wire, and at its own lamp.',
  },
  'layer2-far': {
    title: 'It is behind a router: what is said over layer 2 does not get there',
    test: 'Plug the laptop into its own switch.',
  },
  'kept-old': {
    title: 'It keeps an old address, and does not ask',
    test: 'It was seen with that address: set it back to how it left its maker, then let it ask.',
  },
  'switches-wrong': {
    title: 'Its switches, or what was typed into it, say another number',
    test: 'Read its switches against the plan; they count only after power off and on.',
  },
  'not-answered': {
    title: 'It asks and nobody answers it',
    test: 'Bind its MAC and let Ipsonomo answer.',
  },
  'not-pinned': {
    title: 'It was never told to keep its address',
    test: 'Give it its address again, tell it to keep it, and cut its power once.',
  },
  'proxy-arp': {
    title: 'A router answers for every address',
    test: 'One MAC answers for many addresses: switch off its answering for others (proxy ARP).',
  },
  'ping-blocked': {
    title: 'It does not answer ping by its settings, or a filter is in the way',
    test: 'Look whether its page or its service answers; then switch ping on, or note that its kind does not answer.',
  },
  'gateway-wrong': {
    title: 'Its gateway or mask is missing or wrong: it answers near and not far',
    test: 'Walk the route there and back; read mask and gateway off the device.',
  },
  'service-off': {
    title: 'The service is switched off in it, or a filter is in the way',
    test: 'Look on its page whether the protocol is switched on.',
  },
  'restarts-in-beat': {
    title: 'It restarts, or its supply breaks down, in a beat of its own',
    test: 'Watch its lamps over one beat: all dark, or starting anew, is its supply or itself.',
  },
  'blocked-in-beat': {
    title:
      'Something on the way blocks it in a beat: a second device with its MAC, a tree of switches that settles anew',
    test: 'Its lamps stay lit: plug the laptop into its own switch and watch again. If it is gone there too, look for its MAC at two ports.',
  },
  'loose-cable': {
    title: 'A loose plug, a damaged cable, or too long a one',
    test: 'Move its plug and cable while the vigil goes on; look at the error counters of its port.',
  },
  overloaded: {
    title: 'It, or the wire, has too much to do at times',
    test: 'Look whether others are slow at the same moments: then it is the wire, else the device.',
  },
  'not-settable': {
    title: 'It does not let its address be set over the wire',
    test: 'Read its status on its page; take off what guards it, or use its own way.',
  },
  'other-modules': {
    title: 'Its modules are plugged in otherwise than planned',
    test: 'Go along the station slot by slot with the list: move the module, or let the plan take it.',
  },
  'other-sizes': {
    title: 'Its connection carries other sizes than planned, or at other instances',
    test: 'Look at its settings for the connection, and at the revision of its description file.',
  },
  'connection-broken': {
    title: 'Its controller’s connection was refused or broke off',
    test: 'Read the code of the connection in the controller, and what it means under Codes.',
  },
};
