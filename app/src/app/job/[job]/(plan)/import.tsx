import { useLocalSearchParams } from 'expo-router';
import { ImportScreen } from '../../../../screens/import/ImportScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ImportScreen job={job} />;
}
