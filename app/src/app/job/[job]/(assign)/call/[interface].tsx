import { useLocalSearchParams } from 'expo-router';
import { Beside } from '../../../../../parts';
import { AssignScreen } from '../../../../../features/calls/assign/AssignScreen';
import { Call } from '../../../../../features/calls/call/Call';

export default function Route() {
  const { job, interface: id } = useLocalSearchParams<{ job: string; interface: string }>();
  return (
    <Beside main="one" list={<AssignScreen job={job} selected={id} />}>
      <Call key={id} job={job} id={id} />
    </Beside>
  );
}
