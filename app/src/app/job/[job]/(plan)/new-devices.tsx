import { useLocalSearchParams } from 'expo-router';
import { NewDevicesScreen } from '../../../../features/plan/add/NewDevicesScreen';

export default function Route() {
  const { job, kind } = useLocalSearchParams<{ job: string; kind?: string }>();
  return <NewDevicesScreen job={job} kind={kind} />;
}
