import { useLocalSearchParams } from 'expo-router';
import { NotFound } from '../../../features/frame/NotFound';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <NotFound back={`/job/${job}/plan`} title="The plan of this job" />;
}
