import { useLocalSearchParams } from 'expo-router';
import { NewDevicesScreen } from '../../../../features/plan/add/NewDevicesScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <NewDevicesScreen job={job} />;
}
