import { useLocalSearchParams } from 'expo-router';
import { RevisionsScreen } from '../../../../features/plan/revisions/RevisionsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <RevisionsScreen job={job} />;
}
