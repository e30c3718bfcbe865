import { useLocalSearchParams } from 'expo-router';
import { AssignScreen } from '../../../../screens/assign/AssignScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <AssignScreen job={job} />;
}
