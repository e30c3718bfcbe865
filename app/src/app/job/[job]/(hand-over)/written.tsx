import { useLocalSearchParams } from 'expo-router';
import { WrittenScreen } from '../../../../features/hand-over/written/WrittenScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <WrittenScreen job={job} />;
}
