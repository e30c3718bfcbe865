import { Beside } from '../../parts';
import { RouteList, type Pair } from './RouteList';
import { ThereAndBackPane } from './ThereAndBackPane';

/** One connection; where there is room with the others beside it. */
export function ThereAndBackScreen({ job, from, to }: Pair & { readonly job: string }) {
  return (
    <Beside main="one" list={<RouteList job={job} chosen={{ from, to }} />}>
      <ThereAndBackPane key={`${from} ${to}`} {...{ job, from, to }} />
    </Beside>
  );
}
