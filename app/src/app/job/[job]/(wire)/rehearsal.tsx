import { useLocalSearchParams } from 'expo-router';
import { RehearsalScreen } from '../../../../features/wire/rehearsal/RehearsalScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <RehearsalScreen job={job} />;
}
