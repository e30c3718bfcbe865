import { useQuery } from '@tanstack/react-query';
import { Image, Linking, Pressable, View } from 'react-native';
import type { EvidenceView, InterfaceView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { NOTE_WORDS } from '@ipsonomo/language/screens/note';
import { acts, pathOf, reading } from '../../../data';
import { EvidenceStamp, Words } from '../../../parts';
import { NoteCard } from './NoteCard';

/** Everything that was seen of an interface, newest first. */
export function Seen({ job, at }: { readonly job: string; readonly at: InterfaceView }) {
  const { data } = useQuery(reading(acts.readEvidence, { job, interface: at.id }));
  const all = data ?? [];
  return (
    <View style={{ gap: 8 }}>
      {all.length > 0 ? (
        <Words size="strong" heading={2}>
          {COMMON_WORDS.whatWasSeen}
        </Words>
      ) : null}
      <NoteCard key={at.id} job={job} id={at.id} />
      <View>
        {all.map((evidence) => (
          <EvidenceStamp key={evidence.id} evidence={evidence}>
            <Photo job={job} evidence={evidence} />
          </EvidenceStamp>
        ))}
      </View>
    </View>
  );
}

/** The picture that goes with a note; the whole of it opens by a touch. */
function Photo({ job, evidence }: { readonly job: string; readonly evidence: EvidenceView }) {
  if (evidence.kind !== 'said-note' || evidence.facts.photo === undefined) return null;
  const { text, photo } = evidence.facts;
  const uri = pathOf(acts.fetchPhoto, { job, photo });
  const label = text === '' ? NOTE_WORDS.photo : NOTE_WORDS.photoOf({ text });
  return (
    <Pressable
      accessibilityRole="link"
      accessibilityLabel={label}
      onPress={() => void Linking.openURL(uri)}
    >
      <Image
        source={{ uri }}
        accessibilityLabel={label}
        resizeMode="cover"
        style={{ width: 160, height: 120, borderRadius: 4, marginTop: 6 }}
      />
    </Pressable>
  );
}
