import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { Page, TwoColumns, Words } from '../../../parts';
import { ToolList, TOOLS } from './ToolList';

const HALF = Math.ceil(TOOLS.length / 2);

/** The place of everything that proves beside a run. */
export function ToolsScreen({ job }: { readonly job: string }) {
  return (
    <Page maxWidth={1280}>
      <Words size="title" heading={1}>
        {PROVE_WORDS.tools}
      </Words>
      <TwoColumns second={<ToolList job={job} tools={TOOLS.slice(HALF)} />}>
        <ToolList job={job} tools={TOOLS.slice(0, HALF)} />
      </TwoColumns>
    </Page>
  );
}
