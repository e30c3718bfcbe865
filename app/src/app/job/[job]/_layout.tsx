import { useLocalSearchParams } from 'expo-router';
import { JobFrame } from '../../../features/frame/JobFrame';

export default function JobLayout() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <JobFrame job={job} />;
}
