import { useLocalSearchParams } from 'expo-router';
import { SwapScreen } from '../../../../../features/calls/swap/SwapScreen';

export default function Route() {
  const { job, interface: id } = useLocalSearchParams<{ job: string; interface: string }>();
  return <SwapScreen key={id} job={job} id={id} />;
}
