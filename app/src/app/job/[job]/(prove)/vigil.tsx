import { useLocalSearchParams } from 'expo-router';
import { VigilScreen } from '../../../../features/prove/vigil/VigilScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <VigilScreen job={job} />;
}
