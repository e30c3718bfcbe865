import { useLocalSearchParams } from 'expo-router';
import { AssignScreen } from '../../../../features/calls/assign/AssignScreen';

export default function Route() {
  const { job, narrow } = useLocalSearchParams<{ job: string; narrow?: string }>();
  return <AssignScreen job={job} narrow={narrow} />;
}
