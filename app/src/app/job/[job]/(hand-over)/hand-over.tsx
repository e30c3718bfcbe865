import { useLocalSearchParams } from 'expo-router';
import { HandOverScreen } from '../../../../features/hand-over/HandOverScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <HandOverScreen job={job} />;
}
