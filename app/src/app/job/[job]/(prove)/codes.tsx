import { useLocalSearchParams } from 'expo-router';
import { CodesScreen } from '../../../../screens/codes/CodesScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <CodesScreen job={job} />;
}
