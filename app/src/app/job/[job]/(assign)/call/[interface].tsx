import { useLocalSearchParams } from 'expo-router';
import { Beside } from '../../../../../parts';
import { AssignScreen } from '../../../../../features/calls/assign/AssignScreen';
import { CallPane } from '../../../../../features/calls/call/CallPane';

export default function Route() {
  const { job, interface: id } = useLocalSearchParams<{ job: string; interface: string }>();
  return (
    <Beside main="one" list={<AssignScreen job={job} selected={id} />}>
      <CallPane key={id} job={job} id={id} />
    </Beside>
  );
}
