import { useLocalSearchParams } from 'expo-router';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { NotFound } from '../../../features/frame/NotFound';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <NotFound back={`/job/${job}/plan`} title={COMMON_WORDS.thePlanOfThisJob} />;
}
