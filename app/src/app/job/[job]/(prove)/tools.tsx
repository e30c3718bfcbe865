import { useLocalSearchParams } from 'expo-router';
import { ToolsScreen } from '../../../../features/prove/tools/ToolsScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <ToolsScreen job={job} />;
}
