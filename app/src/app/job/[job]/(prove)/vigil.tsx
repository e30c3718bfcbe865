import { useLocalSearchParams } from 'expo-router';
import { VigilScreen } from '../../../../screens/vigil/VigilScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <VigilScreen job={job} />;
}
