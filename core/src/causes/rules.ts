import type { Countersign, Sign } from './signs';

/** One cause of trouble, as a row: what it needs to be seen, what excludes it, what it explains, how it is tested. */
export interface CauseRule<Id extends string = string> {
  readonly id: Id;
  /** All of these must have been seen. */
  readonly needs: readonly (Sign | Countersign)[];
  /** None of these. */
  readonly excludes: readonly (Sign | Countersign)[];
  readonly explains: readonly Sign[];
  /** How long the test takes, roughly. */
  readonly minutes: number;
  /** What shows afterwards whether it was this. */
  readonly act: CauseAct;
}

/** Ask the device again, look for everybody, search over layer 2, or go on another page. */
export type CauseAct =
  ('check' | 'sweep' | 'search') | ('call' | 'vigil' | 'drill' | 'routes' | 'codes');

const cause = <Id extends string>(
  id: Id,
  [needs, explains, excludes = []]: readonly [
    needs: CauseRule['needs'],
    explains: readonly Sign[],
    excludes?: CauseRule['excludes'],
  ],
  [minutes, act = 'check']: readonly [number, CauseAct?],
): CauseRule<Id> => ({ id, needs, explains, excludes, minutes, act });

/** R-CAUSES: every cause that is told apart (common practice, no source, but for what a rule of its own names). */
export const CAUSES = [
  cause('laptop-cable', [['no-link'], ['no-link', 'silent', 'nothing-heard']], [1]),
  cause('dead-socket', [['nothing-heard'], ['nothing-heard', 'silent'], ['heard']], [2]),
  cause('no-power', [['silent'], ['silent', 'lamp-off'], ['heard', 'answers', 'lamp-on']], [1]),
  cause('no-cable', [['silent'], ['silent'], ['heard', 'answers', 'lamp-off']], [2]),
  cause(
    'wrong-vlan',
    [['silent'], ['silent', 'nothing-heard'], ['heard', 'answers', 'lamp-off']],
    [5],
  ),
  cause(
    'other-network',
    [['other-vlan'], ['other-vlan', 'silent', 'nothing-heard'], ['answers']],
    [1],
  ),
  cause('trunk-port', [['tagged'], ['tagged', 'silent', 'nothing-heard']], [1]),
  cause(
    'other-server',
    [['other-server'], ['other-server', 'elsewhere', 'asks-unanswered']],
    [2, 'sweep'],
  ),
  cause('voice-taken', [['voice-taken'], ['voice-taken']], [2, 'sweep']),
  cause(
    'fresh-brothers',
    [
      ['fresh-brothers'],
      ['fresh-brothers', 'several-answer', 'still-at-factory', 'page-read-only'],
    ],
    [2, 'sweep'],
  ),
  cause(
    'doubled',
    [['another-answers'], ['another-answers', 'asks-unanswered', 'silent', 'lamp-conflict']],
    [2, 'sweep'],
  ),
  cause(
    'doubled-both',
    [['several-answer'], ['several-answer', 'lamp-conflict', 'no-ping'], ['fresh-brothers']],
    [2, 'sweep'],
  ),
  cause(
    'another-device',
    [['another-answers'], ['another-answers', 'other-serial', 'other-kind', 'other-revision']],
    [3],
  ),
  cause('twins', [['twins'], ['twins', 'asks-unanswered']], [3]),
  cause(
    'in-use',
    [['in-use'], ['in-use', 'not-settable', 'page-read-only', 'still-at-factory']],
    [3, 'call'],
  ),
  cause('page-locked', [['still-at-factory'], ['still-at-factory', 'page-read-only']], [2, 'call']),
  cause(
    'not-restarted',
    [['still-at-factory'], ['still-at-factory'], ['page-read-only', 'fresh-brothers']],
    [1, 'sweep'],
  ),
  cause('other-revision', [['other-revision'], ['other-revision', 'service-closed']], [3]),
  cause(
    'other-kind',
    [['other-kind'], ['other-kind', 'other-revision', 'other-serial', 'service-closed']],
    [2],
  ),
  cause(
    'swapped-device',
    [['other-serial'], ['other-serial', 'other-revision', 'asks-again']],
    [2],
  ),
  cause(
    'cut-frames',
    [['unreadable'], ['unreadable', 'asks-unanswered', 'layer2-silent', 'silent']],
    [5, 'search'],
  ),
  cause('other-question', [['other-question'], ['other-question', 'layer2-silent']], [3, 'search']),
  cause(
    'changes-number',
    [['changes-number'], ['changes-number', 'asks-unanswered', 'twins']],
    [2, 'call'],
  ),
  cause(
    'name-slip',
    [['name-slip'], ['name-slip', 'named-without-address', 'name-other']],
    [1, 'search'],
  ),
  cause(
    'name-doubled',
    [['name-doubled'], ['name-doubled', 'named-without-address', 'name-other']],
    [2, 'search'],
  ),
  cause(
    'used-before',
    [['name-other'], ['name-other', 'elsewhere'], ['name-slip', 'name-doubled']],
    [3, 'search'],
  ),
  cause(
    'project-name',
    [['named-without-address'], ['named-without-address'], ['name-slip', 'name-doubled']],
    [3, 'search'],
  ),
  cause(
    'controller-away',
    [['named-without-address'], ['named-without-address'], ['name-slip']],
    [2, 'search'],
  ),
  cause('layer2-far', [['layer2-silent'], ['layer2-silent', 'silent'], ['heard']], [3, 'search']),
  cause(
    'kept-old',
    [['elsewhere'], ['elsewhere', 'silent', 'display-otherwise'], ['asks', 'other-server']],
    [3, 'sweep'],
  ),
  cause(
    'switches-wrong',
    [['elsewhere'], ['elsewhere', 'display-otherwise'], ['asks', 'other-server']],
    [2, 'sweep'],
  ),
  cause(
    'not-answered',
    [
      ['asks-unanswered'],
      ['asks-unanswered', 'silent'],
      ['other-server', 'another-answers', 'unreadable', 'twins', 'elsewhere'],
    ],
    [1, 'call'],
  ),
  cause('not-pinned', [['asks-again'], ['asks-again', 'asks-unanswered', 'silent']], [3, 'drill']),
  cause(
    'proxy-arp',
    [
      ['answers-for-all'],
      ['answers-for-all', 'another-answers', 'several-answer', 'lamp-conflict'],
    ],
    [3, 'sweep'],
  ),
  cause('ping-blocked', [['no-ping'], ['no-ping', 'far-fails']], [2]),
  cause('gateway-wrong', [['far-fails'], ['far-fails', 'no-ping'], ['silent']], [3, 'routes']),
  cause('service-off', [['service-closed'], ['service-closed']], [3]),
  cause('restarts-in-beat', [['drops-in-beat'], ['drops-in-beat', 'asks-again']], [2, 'vigil']),
  cause(
    'blocked-in-beat',
    [['drops-in-beat'], ['drops-in-beat', 'twins', 'several-answer']],
    [5, 'vigil'],
  ),
  cause('loose-cable', [['drops'], ['drops'], ['drops-in-beat']], [3, 'vigil']),
  cause('overloaded', [['drops'], ['drops'], ['drops-in-beat']], [4, 'vigil']),
  cause('not-settable', [['not-settable'], ['not-settable']], [4, 'call']),
  cause('other-modules', [['other-modules'], ['other-modules', 'connection-faulted']], [5]),
  cause(
    'other-sizes',
    [['other-sizes'], ['other-sizes', 'connection-faulted'], ['other-modules']],
    [5],
  ),
  cause('connection-broken', [['connection-faulted'], ['connection-faulted']], [2, 'codes']),
];

export type CauseId = (typeof CAUSES)[number]['id'];
