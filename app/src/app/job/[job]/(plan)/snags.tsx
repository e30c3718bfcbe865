import { useLocalSearchParams } from 'expo-router';
import { SnagsScreen } from '../../../../features/snags/SnagsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <SnagsScreen job={job} />;
}
