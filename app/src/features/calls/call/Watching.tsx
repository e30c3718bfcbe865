import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { acts, reading } from '../../../data';
import { Notice, timeOf, Words } from '../../../parts';
import { CallPage, type Call } from './CallPage';

const PHASES = [
  ['waiting-gone', 'Switch its power off'],
  ['waiting-back', 'Switch it on again'],
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
          {phase === 'waiting-gone' ? 'Waiting to see it gone' : 'Waiting to see it back'}
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
                  ? 'seen gone'
                  : name === 'waiting-back'
                    ? `it starts in about ${boot} s`
                    : ''}
              </Words>
            </View>
          </View>
        ))}
      </View>
      {latest?.kind === 'back-too-soon' ? (
        <Notice tone="ochre" title="That was not a power cut">
          {`It was ${evidenceWords(latest)} (${timeOf(latest.at)}). Once more.`}
        </Notice>
      ) : null}
      <Notice tone="plain">
        The power, not the network cable: a device that keeps its power keeps any address. While it
        is watched Ipsonomo does not answer it, so what it comes back with is its own.
      </Notice>
    </CallPage>
  );
}
