import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { findDoc, type Plan, type PlanDoc, type Subnet } from '@ipsonomo/core/plan';
import type { Renumbering } from '@ipsonomo/core/reshape';
import { useEdit } from '../../../data';
import { Card, Field, Notice, Refusals, Words } from '../../../parts';
import { ConflictPane, conflictsOf } from '../conflict/ConflictPane';
import { issuesOf, plural } from '../../words';
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
  if (!isOpen) return <Button type="outline" title="Change this subnet" onPress={open} />;
  return <Form {...props} onClose={() => setOpen(false)} />;
}

function Form({ id, plan, doc, subnet, onClose }: Props & { readonly onClose: () => void }) {
  const edit = useEdit(id);
  const [opened] = useState(subnet);
  const [draft, setDraft] = useState(() => draftOfSubnet(subnet));
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
