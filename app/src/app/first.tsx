import { View } from 'react-native';
import { FirstScreen } from '../features/start/first/FirstScreen';

export default function Route() {
  return (
    <View role="main" style={{ flex: 1 }}>
      <FirstScreen />
    </View>
  );
}
