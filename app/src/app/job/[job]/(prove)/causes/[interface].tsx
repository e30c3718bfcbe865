import { useLocalSearchParams } from 'expo-router';
import { CausesScreen } from '../../../../../features/routes/causes/CausesScreen';

export default function Route() {
  const params = useLocalSearchParams<{ job: string; interface: string }>();
  return <CausesScreen job={params.job} at={params.interface} />;
}
