import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { Page, Words } from '../../../parts';
import { ToolList } from './ToolList';

/** The place of everything that proves beside a run. */
export function ToolsScreen({ job }: { readonly job: string }) {
  return (
    <Page>
      <Words size="title" heading={1}>
        {PROVE_WORDS.tools}
      </Words>
      <ToolList job={job} />
    </Page>
  );
}
