import { useLocalSearchParams } from 'expo-router';
import { SubnetScreen } from '../../../../../features/plan/subnet/SubnetScreen';

export default function Route() {
  const { job, subnet } = useLocalSearchParams<{ job: string; subnet: string }>();
  return <SubnetScreen key={subnet} job={job} subnet={subnet} />;
}
