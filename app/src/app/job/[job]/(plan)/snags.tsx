import { useLocalSearchParams } from 'expo-router';
import { SnagsScreen } from '../../../../screens/snags/SnagsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <SnagsScreen job={job} />;
}
