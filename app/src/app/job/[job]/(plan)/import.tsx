import { useLocalSearchParams } from 'expo-router';
import { ImportScreen } from '../../../../features/plan/import/ImportScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ImportScreen job={job} />;
}
