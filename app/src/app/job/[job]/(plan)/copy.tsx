import { useLocalSearchParams } from 'expo-router';
import { CopyScreen } from '../../../../screens/copy/CopyScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <CopyScreen job={job} />;
}
