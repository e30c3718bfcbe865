import { View } from 'react-native';
import { JobsScreen } from '../features/start/jobs/JobsScreen';

export default function Route() {
  return (
    <View role="main" style={{ flex: 1 }}>
      <JobsScreen />
    </View>
  );
}
