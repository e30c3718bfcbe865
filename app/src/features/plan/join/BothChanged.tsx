import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { JOIN_WORDS } from '@ipsonomo/language/screens/join';
import { acts, reading } from '../../../data';
import { Notice } from '../../../parts';

/** That another laptop changed the same, and nobody decided; nothing where there is nothing to decide. */
export function BothChanged({ job }: { readonly job: string }) {
  const { data: joined } = useQuery(reading(acts.readJoined, { job }));
  const router = useRouter();
  const count = joined?.clashes.length ?? 0;
  if (count === 0) return null;
  return (
    <Notice tone="ochre" title={JOIN_WORDS.bothChanged({ count })}>
      <Button
        type="outline"
        title={JOIN_WORDS.decide}
        onPress={() => router.navigate(`/job/${job}/join`)}
      />
    </Notice>
  );
}
