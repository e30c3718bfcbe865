import { Beside } from '../../../parts';
import { RunList } from './RunList';
import { RunPane } from './RunPane';

/** One run; where there is room with the others beside it. */
export function RunScreen({ job, id }: { readonly job: string; readonly id: string }) {
  return (
    <Beside main="one" list={<RunList job={job} chosen={id} />}>
      <RunPane key={id} job={job} id={id} />
    </Beside>
  );
}
