import { useLocalSearchParams } from 'expo-router';
import { RunsScreen } from '../../../../features/prove/runs/RunsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <RunsScreen job={job} />;
}
