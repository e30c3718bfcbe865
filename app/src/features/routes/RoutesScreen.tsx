import { useQuery } from '@tanstack/react-query';
import { neededRoutesQuery, useJob } from '../../data';
import { Beside } from '../../parts';
import { useWide } from '../../theme';
import { RouteList } from './RouteList';
import { ThereAndBackPane } from './ThereAndBackPane';

/** The connections the job needs; where there is room the first that fails, or the first, beside them. */
export function RoutesScreen({ job: id }: { readonly job: string }) {
  const wide = useWide();
  const { job } = useJob(id);
  const routes = useQuery(neededRoutesQuery(job?.now)).data ?? [];
  const first = routes.find(({ works }) => works !== 'yes') ?? routes[0];
  if (!wide || !first) return <RouteList job={id} />;
  return (
    <Beside main="list" list={<RouteList job={id} chosen={first} />}>
      <ThereAndBackPane key={`${first.from} ${first.to}`} {...{ job: id, ...pairOf(first) }} />
    </Beside>
  );
}

const pairOf = ({ from, to }: { readonly from: string; readonly to: string }) => ({ from, to });
