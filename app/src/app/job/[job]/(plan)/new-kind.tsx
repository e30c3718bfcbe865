import { useLocalSearchParams } from 'expo-router';
import { NewKindScreen } from '../../../../features/kinds/short/NewKindScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <NewKindScreen job={job} />;
}
