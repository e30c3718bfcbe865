import { useLocalSearchParams } from 'expo-router';
import { NewSubnetScreen } from '../../../../features/plan/add/NewSubnetScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <NewSubnetScreen job={job} />;
}
