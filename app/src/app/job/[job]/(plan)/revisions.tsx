import { useLocalSearchParams } from 'expo-router';
import { RevisionsScreen } from '../../../../screens/revisions/RevisionsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <RevisionsScreen job={job} />;
}
