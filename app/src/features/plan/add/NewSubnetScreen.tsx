import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import {
  firstHostOf,
  formatIpv4,
  formatPrefix,
  hostCountOf,
  lastHostOf,
  parseIpv4,
  readNetwork,
  specialBlocksWithin,
  type Ipv4,
  type Issue,
  type Prefix,
} from '@ipsonomo/core/net';
import { checkSubnet, firstRealm, subnetEdit, type Plan } from '@ipsonomo/core/plan';
import { ADD_WORDS } from '@ipsonomo/language/screens/add';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { newId, useEdit, usePlan } from '../../../data';
import { Field, Notice, Page, Refusals, Words, useKept } from '../../../parts';
import { issuesOf } from '../../words';

const NOTHING = { name: '', network: '', gateway: '', vlan: '' };

/** A new subnet, checked while it is typed. */
export function NewSubnetScreen({ job }: { readonly job: string }) {
  const router = useRouter();
  const { plan } = usePlan(job);
  const add = useEdit(job);
  const [{ name, network, gateway, vlan }, keep, forget] = useKept(`new subnet ${job}`, NOTHING);
  const set = (field: keyof typeof NOTHING) => (text: string) =>
    keep((all) => ({ ...all, [field]: text }));
  const read = readSubnet(plan, network, gateway);
  const vlanOk = vlan === '' || (/^[0-9]+$/.test(vlan) && +vlan >= 1 && +vlan <= 4094);
  const ready = name.trim() !== '' && read.prefix && !read.issues.length && vlanOk;
  const save = () => {
    const { prefix } = read;
    if (!prefix || !plan) return;
    const wanted = {
      ...{ id: newId(), name: name.trim(), prefix, gateway: read.gateway },
      ...{ vlan: vlan === '' ? undefined : Number(vlan), purpose: ADD_WORDS.machineNetwork },
    };
    const why = ADD_WORDS.addedSubnet({ name: wanted.name, network: formatPrefix(prefix) });
    add.mutate(
      { edits: [subnetEdit(plan, wanted)], why },
      {
        onSuccess() {
          forget();
          router.navigate(`/job/${job}/plan`);
        },
      },
    );
  };
  return (
    <Page
      action={
        <Button
          size="lg"
          title={ADD_WORDS.addThisSubnet}
          disabled={!ready}
          loading={add.isPending}
          onPress={save}
        />
      }
    >
      <Words size="title" heading={1}>
        {ADD_WORDS.aNewSubnet}
      </Words>
      <Field
        label={PLAN_WORDS.name}
        value={name}
        onChange={set('name')}
        placeholder={PLAN_WORDS.filterHall}
      />
      <Field
        label={PLAN_WORDS.networkWithPrefixLength}
        value={network}
        onChange={set('network')}
        placeholder="172.22.42.0/24"
        issue={network === '' ? undefined : read.networkIssue}
        figures
      />
      {read.prefix ? <Notice tone="plain">{describe(read.prefix)}</Notice> : null}
      <Field
        label={ADD_WORDS.gatewayIfItHasOne}
        value={gateway}
        onChange={set('gateway')}
        placeholder={read.prefix ? formatIpv4(firstHostOf(read.prefix)) : '172.22.42.1'}
        issue={gateway === '' ? undefined : read.gatewayIssue}
        figures
      />
      <Field
        label={ADD_WORDS.vlanIfItHasOne}
        value={vlan}
        onChange={set('vlan')}
        numeric
        issue={
          vlanOk
            ? undefined
            : {
                code: 'body.invalid',
                where: 'VLAN',
                facts: { misfit: 'integer', least: 1, most: 4094 },
              }
        }
      />
      <Refusals issues={[...read.issues, ...(issuesOf(add.error) ?? [])]} />
    </Page>
  );
}

interface Reading {
  readonly prefix: Prefix | undefined;
  readonly gateway: Ipv4 | undefined;
  readonly networkIssue: Issue | undefined;
  readonly gatewayIssue: Issue | undefined;
  /** What the plan says against it. */
  readonly issues: readonly Issue[];
}

function readSubnet(plan: Plan | undefined, network: string, gatewayText: string): Reading {
  const prefix = readNetwork(network);
  const gateway = gatewayText === '' ? undefined : parseIpv4(gatewayText);
  const value: Ipv4 | undefined = gateway?.ok ? gateway.value : undefined;
  return {
    prefix: prefix.ok ? prefix.value : undefined,
    gateway: value,
    networkIssue: prefix.ok ? undefined : prefix.error,
    gatewayIssue: gateway && !gateway.ok ? gateway.error : undefined,
    issues:
      plan && prefix.ok
        ? checkSubnet(plan, {
            realmId: firstRealm(plan),
            prefix: prefix.value,
            gateway: value,
          })
        : [],
  };
}

function describe(prefix: Prefix): string {
  const range = ADD_WORDS.to({
    prefix: formatIpv4(firstHostOf(prefix)),
    prefix2: formatIpv4(lastHostOf(prefix)),
  });
  const special = specialBlocksWithin(prefix).filter((block) => block.use !== 'free');
  const note =
    special.length > 0 ? ADD_WORDS.touches({ value: special.map((b) => b.name).join(', ') }) : '';
  return ADD_WORDS.addressesForDevices({ prefix: hostCountOf(prefix), range, note });
}
