import { View } from 'react-native';
import type { JobView, SocketView } from '@ipsonomo/core/api';
import { usePlan, useTraffic, useWire } from '../../data';
import { Card, Notice, Words } from '../../parts';
import { agoWords, plural } from '../words';

/** Which socket the cable is in: found out by listening, without a word. */
export function SocketCard({ job }: { readonly job: string }) {
  const { view } = usePlan(job);
  const { field, now } = useWire();
  const traffic = useTraffic();
  if (!field || !traffic || field.source === null) return null;
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        Your socket
      </Words>
      {field.link === 'up' ? (
        <Socket socket={traffic.socket} view={view} now={now} />
      ) : (
        <Notice tone="brick" title="No link">
          The cable is in no socket that works: look at the lamps at both its ends.
        </Notice>
      )}
    </View>
  );
}

interface Props {
  readonly socket: SocketView;
  readonly view: JobView | undefined;
  readonly now: number;
}

/** Some switches name a port by its MAC; then what they call it says more. */
const portName = ({ port, portDescription }: NonNullable<SocketView['neighbour']>): string =>
  /^([0-9a-f]{2}:){5}/.test(port) && portDescription !== '' ? portDescription : port;

/** "VLAN 41, Feeding, and VLAN 50". */
function tagWords(tags: readonly number[], view: JobView | undefined): string {
  const named = tags.slice(0, MOST_TAGS).map((tag) => {
    const name = view?.subnets.find(({ vlan }) => vlan === tag)?.name;
    return name === undefined ? `VLAN ${tag}` : `VLAN ${tag} (${name})`;
  });
  const more = tags.length - named.length;
  return [...named, ...(more > 0 ? [`${more} more`] : [])].join(', ');
}

const MOST_TAGS = 4;

function Socket({ socket, view, now }: Props) {
  const { neighbour, bridge, heardAt, outside } = socket;
  if (heardAt === null)
    return (
      <Notice tone="ochre" title="Nothing at all was heard yet">
        A switch that says where one is does so every 30 s. If it stays so quiet, the socket may be
        switched off, or in a network of its own.
      </Notice>
    );
  const byVlan = view?.subnets.find(({ vlan }) => vlan !== null && vlan === neighbour?.vlan);
  const heard = [...socket.subnets].sort((a, b) => b.count - a.count);
  const most = view?.subnets.find(({ id }) => id === heard[0]?.subnetId);
  return (
    <Card>
      {neighbour ? (
        <>
          <Words size="device">{`${portName(neighbour)} of ${neighbour.system}`}</Words>
          <Words size="second" tone="second">
            {[
              portName(neighbour) === neighbour.port ? neighbour.portDescription : neighbour.port,
              neighbour.vlan === null ? 'no VLAN told' : `VLAN ${neighbour.vlan}`,
              `told ${agoWords(neighbour.at, now)}`,
            ]
              .filter(Boolean)
              .join(' · ')}
          </Words>
        </>
      ) : bridge ? (
        <>
          <Words size="device">{`Port ${bridge.port} of a switch`}</Words>
          <Words size="second" tone="second">{`${bridge.mac}, by its spanning tree`}</Words>
        </>
      ) : (
        <Words size="second">The switch does not say which one it is.</Words>
      )}
      {socket.tags.length > 0 ? (
        <Notice tone="ochre" title={`Frames of ${tagWords(socket.tags, view)} come in with a tag`}>
          The port is one for switches, or it mirrors another. Field devices want a port that
          carries their own network without a tag; Ipsonomo hears and answers that network alone.
        </Notice>
      ) : null}
      {byVlan ? (
        <Words size="second">{`In the plan this VLAN is ${byVlan.name}, ${byVlan.network}.`}</Words>
      ) : null}
      {most ? (
        <Words size="second">
          {`${plural(heard[0]?.count ?? 0, 'device')} with addresses of ${most.name} heard.`}
        </Words>
      ) : null}
      {outside > 0 ? (
        <Words size="second">{`${plural(outside, 'device')} with addresses of no planned subnet.`}</Words>
      ) : null}
      {byVlan && most && byVlan.id !== most.id ? (
        <Notice tone="brick" title="That does not go together">
          {`By its VLAN this is ${byVlan.name}, by the addresses it is ${most.name}. Is the cable in the right socket, and the port in the right VLAN?`}
        </Notice>
      ) : null}
    </Card>
  );
}
