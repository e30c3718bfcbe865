import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, useAct } from '../../../data';
import { MacText, Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import type { Call } from './CallPage';

/** Nothing is bound where a name or a port is the key; this one asked under it last. */
const Asker = ({ mac }: { readonly mac: string }) => (
  <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12, flexWrap: 'wrap' }}>
    <Words size="second" tone="second">
      {CALL_WORDS.askedBy}
    </Words>
    <MacText mac={mac} />
  </View>
);

/** The bound MAC, and the way back from a wrong binding. */
export function Bound({ call }: { readonly call: Call }) {
  const { at, job } = call;
  const unbind = useAct(acts.unbind, { job, interface: at.id });
  const [sure, setSure] = useState(false);
  if (at.mac === null) return at.askedBy ? <Asker mac={at.askedBy} /> : null;
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12, flexWrap: 'wrap' }}>
        <Words size="second" tone="second">
          {CALL_WORDS.boundTo}
        </Words>
        <MacText mac={at.mac} />
      </View>
      <Refusals issues={issuesOf(unbind.error)} />
      <Button
        type="outline"
        title={sure ? CALL_WORDS.yesUnbindItIsAnotherDevice : CALL_WORDS.itIsTheWrongDevice}
        onPress={() => (sure ? unbind.mutate() : setSure(true))}
      />
    </View>
  );
}
