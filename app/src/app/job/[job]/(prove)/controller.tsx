import { useLocalSearchParams } from 'expo-router';
import { ControllerScreen } from '../../../../screens/controller/ControllerScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ControllerScreen job={job} />;
}
