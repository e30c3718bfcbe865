import { useLocalSearchParams } from 'expo-router';
import { HowLongScreen } from '../../../../features/calls/how-long/HowLongScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <HowLongScreen job={job} />;
}
