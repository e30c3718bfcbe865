import { View } from 'react-native';
import { JobsScreen } from '../screens/jobs/JobsScreen';

export default function Route() {
  return (
    <View role="main" style={{ flex: 1 }}>
      <JobsScreen />
    </View>
  );
}
