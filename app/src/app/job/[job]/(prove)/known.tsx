import { useLocalSearchParams } from 'expo-router';
import { KnownScreen } from '../../../../features/prove/known/KnownScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <KnownScreen job={job} />;
}
