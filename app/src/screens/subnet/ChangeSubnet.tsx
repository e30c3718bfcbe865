import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import {
  applyEdits,
  changeOf,
  findDoc,
  planOf,
  renumber,
  type Edit,
  type Plan,
  type PlanDoc,
  type Renumbering,
  type Subnet,
} from '@ipsonomo/core';
import { useEdit } from '../../data';
import { Card, Field, Notice, Refusals, Words } from '../../parts';
import { issuesOf, plural } from '../words';
import { Bands } from './Bands';
import { draftOfSubnet, readSubnetDraft, type SubnetDraft } from './subnet-draft';

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
  if (!isOpen) return <Button type="outline" title="Change this subnet" onPress={open} />;
  return <Form {...props} onClose={() => setOpen(false)} />;
}

function Form({ id, plan, doc, subnet, onClose }: Props & { readonly onClose: () => void }) {
  const edit = useEdit(id);
  const [draft, setDraft] = useState(() => draftOfSubnet(subnet));
  const [now] = useState(() => Date.now());
  const read = useMemo(() => readSubnetDraft(subnet, draft), [subnet, draft]);
  const made = useMemo(() => editsOf({ doc, subnet }, read, now), [doc, subnet, read, now]);
  const set = (field: keyof SubnetDraft) => (text: string) => setDraft({ ...draft, [field]: text });
  return (
    <Card strong>
      <Field label="Name" value={draft.name} onChange={set('name')} issue={read.issues.name} />
      <Field
        label="Network with prefix length"
        value={draft.network}
        onChange={set('network')}
        issue={read.issues.network}
        figures
      />
      {made?.renumbering ? <Moves renumbering={made.renumbering} /> : null}
      <Field
        label="Gateway"
        value={draft.gateway}
        onChange={set('gateway')}
        issue={read.issues.gateway}
        figures
      />
      <Field
        label="VLAN"
        value={draft.vlan}
        onChange={set('vlan')}
        issue={read.issues.vlan}
        numeric
      />
      <Field label="Purpose" value={draft.purpose} onChange={set('purpose')} />
      <Field label="DNS suffix" value={draft.dnsSuffix} onChange={set('dnsSuffix')} figures />
      <Field
        label="DHCP servers that belong here"
        value={draft.dhcpServers}
        onChange={set('dhcpServers')}
        issue={read.issues.dhcpServers}
        figures
      />
      <Field label="Note" value={draft.note} onChange={set('note')} />
      <Bands
        {...{ id, plan, doc, subnet }}
        bands={draft.bands}
        issue={read.issues.bands}
        onChange={(bands) => setDraft({ ...draft, bands })}
      />
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        title="Save"
        disabled={!made || made.edits.length === 0}
        loading={edit.isPending}
        onPress={() =>
          made && edit.mutate({ edits: made.edits, why: made.why }, { onSuccess: onClose })
        }
      />
      <Button type="outline" title="Leave it as it was" onPress={onClose} />
      <RemoveSubnet {...{ id, plan, doc, subnet }} />
    </Card>
  );
}

interface Made {
  readonly edits: readonly Edit[];
  readonly renumbering: Renumbering | undefined;
  readonly why: string;
}

/** First the fields in the old network, then the move with everything that is in it. */
function editsOf(
  { doc, subnet }: Pick<Props, 'doc' | 'subnet'>,
  { thing, prefix }: ReturnType<typeof readSubnetDraft>,
  now: number,
): Made | undefined {
  const before = findDoc(doc, 'subnet', subnet.id);
  if (!thing || !before || !prefix) return undefined;
  const own = changeOf('subnet', before, thing);
  const isMoved =
    prefix.network !== subnet.prefix.network || prefix.length !== subnet.prefix.length;
  if (!isMoved) return { edits: own, renumbering: undefined, why: `changed subnet ${subnet.name}` };
  const changed = applyEdits(doc, own);
  if (!changed.ok) return undefined;
  const next = planOf(changed.value.doc);
  const moved = next.subnets.find((one) => one.id === subnet.id) ?? subnet;
  const renumbering = renumber(next, changed.value.doc, moved, prefix, now);
  const edits = [...own, ...renumbering.edits];
  return { edits, renumbering, why: `renumbered subnet ${subnet.name}` };
}

const MOST = 60;

/** Before and after, with every place where an old address is written. */
function Moves({ renumbering }: { readonly renumbering: Renumbering }) {
  const { rows, left } = renumbering;
  return (
    <Notice tone="ochre" title={`${plural(rows.length, 'address', 'addresses')} would change`}>
      <View style={{ gap: 2 }}>
        {rows.slice(0, MOST).map(({ device, place, before, after, isNew }, index) => (
          <Words key={index} size="caption">
            {device.title}
            {place === 'address' ? '' : `, ${place}`}: {before} → {after}
            {isNew ? ' (another host part)' : ''}
          </Words>
        ))}
        {rows.length > MOST ? <Words size="caption">and {rows.length - MOST} more</Words> : null}
        {left.length > 0 ? (
          <Words size="second" tone="brick">
            No address is left for {left.map((one) => one.title).join(', ')}.
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
      title="Take it out of the plan"
      onPress={() =>
        edit.mutate(
          {
            edits: [{ op: 'remove', type: 'subnet', thing }],
            why: `removed subnet ${subnet.name}`,
          },
          { onSuccess: () => router.navigate(`/job/${id}/plan`) },
        )
      }
    />
  );
}
