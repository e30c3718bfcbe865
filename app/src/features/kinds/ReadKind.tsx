import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { DescriptionView } from '@ipsonomo/core/api';
import type { Kind, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { unreadWords } from '@ipsonomo/language';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
import { acts, useAct, useDescription, useEdit } from '../../data';
import { Card, Notice, Refusals, Row, Words } from '../../parts';
import { issuesOf } from '../words';
import { editsOfRead, withPaper } from './kind-edits';
import { factsOf, KindFacts } from './KindFacts';
import { kindOfDoc } from './kind-of-doc';

interface Props {
  readonly id: string;
  readonly file: File;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly onDone: () => void;
}

/** A description file: what it says, what it changes, what of it could not be read. */
export function ReadKind(props: Props) {
  const { id, file, onDone } = props;
  const { data, error } = useDescription(id, file);
  if (error)
    return (
      <Card strong>
        <Refusals issues={issuesOf(error)} />
        <Button type="outline" title={COMMON_WORDS.leaveIt} onPress={onDone} />
      </Card>
    );
  if (!data) return <Notice tone="plain">{KINDS_WORDS.isBeingRead({ name: file.name })}</Notice>;
  return <Shown {...props} read={data} />;
}

const MOST_UNREAD = 20;

function Shown({ id, file, plan, doc, read, onDone }: Props & { readonly read: DescriptionView }) {
  const edit = useEdit(id);
  const keep = useAct(acts.keepPaper, { job: id });
  const kinds = useMemo(() => read.kinds.flatMap(kindOfDoc), [read]);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const taken = kinds.filter((kind) => !left.has(kind.id));
  const isKnown = (kind: Kind) => plan.kinds.some((one) => one.id === kind.id);
  const put = () =>
    keep.mutate(file, {
      onSuccess: (paper) => {
        const papers = (before: Kind | undefined) =>
          withPaper(before?.papers ?? [], paper, file.name, 'description');
        const edits = taken.flatMap((kind) => {
          const before = plan.kinds.find((one) => one.id === kind.id);
          return editsOfRead(doc, { ...kind, papers: papers(before) });
        });
        edit.mutate({ edits, why: KINDS_WORDS.read({ name: file.name }) }, { onSuccess: onDone });
      },
    });
  const toggle = (kind: Kind) => {
    const next = new Set(left);
    if (!next.delete(kind.id)) next.add(kind.id);
    setLeft(next);
  };
  return (
    <Card strong>
      {kinds.map((kind) => (
        <View key={kind.id}>
          {kinds.length > 1 ? (
            <Row
              label={KINDS_WORDS.take({ id: left.has(kind.id), name: kind.name })}
              selected={!left.has(kind.id)}
              onPress={() => toggle(kind)}
            >
              <Words size="strong">{kind.name}</Words>
              <Words size="caption" tone="second">
                {left.has(kind.id) ? KINDS_WORDS.leftOut : KINDS_WORDS.taken} ·{' '}
                {kind.orderNumber || kind.stationName}
              </Words>
            </Row>
          ) : (
            <Words size="device" heading={2}>
              {kind.maker}: {kind.name}
            </Words>
          )}
          {left.has(kind.id) ? null : <Told kind={kind} plan={plan} />}
        </View>
      ))}
      <Unread unread={read.unread} />
      <Refusals issues={issuesOf(keep.error ?? edit.error)} />
      <Button
        title={titleOf(taken, isKnown)}
        disabled={taken.length === 0}
        loading={keep.isPending || edit.isPending}
        onPress={put}
      />
      <Button type="outline" title={COMMON_WORDS.leaveIt} onPress={onDone} />
    </Card>
  );
}

function titleOf(taken: readonly Kind[], isKnown: (kind: Kind) => boolean): string {
  if (taken.length > 1) return KINDS_WORDS.putKindsOnTheShelf({ taken: taken.length });
  return taken[0] && isKnown(taken[0]) ? KINDS_WORDS.changeTheKind : KINDS_WORDS.putItOnTheShelf;
}

function Told({ kind, plan }: { readonly kind: Kind; readonly plan: Plan }) {
  const known = plan.kinds.find((one) => one.id === kind.id);
  return known ? <Differences before={known} after={kind} /> : <KindFacts kind={kind} />;
}

function Unread({ unread }: Pick<DescriptionView, 'unread'>) {
  if (unread.length === 0) return null;
  return (
    <Notice tone="ochre" title={KINDS_WORDS.placeCouldNotBeRead({ unread: unread.length })}>
      <View>
        {unread.slice(0, MOST_UNREAD).map((one, at) => (
          <Words key={at} size="caption">
            {KINDS_WORDS.line({
              line: one.line,
              value: [one.text, unreadWords(one.why)].filter(Boolean).join(' '),
            })}
          </Words>
        ))}
      </View>
    </Notice>
  );
}

function Differences({ before, after }: { readonly before: Kind; readonly after: Kind }) {
  const old = new Map(factsOf(before));
  const changed = factsOf(after).filter(([name, value]) => old.get(name) !== value);
  if (changed.length === 0) return <Words>{KINDS_WORDS.itSaysWhatTheShelfSays}</Words>;
  return (
    <View style={{ gap: 2 }}>
      {changed.map(([name, value]) => (
        <Words key={name} size="second">
          {name}: {old.get(name) ?? '–'} → {value}
        </Words>
      ))}
    </View>
  );
}
