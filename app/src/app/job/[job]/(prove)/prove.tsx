import { useLocalSearchParams } from 'expo-router';
import { ProveScreen } from '../../../../screens/prove/ProveScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ProveScreen job={job} />;
}
