import { useLocalSearchParams } from 'expo-router';
import { HelpScreen } from '../../../../features/help/HelpScreen';

export default function Route() {
  const { of } = useLocalSearchParams<{ of?: string }>();
  return <HelpScreen of={of} />;
}
