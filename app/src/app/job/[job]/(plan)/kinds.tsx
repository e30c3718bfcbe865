import { useLocalSearchParams } from 'expo-router';
import { KindsScreen } from '../../../../features/kinds/KindsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <KindsScreen job={job} />;
}
