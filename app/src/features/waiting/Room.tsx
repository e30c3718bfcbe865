import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';
import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { TRUST_WORDS } from '@ipsonomo/language/screens/trust';
import { useCarried } from '../../data';
import { Words } from '../../parts';
import { sizeWords } from '../words';

/** How much this browser keeps, and whether it may take it away (Storage Standard). */
export function Room() {
  const { data } = useQuery({ queryKey: ['room'], queryFn: readRoom });
  const router = useRouter();
  const isEncrypted = globalThis.isSecureContext;
  const carried = useCarried();
  const papers = [...(carried?.values() ?? [])];
  return (
    <>
      {papers.length > 0 ? (
        <Words size="second" tone="second">
          {WAITING_WORDS.papersCarried({
            count: papers.length,
            room: sizeWords(papers.reduce((sum, one) => sum + one, 0)),
          })}
        </Words>
      ) : null}
      {data ? (
        <Words size="second" tone="second">
          {`${WAITING_WORDS.room(data)} ${data.isPromised ? WAITING_WORDS.promised : WAITING_WORDS.notAsked}`}
        </Words>
      ) : null}
      {isEncrypted ? null : (
        <>
          <Words size="second" tone="second">
            {WAITING_WORDS.notOffline}
          </Words>
          <View style={{ alignItems: 'flex-start' }}>
            <Button
              type="outline"
              title={TRUST_WORDS.head}
              onPress={() => router.navigate('/trust')}
            />
          </View>
        </>
      )}
    </>
  );
}

async function readRoom() {
  const { storage } = globalThis.navigator;
  // There is none on a page over plain HTTP.
  if (!(storage as StorageManager | undefined)?.estimate) return null;
  const { usage = 0, quota = 0 } = await storage.estimate();
  const isPromised = await storage.persisted();
  return { used: sizeWords(usage), all: sizeWords(quota), isPromised };
}
