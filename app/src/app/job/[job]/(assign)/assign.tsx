import { useLocalSearchParams } from 'expo-router';
import { AssignScreen } from '../../../../features/calls/assign/AssignScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <AssignScreen job={job} />;
}
