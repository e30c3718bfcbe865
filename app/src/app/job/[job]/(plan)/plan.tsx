import { useLocalSearchParams } from 'expo-router';
import { PlanScreen } from '../../../../features/plan/PlanScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <PlanScreen job={job} />;
}
