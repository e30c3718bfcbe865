import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import type { InterfaceView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { acts, reading } from '../../../data';
import { EvidenceStamp, Words } from '../../../parts';

/** Everything that was seen of an interface, newest first. */
export function Seen({ job, at }: { readonly job: string; readonly at: InterfaceView }) {
  const { data } = useQuery(reading(acts.readEvidence, { job, interface: at.id }));
  if (!data || data.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {COMMON_WORDS.whatWasSeen}
      </Words>
      {data.map((evidence) => (
        <EvidenceStamp key={evidence.id} evidence={evidence} />
      ))}
    </View>
  );
}
