import { useLocalSearchParams } from 'expo-router';
import { BlockScreen } from '../../../../../features/plan/block/BlockScreen';

export default function Route() {
  const { job, block } = useLocalSearchParams<{ job: string; block: string }>();
  return <BlockScreen key={block} job={job} block={block} />;
}
