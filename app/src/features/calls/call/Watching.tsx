import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, reading } from '../../../data';
import { Notice, timeOf, Words } from '../../../parts';
import { CallPage, type Call } from './CallPage';

const PHASES = [
  ['waiting-gone', CALL_WORDS.switchItsPowerOff],
  ['waiting-back', CALL_WORDS.switchItOnAgain],
] as const;

/** A device watched through power off and on, or as it comes up for the first time. */
export function Watching({ call, phase }: { readonly call: Call; readonly phase: string }) {
  const at = PHASES.findIndex(([name]) => name === phase);
  const [latest] =
    useQuery(reading(acts.readEvidence, { job: call.job, interface: call.at.id })).data ?? [];
  const boot = call.kind?.bootSeconds ?? 10;
  return (
    <CallPage
      call={call}
      action={
        <Words size="strong" align="center">
          {phase === 'waiting-gone' ? CALL_WORDS.waitingToSeeItGone : CALL_WORDS.waitingToSeeItBack}
        </Words>
      }
    >
      <View style={{ gap: 12 }}>
        {PHASES.map(([name, words], index) => (
          <View key={name} style={{ flexDirection: 'row', gap: 14, alignItems: 'center' }}>
            <Words size="device" tone={index < at ? 'moss' : index === at ? 'plum' : 'second'}>
              {index < at ? '✓' : String(index + 1)}
            </Words>
            <View>
              <Words size={index === at ? 'device' : 'body'} tone={index > at ? 'second' : 'ink'}>
                {words}
              </Words>
              <Words size="second" tone="second">
                {index < at
                  ? CALL_WORDS.seenGone
                  : name === 'waiting-back'
                    ? CALL_WORDS.itStartsInAboutS({ boot })
                    : ''}
              </Words>
            </View>
          </View>
        ))}
      </View>
      {latest?.kind === 'back-too-soon' ? (
        <Notice tone="ochre" title={CALL_WORDS.thatWasNotAPowerCut}>
          {CALL_WORDS.itWasOnceMore({ latest: evidenceWords(latest), at: timeOf(latest.at) })}
        </Notice>
      ) : null}
      <Notice tone="plain">{CALL_WORDS.thePowerNotTheNetworkCable}</Notice>
    </CallPage>
  );
}
