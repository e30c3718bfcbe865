import { Button } from '@rneui/themed';
import { containsAddress, formatIpv4, parseIpv4 } from '@ipsonomo/core/net';
import type { Plan } from '@ipsonomo/core/plan';
import { ASSIGN_WORDS } from '@ipsonomo/language/screens/assign';
import { useEdit } from '../../../data';
import { Refusals } from '../../../parts';
import { issuesOf } from '../../words';

interface Props {
  readonly job: string;
  readonly plan: Plan;
  readonly server: string;
}

/** A DHCP server that is meant to be there is named in the subnet it stands in. */
export function ExpectServer({ job, plan, server }: Props) {
  const edit = useEdit(job);
  const address = parseIpv4(server);
  const subnet = address.ok
    ? plan.subnets.find(({ prefix }) => containsAddress(prefix, address.value))
    : undefined;
  if (!address.ok || !subnet || subnet.dhcpServers.includes(address.value)) return null;
  const from = subnet.dhcpServers.map(formatIpv4);
  const expect = () =>
    edit.mutate({
      edits: [
        {
          ...{ op: 'set', type: 'subnet', id: subnet.id, field: 'dhcpServers' },
          ...{ from, to: [...from, server] },
        },
      ],
      why: ASSIGN_WORDS.theDhcpServerIsMeantTo({ server, name: subnet.name }),
    });
  return (
    <>
      <Refusals issues={issuesOf(edit.error)} />
      <Button
        type="outline"
        title={ASSIGN_WORDS.itIsMeantToBeThere({ name: subnet.name })}
        loading={edit.isPending}
        onPress={expect}
      />
    </>
  );
}
