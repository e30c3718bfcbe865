import { useLocalSearchParams } from 'expo-router';
import { DevicePane } from '../../../../../features/plan/device/DevicePane';
import { PlanScreen } from '../../../../../features/plan/PlanScreen';
import { useWide } from '../../../../../theme';

export default function Route() {
  const { job, device } = useLocalSearchParams<{ job: string; device: string }>();
  const wide = useWide();
  if (wide) return <PlanScreen job={job} selected={device} />;
  return <DevicePane job={job} device={device} />;
}
