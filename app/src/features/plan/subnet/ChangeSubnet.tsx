import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { findDoc, type Plan, type PlanDoc, type Subnet } from '@ipsonomo/core/plan';
import type { Renumbering } from '@ipsonomo/core/reshape';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { SUBNET_WORDS } from '@ipsonomo/language/screens/subnet';
import { useEdit } from '../../../data';
import { Card, Field, Notice, Refusals, useKept, Words } from '../../../parts';
import { ConflictPane, conflictsOf } from '../conflict/ConflictPane';
import { issuesOf } from '../../words';
import { Bands } from './Bands';
import { draftOfSubnet, readSubnetDraft, type SubnetDraft } from './subnet-draft';
import { subnetEdits } from './subnet-edits';

interface Props {
  readonly id: string;
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly subnet: Subnet;
}

/** Everything of a subnet that can be changed; another network renumbers what is in it. */
export function ChangeSubnet({ onOpen, ...props }: Props & { readonly onOpen: () => void }) {
  const [isOpen, setOpen] = useState(false);
  const open = () => {
    onOpen();
    setOpen(true);
  };
  if (!isOpen)
    return <Button type="outline" title={SUBNET_WORDS.changeThisSubnet} onPress={open} />;
  return <Form {...props} close={() => setOpen(false)} />;
}

function Form({ id, plan, doc, subnet, close }: Props & { readonly close: () => void }) {
  const edit = useEdit(id);
  const first = useMemo(() => ({ opened: subnet, draft: draftOfSubnet(subnet) }), [subnet]);
  const [{ opened, draft }, keep, forget] = useKept(`subnet ${subnet.id}`, first);
  const setDraft = (next: SubnetDraft) => keep({ opened, draft: next });
  const onClose = () => {
    forget();
    close();
  };
  const conflicts = conflictsOf(edit.error);
  const [now] = useState(() => Date.now());
  const read = useMemo(() => readSubnetDraft(opened, draft), [opened, draft]);
  const made = useMemo(() => subnetEdits(doc, opened, read, now), [doc, opened, read, now]);
  const set = (field: keyof SubnetDraft) => (text: string) => setDraft({ ...draft, [field]: text });
  if (conflicts.length > 0)
    return (
      <Card strong>
        <ConflictPane
          {...{ doc, conflicts }}
          edits={edit.variables?.edits ?? []}
          isBusy={edit.isPending}
          onSettle={(edits) =>
            edit.mutate({ edits, why: edit.variables?.why ?? '' }, { onSuccess: onClose })
          }
          onLeave={onClose}
        />
      </Card>
    );
  return (
    <Card strong>
      <Field
        label={PLAN_WORDS.name}
        value={draft.name}
        onChange={set('name')}
        issue={read.issues.name}
      />
      <Field
        label={PLAN_WORDS.networkWithPrefixLength}
        value={draft.network}
        onChange={set('network')}
        issue={read.issues.network}
        figures
      />
      {made?.renumbering ? <Moves renumbering={made.renumbering} /> : null}
      <Field
        label={COMMON_WORDS.gateway}
        value={draft.gateway}
        onChange={set('gateway')}
        issue={read.issues.gateway}
        figures
      />
      <Field
        label={SUBNET_WORDS.vlan}
        value={draft.vlan}
        onChange={set('vlan')}
        issue={read.issues.vlan}
        numeric
      />
      <Field label={SUBNET_WORDS.purpose} value={draft.purpose} onChange={set('purpose')} />
      <Field
        label={SUBNET_WORDS.dnsSuffix}
        value={draft.dnsSuffix}
        onChange={set('dnsSuffix')}
        figures
      />
      <Field
        label={SUBNET_WORDS.dhcpServersThatBelongHere}
        value={draft.dhcpServers}
        onChange={set('dhcpServers')}
        issue={read.issues.dhcpServers}
        figures
      />
      <Field label={SUBNET_WORDS.note} value={draft.note} onChange={set('note')} />
      <Bands
        {...{ id, plan, doc, subnet }}
        bands={draft.bands}
        issue={read.issues.bands}
        onChange={(bands) => setDraft({ ...draft, bands })}
      />
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        title={PLAN_WORDS.save}
        disabled={!made || made.edits.length === 0}
        loading={edit.isPending}
        onPress={() =>
          made && edit.mutate({ edits: made.edits, why: made.why }, { onSuccess: onClose })
        }
      />
      <Button type="outline" title={PLAN_WORDS.leaveItAsItWas} onPress={onClose} />
      <RemoveSubnet {...{ id, plan, doc, subnet }} />
    </Card>
  );
}

const MOST = 60;

/** Before and after, with every place where an old address is written. */
function Moves({ renumbering }: { readonly renumbering: Renumbering }) {
  const { rows, left } = renumbering;
  return (
    <Notice tone="ochre" title={SUBNET_WORDS.addressWouldChange({ rows: rows.length })}>
      <View style={{ gap: 2 }}>
        {rows.slice(0, MOST).map(({ device, place, before, after, isNew }, index) => (
          <Words key={index} size="caption">
            {device.title}
            {place === 'address' ? '' : `, ${place}`}: {before} → {after}
            {isNew ? SUBNET_WORDS.anotherHostPart : ''}
          </Words>
        ))}
        {rows.length > MOST ? (
          <Words size="caption">{SUBNET_WORDS.andMore({ rows: rows.length - MOST })}</Words>
        ) : null}
        {left.length > 0 ? (
          <Words size="second" tone="brick">
            {SUBNET_WORDS.noAddressIsLeftFor({ value: left.map((one) => one.title).join(', ') })}
          </Words>
        ) : null}
      </View>
    </Notice>
  );
}

function RemoveSubnet({ id, plan, doc, subnet }: Props) {
  const router = useRouter();
  const edit = useEdit(id);
  const isUsed = plan.devices.some((one) => one.interfaces.some((at) => at.subnetId === subnet.id));
  const thing = findDoc(doc, 'subnet', subnet.id);
  if (isUsed || !thing) return null;
  return (
    <Button
      type="outline"
      title={PLAN_WORDS.takeItOutOfThePlan}
      onPress={() =>
        edit.mutate(
          {
            edits: [{ op: 'remove', type: 'subnet', thing }],
            why: SUBNET_WORDS.removedSubnet({ name: subnet.name }),
          },
          { onSuccess: () => router.navigate(`/job/${id}/plan`) },
        )
      }
    />
  );
}
