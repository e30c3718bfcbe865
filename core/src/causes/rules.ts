import type { Countersign, Sign } from './signs';

/** One cause of trouble, as a row: what it needs to be seen, what excludes it, what it explains, how it is tested. */
export interface CauseRule {
  readonly id: string;
  readonly title: string;
  /** All of these must have been seen. */
  readonly needs: readonly (Sign | Countersign)[];
  /** None of these. */
  readonly excludes: readonly (Sign | Countersign)[];
  readonly explains: readonly Sign[];
  /** What singles it out, and what to do. */
  readonly test: string;
  /** How long the test takes, roughly. */
  readonly minutes: number;
  /** What shows afterwards whether it was this. */
  readonly act: CauseAct;
}

/** Ask the device again, look for everybody, search over layer 2, or go on another page. */
export type CauseAct =
  ('check' | 'sweep' | 'search') | ('call' | 'vigil' | 'drill' | 'routes' | 'codes');

const cause = (
  id: string,
  title: string,
  [needs, explains, excludes = []]: readonly [
    needs: CauseRule['needs'],
    explains: readonly Sign[],
    excludes?: CauseRule['excludes'],
  ],
  [test, minutes, act = 'check']: readonly [string, number, CauseAct?],
): CauseRule => ({ id, title, needs, explains, excludes, test, minutes, act });

