import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { FindBook, type Found } from '@ipsonomo/core/find';
import { FIND_WORDS } from '@ipsonomo/language/screens/find';
import { useJob } from '../../data';
import { Field, LinkTo, Page, Words } from '../../parts';
import { TOUCH, useColours } from '../../theme';
import { PAGES_TO_FIND } from './pages';
import { snagsToFind } from './snags-to-find';

const MOST = 30;

/** One field for everything of a job, reached from every page. */
export function FindScreen({ job }: { readonly job: string }) {
  const { job: now } = useJob(job);
  const [wanted, setWanted] = useState('');
  const book = useMemo(
    () => now && new FindBook(now.plan, [...PAGES_TO_FIND, ...snagsToFind(now.snags)]),
    [now],
  );
  const { found, count } = book?.find(wanted, MOST) ?? { found: [], count: 0 };
  return (
    <Page maxWidth={900}>
      <Words size="title" heading={1}>
        {FIND_WORDS.findInThisJob}
      </Words>
      <Field label={FIND_WORDS.label} value={wanted} onChange={setWanted} autoFocus />
      <View>
        {found.map((one) => (
          <FoundLine key={`${one.kind} ${one.id} ${one.title}`} job={job} one={one} />
        ))}
      </View>
      {wanted.trim() !== '' && count === 0 ? (
        <Words tone="second">{FIND_WORDS.nothing}</Words>
      ) : null}
      {count > found.length ? (
        <Words size="second" tone="second">
          {FIND_WORDS.more({ count: count - found.length })}
        </Words>
      ) : null}
    </Page>
  );
}

function FoundLine({ job, one }: { readonly job: string; readonly one: Found }) {
  const colours = useColours();
  const title = one.kind === 'cabinet' ? FIND_WORDS.cabinetLine({ cabinet: one.title }) : one.title;
  return (
    <LinkTo
      href={`/job/${job}/${pathOf(one)}`}
      style={{
        ...{ minHeight: TOUCH, paddingVertical: 8, justifyContent: 'center' },
        ...{ borderBottomWidth: 1, borderBottomColor: colours.line },
      }}
    >
      <Words size="strong">{title}</Words>
      {one.detail === '' ? null : (
        <Words size="second" tone="second">
          {one.detail}
        </Words>
      )}
    </LinkTo>
  );
}

function pathOf({ kind, id }: Found): string {
  switch (kind) {
    case 'device':
      return `device/${encodeURIComponent(id)}`;
    case 'subnet':
      return `subnet/${encodeURIComponent(id)}`;
    case 'cabinet':
      return `assign?narrow=${encodeURIComponent(id)}`;
    case 'page':
    case 'snag':
      return id;
  }
}
