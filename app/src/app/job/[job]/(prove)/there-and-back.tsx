import { useLocalSearchParams } from 'expo-router';
import { ThereAndBackScreen } from '../../../../features/routes/ThereAndBackScreen';

export default function Route() {
  const { job, from, to } = useLocalSearchParams<{ job: string; from: string; to: string }>();
  return <ThereAndBackScreen {...{ job, from, to }} />;
}
