import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatPrefix, hostCountOf } from '@ipsonomo/core/net';
import {
  findDoc,
  lengthFor,
  type Edit,
  type Plan,
  type PlanDoc,
  type Split,
  type ThingDoc,
} from '@ipsonomo/core/plan';
import { editsOfSplit } from '@ipsonomo/core/reshape';
import { BLOCK_WORDS } from '@ipsonomo/language/screens/block';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { newId, useEdit, useJob } from '../../../data';
import { Card, Field, Page, Refusals, useKept, Words } from '../../../parts';
import { useColours } from '../../../theme';
import { ConflictPane, conflictsOf } from '../conflict/ConflictPane';
import { issuesOf } from '../../words';
import {
  draftOf,
  newBlock,
  NEW_NEED,
  readBlock,
  type BlockDraft,
  type NeedDraft,
  type Place,
} from './draft';
import { NeedRow } from './NeedRow';
import { Repack } from './Repack';

/** A block of IT, split into a subnet for each need. */
export function BlockScreen({ job: id, block }: { readonly job: string; readonly block: string }) {
  const { job, error } = useJob(id);
  if (!job) return <Page>{<Refusals issues={issuesOf(error)} />}</Page>;
  const known = job.plan.blocks.find((one) => one.id === block);
  const first = known ? draftOf(known) : newBlock(job.plan);
  return <BlockForm {...{ id, first }} plan={job.plan} doc={job.doc} isNew={!known} />;
}

interface FormProps {
  readonly id: string;
  readonly first: BlockDraft;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly isNew: boolean;
}

/** What is typed, and the block as it was when that was begun. */
interface Begun {
  readonly draft: BlockDraft;
  readonly seen: ThingDoc | null;
}

/** A draft that was kept was begun on what its block was then. */
const withBlock = (doc: PlanDoc, seen: ThingDoc | null): PlanDoc =>
  seen ? { ...doc, block: doc.block.with(new Map([[seen.id, seen]]), new Set()) } : doc;

/** What is typed, and the plan as it was when that was begun: what somebody else changed since is a conflict. */
function useBlockDraft({ id, first, doc, isNew }: Omit<FormProps, 'plan'>) {
  const [openedDoc] = useState(doc);
  const begun = { draft: first, seen: findDoc(doc, 'block', first.id) ?? null };
  const [{ draft, seen }, keep, forget] = useKept<Begun>(
    isNew ? `new block ${id}` : `block ${first.id}`,
    begun,
  );
  const opened = useMemo(() => withBlock(openedDoc, seen), [openedDoc, seen]);
  const setDraft = (next: BlockDraft) => keep((now) => ({ ...now, draft: next }));
  return { draft, setDraft, opened, forget };
}

