import { useLocalSearchParams } from 'expo-router';
import { DrillScreen } from '../../../../screens/drill/DrillScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <DrillScreen job={job} />;
}
