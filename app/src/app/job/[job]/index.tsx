import { Redirect, useLocalSearchParams } from 'expo-router';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <Redirect href={`/job/${job}/plan`} />;
}
