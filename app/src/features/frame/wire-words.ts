import { format } from 'date-fns/format';
import { sourceWords } from '@ipsonomo/language';
import type { FieldNow } from '../../data';
import { plural } from '../words';

// How a wire stands, in a few words.

export const isTroubled = (field: FieldNow | undefined): boolean =>
  field !== undefined && (field.link !== 'up' || field.notices.some(isTrouble));

/** What stands below was true then. */
export const awayWords = (since: number): string =>
  `what you see is of ${format(since, 'HH:mm:ss')}`;

/** What the laptop is called on this wire: spoken from, or its own address while it is silent. */
export function whoWords(field: FieldNow | undefined, isSending: boolean): string | undefined {
  if (!field) return undefined;
  const spoken = field.voices.map((voice) => voice.address);
  const [first, ...more] = isSending ? spoken : field.ownAddresses;
  if (first === undefined) return undefined;
  return `as ${first}${more.length > 0 ? ` +${more.length}` : ''}`;
}

/** That nobody else answered is told, and no trouble. */
const isTrouble = ({ code }: FieldNow['notices'][number]): boolean => code !== 'no-other-server';

export function wireWords(field: FieldNow | undefined): string {
  if (!field) return 'Asking the server';
  if (field.source === null) return 'No wire chosen';
  const name = field.source === 'practice' ? 'Practice site' : sourceWords(field.source);
  if (field.link === 'gone') return `${name}: adapter gone`;
  return field.link === 'down' ? `${name}: no link` : name;
}

const PROOF_WORDS = { sweep: 'looking for everybody', strangers: 'asking strangers' } as const;

function proofWords(proof: FieldNow['proof']): string {
  if (proof?.phase === 'sweep' || proof?.phase === 'strangers')
    return `Proving: ${PROOF_WORDS[proof.phase]}`;
  return `Proving, ${proof?.left ?? 0} to go`;
}

export function stateWords(field: FieldNow | undefined, now: number): string {
  if (!field?.source) return 'tap to choose';
  const [task] = field.tasks;
  if ((field.answeringUntil ?? 0) > now) return `Answering ${plural(field.answers, 'device')}`;
  if (field.tasks.some(({ kind }) => kind === 'prove')) return proofWords(field.proof);
  if (field.tasks.some(({ kind }) => kind === 'vigil')) return 'Keeping a vigil';
  if (task?.kind === 'check') return `Asking ${plural(field.tasks.length, 'device')}`;
  if (task?.kind === 'watch-power') return 'Watching its power';
  if (task?.kind === 'identify') return 'Asking whether it is in use';
  if (task?.kind === 'pin' || task?.kind === 'station-set') return 'Talking to a device';
  if (task?.kind === 'search') return 'Searching over layer 2';
  if (task?.kind === 'sweep') return `Asking for every address, ${task.phase}`;
  if (task?.kind === 'walk') return `Walking to a device, ${task.phase}`;
  if (task?.kind === 'page') return 'Its page is open';
  if (task?.kind === 'follow') return 'Following a device';
  if (task?.kind === 'flash') return 'Flashing a lamp';
  if (task?.kind === 'look-for-servers') return 'Looking for other DHCP servers';
  return field.runId === null ? 'silent, not listening' : 'silent, listening';
}

/** That other wires of this server answer, which nothing on this page ends. */
export const othersWords = (count: number): string =>
  count === 0 ? '' : ` · ${plural(count, 'other job')} ${count === 1 ? 'answers' : 'answer'} too`;

export const othersShort = (count: number): string =>
  count === 0 ? '' : ` · +${plural(count, 'job')}`;
