import { format } from 'date-fns/format';
import { isToday } from 'date-fns/isToday';
import { sourceWords } from '@ipsonomo/language';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import type { WireElsewhere } from '@ipsonomo/core/api';
import type { FieldNow } from '../../data';

/** Sites that stand in no machine. */
const SITES: Readonly<Record<string, string>> = {
  practice: COMMON_WORDS.practiceSite,
  rehearsal: REHEARSAL_WORDS.rehearsal,
};

// How a wire stands, in a few words.

export const isTroubled = (field: FieldNow | undefined): boolean =>
  field !== undefined && (field.link !== 'up' || field.notices.some(isTrouble));

/** What stands below was true then. */
export function awayWords(since: number, wide: boolean): string {
  const told = { since: format(since, isToday(since) ? 'HH:mm:ss' : 'd MMM HH:mm') };
  return wide ? FRAME_WORDS.whatYouSeeIsOf(told) : FRAME_WORDS.asOf(told);
}

/** What the laptop is called on this wire: spoken from, or its own address while it is silent. */
export function whoWords(field: FieldNow | undefined, isSending: boolean): string | undefined {
  if (!field) return undefined;
  const spoken = field.voices.map((voice) => voice.address);
  const [first, ...more] = isSending ? spoken : field.ownAddresses;
  if (first === undefined) return undefined;
  return FRAME_WORDS.as({ first, more: more.length > 0 ? ` +${more.length}` : '' });
}

/** That nobody else answered is told, and no trouble. */
const isTrouble = ({ code }: FieldNow['notices'][number]): boolean => code !== 'no-other-server';

/** What a wire is called. @param source `practice`, `live:eth0` */
export const sourceName = (source: string): string => SITES[source] ?? sourceWords(source);

/** What goes on at a wire of another laptop. */
export const elsewhereWords = (wire: WireElsewhere, now: number): string =>
  stateWords(
    {
      ...{ source: wire.source, answeringUntil: wire.answeringUntil, answers: wire.answers },
      ...{ proof: null, runId: wire.person },
      tasks: wire.doing.map((kind) => ({ kind, phase: '' })),
    },
    now,
  );

export function wireWords(field: FieldNow | undefined): string {
  if (!field) return FRAME_WORDS.askingTheServer;
  if (field.source === null) return FRAME_WORDS.noWireChosen;
  const name = sourceName(field.source);
  if (field.link === 'gone') return FRAME_WORDS.adapterGone({ name });
  return field.link === 'down' ? FRAME_WORDS.noLink({ name }) : name;
}

const PROOF_WORDS = {
  sweep: FRAME_WORDS.lookingForEverybody,
  strangers: FRAME_WORDS.askingStrangers,
} as const;

function proofWords(proof: FieldNow['proof']): string {
  if (proof?.phase === 'sweep' || proof?.phase === 'strangers')
    return FRAME_WORDS.proving({ phase: PROOF_WORDS[proof.phase] });
  return FRAME_WORDS.provingToGo({ left: proof?.left ?? 0 });
}

/** What of a wire says what goes on there. */
type Standing = Pick<FieldNow, 'source' | 'answeringUntil' | 'answers' | 'proof' | 'runId'> & {
  readonly tasks: readonly Pick<FieldNow['tasks'][number], 'kind' | 'phase'>[];
};

export function stateWords(field: Standing | undefined, now: number): string {
  if (!field?.source) return FRAME_WORDS.tapToChoose;
  const [task] = field.tasks;
  if ((field.answeringUntil ?? 0) > now)
    return FRAME_WORDS.answeringDevice({ answers: field.answers });
  if (field.tasks.some(({ kind }) => kind === 'prove')) return proofWords(field.proof);
  if (field.tasks.some(({ kind }) => kind === 'vigil')) return FRAME_WORDS.keepingAVigil;
  if (task?.kind === 'check') return FRAME_WORDS.askingDevice({ tasks: field.tasks.length });
  if (task?.kind === 'watch-power') return FRAME_WORDS.watchingItsPower;
  if (task?.kind === 'identify') return FRAME_WORDS.askingWhetherItIsInUse;
  if (task?.kind === 'pin' || task?.kind === 'station-set') return FRAME_WORDS.talkingToADevice;
  if (task?.kind === 'search') return FRAME_WORDS.searchingOverLayer2;
  if (task?.kind === 'sweep') return COMMON_WORDS.askingForEveryAddress({ phase: task.phase });
  if (task?.kind === 'walk') return FRAME_WORDS.walkingToADevice({ phase: task.phase });
  if (task?.kind === 'page') return FRAME_WORDS.itsPageIsOpen;
  if (task?.kind === 'follow') return FRAME_WORDS.followingADevice;
  if (task?.kind === 'flash') return FRAME_WORDS.flashingALamp;
  if (task?.kind === 'look-for-servers') return FRAME_WORDS.lookingForOtherDhcpServers;
  return field.runId === null ? FRAME_WORDS.silentNotListening : FRAME_WORDS.silentListening;
}

/** That other wires of this server answer, which nothing on this page ends. */
export const othersWords = (count: number): string =>
  count === 0 ? '' : FRAME_WORDS.otherJobAnswersToo({ count });

export const othersShort = (count: number): string =>
  count === 0 ? '' : FRAME_WORDS.job({ count });
