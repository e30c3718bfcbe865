import { useLocalSearchParams } from 'expo-router';
import { CodesScreen } from '../../../../features/prove/codes/CodesScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <CodesScreen job={job} />;
}