/** R-CAUSES: every cause that is told apart (common practice, no source, but for what a rule of its own names). */
export const CAUSES: readonly CauseRule[] = [
  cause(
    'laptop-cable',
    'The laptop’s own cable or adapter',
    [['no-link'], ['no-link', 'silent', 'nothing-heard']],
    ['Look at the lamp of the laptop’s socket; plug the cable into another port.', 1],
  ),
  cause(
    'dead-socket',
    'The socket is switched off, or of a network nobody is in',
    [['nothing-heard'], ['nothing-heard', 'silent'], ['heard']],
    ['Plug into a socket in which another device works.', 2],
  ),
  cause(
    'no-power',
    'It has no power, or is still starting',
    [['silent'], ['silent', 'lamp-off'], ['heard', 'answers', 'lamp-on']],
    ['Look at its lamps: dark means no power; blinking, wait for its start.', 1],
  ),
  cause(
    'no-cable',
    'Its cable is out, or in the wrong port',
    [['silent'], ['silent'], ['heard', 'answers', 'lamp-off']],
    ['Look at the lamp of its network plug and of the port at the switch; swap the cable.', 2],
  ),
  cause(
    'wrong-vlan',
    'Its port or the laptop’s is in another VLAN',
    [['silent'], ['silent', 'nothing-heard'], ['heard', 'answers', 'lamp-off']],
    [
      'Plug the laptop into its port: what is heard there is its network. Then look at the VLAN of both ports.',
      5,
    ],
  ),
  cause(
    'other-network',
    'The laptop is plugged into another network than the device is in',
    [['other-vlan'], ['other-vlan', 'silent', 'nothing-heard'], ['answers']],
    ['The socket card names its switch, port and VLAN: plug into one of the device’s network.', 1],
  ),
  cause(
    'trunk-port',
    'The laptop is in a port that carries several networks with tags',
    [['tagged'], ['tagged', 'silent', 'nothing-heard']],
    [
      'The socket card names the VLANs that come in with a tag: move to a port of one network only.',
      1,
    ],
  ),
  cause(
    'other-server',
    'Another server lends addresses on this wire',
    [['other-server'], ['other-server', 'elsewhere', 'asks-unanswered']],
    ['Unplug the one whose address the notice names, and let it ask again.', 2, 'sweep'],
  ),
  cause(
    'voice-taken',
    'Somebody has the address Ipsonomo would speak from',
    [['voice-taken'], ['voice-taken']],
    ['The notice names its MAC; unplug it, or keep a band for service laptops.', 2, 'sweep'],
  ),
  cause(
    'fresh-brothers',
    'Two fresh devices of this kind have the same factory address',
    [
      ['fresh-brothers'],
      ['fresh-brothers', 'several-answer', 'still-at-factory', 'page-read-only'],
    ],
    ['Unplug all but one, look for it again, and do them one after the other.', 2, 'sweep'],
  ),
  cause(
    'doubled',
    'Another device has its address',
    [['another-answers'], ['another-answers', 'asks-unanswered', 'silent', 'lamp-conflict']],
    [
      'Unplug this device: whoever still answers at its address is the other one. Its MAC stands beside it.',
      2,
      'sweep',
    ],
  ),
  cause(
    'doubled-both',
    'Two devices have its address, this one and another',
    [['several-answer'], ['several-answer', 'lamp-conflict', 'no-ping'], ['fresh-brothers']],
    ['Both MACs stand beside it: unplug the one that is not planned.', 2, 'sweep'],
  ),
  cause(
    'another-device',
    'It was replaced, or the label was read wrongly',
    [['another-answers'], ['another-answers', 'other-serial', 'other-kind', 'other-revision']],
    ['Read the label of the device that hangs there, letter by letter.', 3],
  ),
  cause(
    'twins',
    'Two devices have one MAC',
    [['twins'], ['twins', 'asks-unanswered']],
    ['Unplug one of the two: the other then asks alone. Send one of them back.', 3],
  ),
  cause(
    'in-use',
    'A controller has it and does not let it be changed',
    [['in-use'], ['in-use', 'not-settable', 'page-read-only', 'still-at-factory']],
    ['Stop the connection in its controller, then do it again.', 3, 'call'],
  ),
  cause(
    'page-locked',
    'Its controller is connected, so its page cannot be changed',
    [['still-at-factory'], ['still-at-factory', 'page-read-only']],
    ['Open its page: where no field can be typed in, disconnect its controller first.', 2, 'call'],
  ),
  cause(
    'not-restarted',
    'It was stored, but counts only after a restart',
    [['still-at-factory'], ['still-at-factory'], ['page-read-only', 'fresh-brothers']],
    ['Restart it, or power it off and on; then look where it is.', 1, 'sweep'],
  ),
  cause(
    'other-revision',
    'Its hardware or firmware is of another revision than its kind stands for',
    [['other-revision'], ['other-revision', 'service-closed']],
    [
      'Read the revision off its label, and take the description file and the sizes of that one.',
      3,
    ],
  ),
  cause(
    'other-kind',
    'It is another kind of device than planned',
    [['other-kind'], ['other-kind', 'other-revision', 'other-serial', 'service-closed']],
    ['Read the order number off its label and hold it against the plan.', 2],
  ),
  cause(
    'swapped-device',
    'It was swapped for another one of its kind',
    [['other-serial'], ['other-serial', 'other-revision', 'asks-again']],
    ['Read the serial number off its label; ask who changed it.', 2],
  ),
  cause(
    'cut-frames',
    'It sends frames that end in the middle: its firmware, a switch or a tool on the way',
    [['unreadable'], ['unreadable', 'asks-unanswered', 'layer2-silent', 'silent']],
    [
      'Plug the laptop into it directly: if they are still cut, it is the device. Look at its firmware.',
      5,
      'search',
    ],
  ),
  cause(
    'other-question',
    'It answers under the number of another question',
    [['other-question'], ['other-question', 'layer2-silent']],
    ['Ask it again, alone on the cable; if it stays so, look at its firmware.', 3, 'search'],
  ),
  cause(
    'changes-number',
    'It chooses its address under another number than it asked under',
    [['changes-number'], ['changes-number', 'asks-unanswered', 'twins']],
    [
      'The capture shows both numbers. Ipsonomo answers it all the same; another server may not.',
      2,
      'call',
    ],
  ),
  cause(
    'name-slip',
    'Its name differs from the planned one by a slip of the hand',
    [['name-slip'], ['name-slip', 'named-without-address', 'name-other']],
    [
      'Hold both names side by side letter by letter, and give it the planned one again.',
      1,
      'search',
    ],
  ),
  cause(
    'name-doubled',
    'Another device has its name',
    [['name-doubled'], ['name-doubled', 'named-without-address', 'name-other']],
    [
      'The MAC of the other stands beside it: let its lamp flash, and give it its own name.',
      2,
      'search',
    ],
  ),
  cause(
    'used-before',
    'It was used before: another plant’s name or address is in it',
    [['name-other'], ['name-other', 'elsewhere'], ['name-slip', 'name-doubled']],
    ['Set it back to how it left its maker, then give it its name.', 3, 'search'],
  ),
  cause(
    'project-name',
    'The name in the controller’s project is another, by a letter perhaps',
    [['named-without-address'], ['named-without-address'], ['name-slip', 'name-doubled']],
    [
      'Read the name in the controller’s project letter by letter; it is the controller that gives the address.',
      3,
      'search',
    ],
  ),
  cause(
    'controller-away',
    'Its controller is off, in stop, or in another network',
    [['named-without-address'], ['named-without-address'], ['name-slip']],
    ['Look whether the controller is heard on this wire, and at its own lamp.', 2, 'search'],
  ),
  cause(
    'layer2-far',
    'It is behind a router: what is said over layer 2 does not get there',
    [['layer2-silent'], ['layer2-silent', 'silent'], ['heard']],
    ['Plug the laptop into its own switch.', 3, 'search'],
  ),
  cause(
    'kept-old',
    'It keeps an old address, and does not ask',
    [['elsewhere'], ['elsewhere', 'silent', 'display-otherwise'], ['asks', 'other-server']],
    [
      'It was seen with that address: set it back to how it left its maker, then let it ask.',
      3,
      'sweep',
    ],
  ),
  cause(
    'switches-wrong',
    'Its switches, or what was typed into it, say another number',
    [['elsewhere'], ['elsewhere', 'display-otherwise'], ['asks', 'other-server']],
    ['Read its switches against the plan; they count only after power off and on.', 2, 'sweep'],
  ),
  cause(
    'not-answered',
    'It asks and nobody answers it',
    [
      ['asks-unanswered'],
      ['asks-unanswered', 'silent'],
      ['other-server', 'another-answers', 'unreadable', 'twins', 'elsewhere'],
    ],
    ['Bind its MAC and let Ipsonomo answer.', 1, 'call'],
  ),
  cause(
    'not-pinned',
    'It was never told to keep its address',
    [['asks-again'], ['asks-again', 'asks-unanswered', 'silent']],
    ['Give it its address again, tell it to keep it, and cut its power once.', 3, 'drill'],
  ),
  cause(
    'proxy-arp',
    'A router answers for every address',
    [
      ['answers-for-all'],
      ['answers-for-all', 'another-answers', 'several-answer', 'lamp-conflict'],
    ],
    [
      'One MAC answers for many addresses: switch off its answering for others (proxy ARP).',
      3,
      'sweep',
    ],
  ),
  cause(
    'ping-blocked',
    'It does not answer ping by its settings, or a filter is in the way',
    [['no-ping'], ['no-ping', 'far-fails']],
    [
      'Look whether its page or its service answers; then switch ping on, or note that its kind does not answer.',
      2,
    ],
  ),
  cause(
    'gateway-wrong',
    'Its gateway or mask is missing or wrong: it answers near and not far',
    [['far-fails'], ['far-fails', 'no-ping'], ['silent']],
    ['Walk the route there and back; read mask and gateway off the device.', 3, 'routes'],
  ),
  cause(
    'service-off',
    'The service is switched off in it, or a filter is in the way',
    [['service-closed'], ['service-closed']],
    ['Look on its page whether the protocol is switched on.', 3],
  ),
  cause(
    'restarts-in-beat',
    'It restarts, or its supply breaks down, in a beat of its own',
    [['drops-in-beat'], ['drops-in-beat', 'asks-again']],
    [
      'Watch its lamps over one beat: all dark, or starting anew, is its supply or itself.',
      2,
      'vigil',
    ],
  ),
  cause(
    'blocked-in-beat',
    'Something on the way blocks it in a beat: a second device with its MAC, a tree of switches that settles anew',
    [['drops-in-beat'], ['drops-in-beat', 'twins', 'several-answer']],
    [
      'Its lamps stay lit: plug the laptop into its own switch and watch again. If it is gone there too, look for its MAC at two ports.',
      5,
      'vigil',
    ],
  ),
  cause(
    'loose-cable',
    'A loose plug, a damaged cable, or too long a one',
    [['drops'], ['drops'], ['drops-in-beat']],
    [
      'Move its plug and cable while the vigil goes on; look at the error counters of its port.',
      3,
      'vigil',
    ],
  ),
  cause(
    'overloaded',
    'It, or the wire, has too much to do at times',
    [['drops'], ['drops'], ['drops-in-beat']],
    [
      'Look whether others are slow at the same moments: then it is the wire, else the device.',
      4,
      'vigil',
    ],
  ),
  cause(
    'not-settable',
    'It does not let its address be set over the wire',
    [['not-settable'], ['not-settable']],
    ['Read its status on its page; take off what guards it, or use its own way.', 4, 'call'],
  ),
  cause(
    'other-modules',
    'Its modules are plugged in otherwise than planned',
    [['other-modules'], ['other-modules', 'connection-faulted']],
    [
      'Go along the station slot by slot with the list: move the module, or let the plan take it.',
      5,
    ],
  ),
  cause(
    'other-sizes',
    'Its connection carries other sizes than planned, or at other instances',
    [['other-sizes'], ['other-sizes', 'connection-faulted'], ['other-modules']],
    ['Look at its settings for the connection, and at the revision of its description file.', 5],
  ),
  cause(
    'connection-broken',
    'Its controller’s connection was refused or broke off',
    [['connection-faulted'], ['connection-faulted']],
    [
      'Read the code of the connection in the controller, and what it means under Codes.',
      2,
      'codes',
    ],
  ),
];
