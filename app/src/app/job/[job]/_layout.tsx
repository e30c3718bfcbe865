import { useGlobalSearchParams } from 'expo-router';
import { JobFrame } from '../../../features/frame/JobFrame';

export default function JobLayout() {
  // Of the page that is shown: whoever goes from one job to another stays in this layout, whose own parameter stays too.
  const { job } = useGlobalSearchParams<{ job: string }>();
  return <JobFrame job={job} />;
}
