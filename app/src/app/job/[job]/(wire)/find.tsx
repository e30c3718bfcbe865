import { useLocalSearchParams } from 'expo-router';
import { FindScreen } from '../../../../features/find/FindScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <FindScreen job={job} />;
}
