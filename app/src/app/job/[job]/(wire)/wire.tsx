import { useLocalSearchParams } from 'expo-router';
import { WireScreen } from '../../../../features/wire/WireScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <WireScreen job={job} />;
}
