import { useLocalSearchParams } from 'expo-router';
import { AssignScreen } from '../../../../screens/assign/AssignScreen';
import { CallPane } from '../../../../screens/call/CallPane';
import { useWide } from '../../../../theme';

export default function Route() {
  const { job, interface: id } = useLocalSearchParams<{ job: string; interface: string }>();
  const wide = useWide();
  if (wide) return <AssignScreen job={job} selected={id} />;
  return <CallPane key={id} job={job} id={id} />;
}
