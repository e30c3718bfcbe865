import { useLocalSearchParams } from 'expo-router';
import { PlanScreen } from '../../../../screens/plan/PlanScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <PlanScreen job={job} />;
}
