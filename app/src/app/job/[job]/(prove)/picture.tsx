import { useLocalSearchParams } from 'expo-router';
import { PictureScreen } from '../../../../features/routes/picture/PictureScreen';

export default function Route() {
  const { job } = useLocalSearchParams<{ job: string }>();
  return <PictureScreen job={job} />;
}
