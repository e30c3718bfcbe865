import { Button } from '@rneui/themed';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { DescriptionView } from '@ipsonomo/core/api';
import type { Kind, Plan, PlanDoc } from '@ipsonomo/core/plan';
import { acts, useAct, useDescription, useEdit } from '../../data';
import { Card, Notice, Refusals, Row, Words } from '../../parts';
import { issuesOf, plural } from '../words';
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
        <Button type="outline" title="Leave it" onPress={onDone} />
      </Card>
    );
  if (!data) return <Notice tone="plain">{`${file.name} is being read …`}</Notice>;
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
        edit.mutate({ edits, why: `read ${file.name}` }, { onSuccess: onDone });
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
              label={`${left.has(kind.id) ? 'Take' : 'Leave'} ${kind.name}`}
              selected={!left.has(kind.id)}
              onPress={() => toggle(kind)}
            >
              <Words size="strong">{kind.name}</Words>
              <Words size="caption" tone="second">
                {left.has(kind.id) ? 'left out' : 'taken'} · {kind.orderNumber || kind.stationName}
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
      <Button type="outline" title="Leave it" onPress={onDone} />
    </Card>
  );
}

function titleOf(taken: readonly Kind[], isKnown: (kind: Kind) => boolean): string {
  if (taken.length > 1) return `Put ${taken.length} kinds on the shelf`;
  return taken[0] && isKnown(taken[0]) ? 'Change the kind' : 'Put it on the shelf';
}

function Told({ kind, plan }: { readonly kind: Kind; readonly plan: Plan }) {
  const known = plan.kinds.find((one) => one.id === kind.id);
  return known ? <Differences before={known} after={kind} /> : <KindFacts kind={kind} />;
}

function Unread({ unread }: Pick<DescriptionView, 'unread'>) {
  if (unread.length === 0) return null;
  return (
    <Notice tone="ochre" title={`${plural(unread.length, 'place')} could not be read`}>
      <View>
        {unread.slice(0, MOST_UNREAD).map((one, at) => (
          <Words key={at} size="caption">
            line {one.line}: {[one.text, one.why].filter(Boolean).join(' ')}
          </Words>
        ))}
      </View>
    </Notice>
  );
}

function Differences({ before, after }: { readonly before: Kind; readonly after: Kind }) {
  const old = new Map(factsOf(before));
  const changed = factsOf(after).filter(([name, value]) => old.get(name) !== value);
  if (changed.length === 0) return <Words>It says what the shelf says already.</Words>;
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
