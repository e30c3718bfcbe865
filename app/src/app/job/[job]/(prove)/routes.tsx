import { useLocalSearchParams } from 'expo-router';
import { RoutesScreen } from '../../../../features/routes/RoutesScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <RoutesScreen job={job} />;
}
