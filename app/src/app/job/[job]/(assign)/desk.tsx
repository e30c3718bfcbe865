import { useLocalSearchParams } from 'expo-router';
import { DeskScreen } from '../../../../features/calls/desk/DeskScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <DeskScreen job={job} />;
}
