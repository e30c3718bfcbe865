import { useQuery } from '@tanstack/react-query';
import { acts, reading } from '../../../data';
import { Beside } from '../../../parts';
import { useWide } from '../../../theme';
import { RunList } from './RunList';
import { RunPane } from './RunPane';

/** The runs that were kept; where there is room the last one beside them. */
export function RunsScreen({ job }: { readonly job: string }) {
  const wide = useWide();
  const last = useQuery(reading(acts.listProofs, { job })).data?.[0];
  if (!wide || !last) return <RunList job={job} />;
  return (
    <Beside main="list" list={<RunList job={job} chosen={last.id} />}>
      <RunPane key={last.id} job={job} id={last.id} />
    </Beside>
  );
}
