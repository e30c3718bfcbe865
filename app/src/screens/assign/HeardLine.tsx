import { View } from 'react-native';
import type { HeardView } from '@ipsonomo/core';
import { MacText, Words } from '../../parts';
import { agoWords, plural } from '../words';

/** One heard client: its MAC, how it asks, how often, how long ago. */
export function HeardLine({
  heard,
  now,
  note,
}: {
  readonly heard: HeardView;
  readonly now: number;
  readonly note?: string;
}) {
  const name = heard.hostName ? ` as “${heard.hostName}”` : '';
  const says = `asks by ${heard.protocol}${name}, ${plural(heard.count, 'time')}, last ${agoWords(heard.lastAt, now)}`;
  return (
    <View>
      <MacText mac={heard.mac} />
      <Words size="second" tone="second">
        {says}
      </Words>
      {note ? (
        <Words size="second" tone="second">
          {note}
        </Words>
      ) : null}
      {heard.twins ? (
        <Words size="second" tone="brick">
          Two devices have this MAC (they differ in: {heard.twins.join(', ')}). Neither is answered.
        </Words>
      ) : null}
    </View>
  );
}
