import { useLocalSearchParams } from 'expo-router';
import { JobFrame } from '../../../screens/frame/JobFrame';

export default function JobLayout() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <JobFrame job={job} />;
}
