import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { WAITING_WORDS } from '@ipsonomo/language/screens/waiting';

/** The way back from a page that is no job's: where somebody came from, else to all jobs. */
export function BackLine() {
  const router = useRouter();
  return (
    <View style={{ alignItems: 'flex-start' }}>
      <Button
        type="clear"
        title={WAITING_WORDS.back}
        onPress={() => (router.canGoBack() ? router.back() : router.navigate('/'))}
      />
    </View>
  );
}
