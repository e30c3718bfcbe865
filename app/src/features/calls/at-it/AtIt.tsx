import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import type { TakenCallView } from '@ipsonomo/core/api';
import { AT_IT_WORDS } from '@ipsonomo/language/screens/at-it';
import { acts, useAct } from '../../../data';
import { Field, Notice, Refusals, timeOf, Words, useDraft } from '../../../parts';
import { issuesOf } from '../../words';
import { useTakenCall } from './use-taken-call';

interface Props {
  readonly job: string;
  readonly id: string;
}

/** R-AT-IT: whoever goes to this device says so, and that they have left; nothing while somebody else is there. */
export function AtIt({ job, id }: Props) {
  const one = useTakenCall(job, id);
  const take = useAct(acts.takeCall, { job, interface: id });
  const leave = useAct(acts.leaveCall, { job, interface: id });
  if (one && !one.isOwn) return null;
  return (
    <>
      <Refusals issues={issuesOf(take.error ?? leave.error)} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
        {one ? <Words size="second">{ownWords(one)}</Words> : null}
        <Button
          type="clear"
          title={one ? AT_IT_WORDS.iHaveLeft : AT_IT_WORDS.iAmAtIt}
          loading={take.isPending || leave.isPending}
          onPress={() => (one ? leave.mutate() : take.mutate({}))}
        />
      </View>
    </>
  );
}

function ownWords({ since, takenFrom }: TakenCallView): string {
  const at = timeOf(since);
  return takenFrom === null
    ? AT_IT_WORDS.youAreAtIt({ since: at })
    : AT_IT_WORDS.youTookItOver({ person: takenFrom.person, since: at });
}

/** Who else is at this device, told before anything is done there. Nobody is kept from acting. */
export function SomebodyElse({ job, id }: Props) {
  const one = useTakenCall(job, id);
  return one && !one.isOwn ? <Other {...{ job, id, one }} /> : null;
}

/** Somebody else is at it, or took it over. */
function Other({ job, id, one }: Props & { readonly one: TakenCallView }) {
  const { person, takenFrom } = one;
  const since = timeOf(one.since);
  const isMine = takenFrom?.isMe ?? false;
  const [word, setWord, forget] = useDraft(`word at ${id}`);
  const [isAsked, setAsked] = useState(false);
  const take = useAct(acts.takeCall, { job, interface: id });
  const title = isMine
    ? AT_IT_WORDS.tookItOverFromYou({ person, since })
    : AT_IT_WORDS.isAtIt({ person, since });
  return (
    <Notice tone="ochre" title={title}>
      {isMine && takenFrom?.word ? (
        <Words size="second">{AT_IT_WORDS.theirWord({ word: takenFrom.word })}</Words>
      ) : (
        <Words size="second">{AT_IT_WORDS.twoAtOne}</Words>
      )}
      {isAsked ? (
        <Field label={AT_IT_WORDS.aWordTo({ person })} value={word} onChange={setWord} />
      ) : null}
      <Refusals issues={issuesOf(take.error)} />
      <Button
        type="outline"
        title={AT_IT_WORDS.takeItOver}
        disabled={isAsked && word.trim() === ''}
        loading={take.isPending}
        onPress={() => (isAsked ? take.mutate({ word }, { onSuccess: forget }) : setAsked(true))}
      />
    </Notice>
  );
}