function BlockForm({ id, first, plan, doc, isNew }: FormProps) {
  const router = useRouter();
  const edit = useEdit(id);
  const { draft, setDraft, opened, forget } = useBlockDraft({ id, first, doc, isNew });
  const conflicts = conflictsOf(edit.error);
  const read = useMemo(() => readBlock(draft), [draft]);
  const change = useMemo(
    () =>
      read.block && read.block.needs.length > 0
        ? editsOfSplit(plan, opened, read.block, newId)
        : undefined,
    [plan, opened, read.block],
  );
  const split = change?.ok ? change.value.split : undefined;
  const added = change?.ok ? change.value.added : [];
  const setNeed = (index: number, need: NeedDraft | undefined) =>
    setDraft({
      ...draft,
      needs: draft.needs.flatMap((one, at) => (at === index ? (need ? [need] : []) : [one])),
    });
  const leave = () => {
    forget();
    router.navigate(`/job/${id}/plan`);
  };
  const write = (edits: readonly Edit[]) =>
    edit.mutate(
      { edits, why: BLOCK_WORDS.splitIntoSubnet({ network: draft.network, added: added.length }) },
      { onSuccess: leave },
    );
  const save = () => change?.ok && write(change.value.edits);
  return (
    <Page
      maxWidth={900}
      action={
        <Button
          size="lg"
          title={
            added.length > 0
              ? BLOCK_WORDS.makeSubnet({ added: added.length })
              : BLOCK_WORDS.keepTheseNeeds
          }
          disabled={!change?.ok || change.value.edits.length === 0}
          loading={edit.isPending}
          onPress={save}
        />
      }
    >
      <Words size="title" heading={1}>
        {isNew ? PLAN_WORDS.splitABlock : PLAN_WORDS.split({ name: first.name })}
      </Words>
      <Words tone="second">{BLOCK_WORDS.whatDidItGiveAndWho}</Words>
      <Field
        label={BLOCK_WORDS.blockWithPrefixLength}
        value={draft.network}
        onChange={(network) => setDraft({ ...draft, network })}
        placeholder="172.22.40.0/21"
        issue={read.networkIssue}
        figures
      />
      <Field
        label={BLOCK_WORDS.whatItIsCalled}
        value={draft.name}
        onChange={(name) => setDraft({ ...draft, name })}
        placeholder={BLOCK_WORDS.blockOfIt}
      />
      {draft.needs.map((need, index) => (
        <NeedRow
          key={index}
          number={index + 1}
          need={need}
          issue={read.needIssues[index]}
          place={placeOf(split, need, read.block?.prefix)}
          onChange={(next) => setNeed(index, next)}
          onRemove={() => setNeed(index, undefined)}
        />
      ))}
      <Button
        type="outline"
        title={BLOCK_WORDS.anotherNeed}
        onPress={() => setDraft({ ...draft, needs: [...draft.needs, NEW_NEED] })}
      />
      <Refusals issues={change && !change.ok ? change.error : []} />
      {split ? <LeftOver split={split} /> : null}
      {read.block && !isNew ? <Repack {...{ id, plan, doc }} block={read.block} /> : null}
      {conflicts.length > 0 ? (
        <Card strong>
          <ConflictPane
            {...{ doc, conflicts }}
            edits={edit.variables?.edits ?? []}
            isBusy={edit.isPending}
            onSettle={write}
            onLeave={leave}
          />
        </Card>
      ) : (
        <Refusals issues={issuesOf(edit.error)} />
      )}
    </Page>
  );
}

/** Where a need came to lie, or why it did not. */
function placeOf(
  split: Split | undefined,
  need: NeedDraft,
  block: Parameters<typeof lengthFor>[1] | undefined,
): Place | undefined {
  const name = need.name.trim();
  const placed = split?.placed.find((one) => one.need.name === name);
  if (placed)
    return {
      network: formatPrefix(placed.prefix),
      detail: BLOCK_WORDS.ofHostsNeeded({
        hosts: placed.hosts,
        prefix: hostCountOf(placed.prefix),
      }),
      isPlaced: true,
    };
  const unplaced = split?.unplaced.find((one) => one.need.name === name);
  if (!unplaced || !block) return undefined;
  const { largest } = unplaced;
  return {
    network: BLOCK_WORDS.needsA({ length: lengthFor(unplaced.need, block) ?? unplaced.wanted }),
    detail:
      largest === undefined
        ? BLOCK_WORDS.nothingIsLeft
        : BLOCK_WORDS.theLargestPartLeft({ largest }),
    isPlaced: false,
  };
}

function LeftOver({ split }: { readonly split: Split }) {
  const colours = useColours();
  const { left } = split;
  return (
    <View style={{ gap: 4, borderTopWidth: 1, borderTopColor: colours.line, paddingTop: 12 }}>
      <Words size="strong">
        {left.length === 0 ? BLOCK_WORDS.nothingIsLeftOver : BLOCK_WORDS.leftOver}
      </Words>
      <Words size="second" tone="second">
        {left.map(formatPrefix).join(', ')}
      </Words>
    </View>
  );
}
