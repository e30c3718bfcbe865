import { useLocalSearchParams } from 'expo-router';
import { CopyScreen } from '../../../../features/plan/copy/CopyScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <CopyScreen job={job} />;
}
