import { useLocalSearchParams } from 'expo-router';
import { ThingScreen } from '../../../../../../features/plan/thing/ThingScreen';

export default function Route() {
  const { job, type, id } = useLocalSearchParams<{ job: string; type: string; id: string }>();
  return <ThingScreen key={`${type}|${id}`} {...{ job, type, id }} />;
}
