import { View } from 'react-native';
import type { HeardView } from '@ipsonomo/core/api';
import { TWIN_WORDS } from '@ipsonomo/language';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { MacText, Words } from '../../../parts';
import { agoWords } from '../../words';

/** One heard client: its MAC, how it asks, how often, how long ago. */
export function HeardLine({
  heard,
  now,
  note,
  bare = false,
}: {
  readonly heard: HeardView;
  readonly now: number;
  readonly note?: string;
  /** Without the MAC, where that stands beside it already. */
  readonly bare?: boolean;
}) {
  const name = heard.hostName ? ASSIGN_WORDS.as({ hostName: heard.hostName }) : '';
  const says = ASSIGN_WORDS.asksByTimeLast({
    protocol: heard.protocol,
    name,
    count: heard.count,
    lastAt: agoWords(heard.lastAt, now),
  });
  return (
    <View>
      {bare ? null : <MacText mac={heard.mac} />}
      <Words size="second" tone="second">
        {says}
      </Words>
      {note ? (
        <Words size="second" tone="second">
          {note}
        </Words>
      ) : null}
      {heard.twins ? <Twins twins={heard.twins} now={now} /> : null}
    </View>
  );
}

/** Two devices behind one MAC, each with what tells it from the other. */
function Twins({
  twins,
  now,
}: {
  readonly twins: NonNullable<HeardView['twins']>;
  readonly now: number;
}) {
  return (
    <View>
      <Words size="second" tone="brick">
        {ASSIGN_WORDS.twoDevicesHaveThisMacNeither}
      </Words>
      {twins.voices.map((voice) => (
        <Words key={voice.transaction} size="second">
          {ASSIGN_WORDS.last({
            value: [
              ...twins.differs.map((name) => `${TWIN_WORDS[name]} ${voice[name] ?? 'none'}`),
            ].join(', '),
            lastAt: agoWords(voice.lastAt, now),
          })}
        </Words>
      ))}
    </View>
  );
}
