import { useLocalSearchParams } from 'expo-router';
import { LanesScreen } from '../../../../features/routes/LanesScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <LanesScreen job={job} />;
}
