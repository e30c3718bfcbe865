import { useLocalSearchParams } from 'expo-router';
import { ProveScreen } from '../../../../features/prove/ProveScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ProveScreen job={job} />;
}
