import { Button } from '@rneui/themed';
import { useState } from 'react';
import { MISTAKE_KINDS, MISTAKES_AT_NOBODY, type MistakeKind } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { acts, useAct } from '../../../data';
import { Card, Notice, Pick, Refusals, Words } from '../../../parts';
import { interfaceOptions, issuesOf } from '../../words';
import { MISTAKE_WORDS } from './mistake-words';

const KINDS = MISTAKE_KINDS.map((value) => ({ value, title: MISTAKE_WORDS[value] }));

/** Whoever knows what is wrong says so: it is held against what was put into the site. */
export function ClaimCard({ job, plan }: { readonly job: string; readonly plan: Plan }) {
  const claim = useAct(acts.claimMistake, { job });
  const [kind, setKind] = useState<MistakeKind>();
  const [at, setAt] = useState<string>();
  const isAtNobody = kind !== undefined && MISTAKES_AT_NOBODY.includes(kind);
  const say = () => {
    if (kind === undefined) return;
    claim.mutate({ kind, interfaceId: isAtNobody ? '' : (at ?? '') });
  };
  return (
    <Card>
      <Words size="strong" heading={2}>
        {REHEARSAL_WORDS.whatIsWrong}
      </Words>
      <Pick label={REHEARSAL_WORDS.mistake} options={KINDS} value={kind} onChange={setKind} />
      {isAtNobody ? null : (
        <Pick
          label={REHEARSAL_WORDS.atWhichDevice}
          options={interfaceOptions(plan)}
          value={at}
          onChange={setAt}
        />
      )}
      <Button
        title={REHEARSAL_WORDS.thatIsWrong}
        disabled={kind === undefined || (!isAtNobody && at === undefined)}
        loading={claim.isPending}
        onPress={say}
      />
      {claim.data?.isRight === true ? (
        <Notice tone="moss" title={REHEARSAL_WORDS.found}>
          {REHEARSAL_WORDS.foundAndRight}
        </Notice>
      ) : null}
      {claim.data?.isRight === false ? (
        <Notice tone="ochre" title={REHEARSAL_WORDS.notSo}>
          {REHEARSAL_WORDS.notSoMore}
        </Notice>
      ) : null}
      <Refusals issues={issuesOf(claim.error)} />
    </Card>
  );
}
