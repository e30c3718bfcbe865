import { useLocalSearchParams } from 'expo-router';
import { DrillScreen } from '../../../../features/prove/drill/DrillScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <DrillScreen job={job} />;
}
