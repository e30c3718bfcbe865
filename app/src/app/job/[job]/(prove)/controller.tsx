import { useLocalSearchParams } from 'expo-router';
import { ControllerScreen } from '../../../../features/prove/controller/ControllerScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ControllerScreen job={job} />;
}
