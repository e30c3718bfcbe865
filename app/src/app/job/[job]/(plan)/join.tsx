import { useLocalSearchParams } from 'expo-router';
import { JoinScreen } from '../../../../features/plan/join/JoinScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <JoinScreen job={job} />;
}
