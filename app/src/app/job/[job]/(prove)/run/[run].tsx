import { useLocalSearchParams } from 'expo-router';
import { RunScreen } from '../../../../../features/prove/runs/RunScreen';

export default function Route() {
  const { job, run } = useLocalSearchParams<{ job: string; run: string }>();
  return <RunScreen job={job} id={run} />;
}
