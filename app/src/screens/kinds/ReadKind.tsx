import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import {
  changeOf,
  docOf,
  findDoc,
  readEds,
  type Description,
  type Edit,
  type Kind,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core';
import { readTextFile, useEdit } from '../../data';
import { Card, Notice, Refusals, Words } from '../../parts';
import { issuesOf, plural } from '../words';
import { factsOf, KindFacts } from './KindFacts';

interface Props {
  readonly id: string;
  readonly file: File;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly onDone: () => void;
}

const MOST_BYTES = 20_000_000;

const REFUSED = {
  'no-device': 'has no section about a device: it describes none.',
  'no-identity': 'does not say which maker and which product it is about, or not in numbers.',
} as const;

/** A description file: what it says, what it changes, what of it could not be read. */
export function ReadKind({ id, file, plan, doc, onDone }: Props) {
  const isLarge = file.size > MOST_BYTES;
  const { data: text } = useQuery({
    queryKey: ['file', file.name, file.lastModified, file.size],
    queryFn: () => readTextFile(file),
    enabled: !isLarge,
  });
  if (isLarge)
    return (
      <Notice tone="brick">{`${file.name} is larger than 20 MB: no description file is.`}</Notice>
    );
  if (text === undefined) return <Notice tone="plain">{`${file.name} is being read …`}</Notice>;
  const read = readEds(text);
  if (typeof read === 'string')
    return <Notice tone="brick">{`${file.name} ${REFUSED[read]}`}</Notice>;
  return <Shown {...{ id, plan, doc, read, onDone }} name={file.name} />;
}

interface ShownProps extends Omit<Props, 'file'> {
  readonly name: string;
  readonly read: Description;
}

const MOST_UNREAD = 20;

function Shown({ id, name, plan, doc, read, onDone }: ShownProps) {
  const edit = useEdit(id);
  const known = plan.kinds.find((one) => one.id === read.kind.id);
  const edits = editsOf(doc, read.kind);
  return (
    <Card strong>
      <Words size="device" heading={2}>
        {read.kind.maker}: {read.kind.name}
      </Words>
      {known ? <Differences before={known} after={read.kind} /> : <KindFacts kind={read.kind} />}
      {read.unread.length > 0 ? (
        <Notice tone="ochre" title={`${plural(read.unread.length, 'place')} could not be read`}>
          <View>
            {read.unread.slice(0, MOST_UNREAD).map((one) => (
              <Words key={`${one.line}|${one.text}`} size="caption">
                line {one.line}: {one.text} {one.why}
              </Words>
            ))}
          </View>
        </Notice>
      ) : null}
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        title={known ? 'Change the kind' : 'Put it on the shelf'}
        disabled={edits.length === 0}
        loading={edit.isPending}
        onPress={() => edit.mutate({ edits, why: `read ${name}` }, { onSuccess: onDone })}
      />
      <Button type="outline" title="Leave it" onPress={onDone} />
    </Card>
  );
}

/** What a person has said of a kind before (its ways, its steps) stays as it was said. */
const KEPT = ['ways', 'factory', 'switches', 'wins', 'pinning', 'role', 'stem'] as const;

function editsOf(doc: PlanDoc, kind: Kind): readonly Edit[] {
  const thing = docOf('kind', kind);
  const before = findDoc(doc, 'kind', kind.id);
  if (!before) return [{ op: 'add', type: 'kind', thing }];
  const kept = Object.fromEntries(KEPT.map((field) => [field, before[field] ?? null]));
  return changeOf('kind', before, { ...thing, ...kept });
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
