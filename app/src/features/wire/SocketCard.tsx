import { View } from 'react-native';
import type { JobView, SocketView } from '@ipsonomo/core/api';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import { usePlan, useTraffic, useWire } from '../../data';
import { Card, Notice, Words } from '../../parts';
import { agoWords } from '../words';

/** Which socket the cable is in: found out by listening, without a word. */
export function SocketCard({ job }: { readonly job: string }) {
  const { view } = usePlan(job);
  const { field, now } = useWire();
  const traffic = useTraffic();
  if (!field || !traffic || field.source === null) return null;
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {WIRE_WORDS.yourSocket}
      </Words>
      {field.link === 'up' ? (
        <Socket socket={traffic.socket} view={view} now={now} />
      ) : (
        <Notice tone="brick" title={WIRE_WORDS.noLink}>
          {WIRE_WORDS.theCableIsInNoSocket}
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
    return name === undefined ? WIRE_WORDS.vlan({ tag }) : WIRE_WORDS.vlan2({ tag, name });
  });
  const more = tags.length - named.length;
  return [...named, ...(more > 0 ? [WIRE_WORDS.more({ more })] : [])].join(', ');
}

const MOST_TAGS = 4;

function Socket({ socket, view, now }: Props) {
  const { neighbour, bridge, heardAt, outside } = socket;
  if (heardAt === null)
    return (
      <Notice tone="ochre" title={WIRE_WORDS.nothingAtAllWasHeardYet}>
        {WIRE_WORDS.aSwitchThatSaysWhereOne}
      </Notice>
    );
  const byVlan = view?.subnets.find(({ vlan }) => vlan !== null && vlan === neighbour?.vlan);
  const heard = [...socket.subnets].sort((a, b) => b.count - a.count);
  const most = view?.subnets.find(({ id }) => id === heard[0]?.subnetId);
  return (
    <Card>
      {neighbour ? (
        <>
          <Words size="device">
            {WIRE_WORDS.of({ neighbour: portName(neighbour), system: neighbour.system })}
          </Words>
          <Words size="second" tone="second">
            {[
              portName(neighbour) === neighbour.port ? neighbour.portDescription : neighbour.port,
              neighbour.vlan === null
                ? WIRE_WORDS.noVlanTold
                : WIRE_WORDS.vlan3({ vlan: neighbour.vlan }),
              WIRE_WORDS.told({ at: agoWords(neighbour.at, now) }),
            ]
              .filter(Boolean)
              .join(' · ')}
          </Words>
        </>
      ) : bridge ? (
        <>
          <Words size="device">{WIRE_WORDS.portOfASwitch({ port: bridge.port })}</Words>
          <Words size="second" tone="second">
            {WIRE_WORDS.byItsSpanningTree({ mac: bridge.mac })}
          </Words>
        </>
      ) : (
        <Words size="second">{WIRE_WORDS.theSwitchDoesNotSayWhich}</Words>
      )}
      {socket.tags.length > 0 ? (
        <Notice
          tone="ochre"
          title={WIRE_WORDS.framesOfComeInWithA({ tags: tagWords(socket.tags, view) })}
        >
          {WIRE_WORDS.thePortIsOneForSwitches}
        </Notice>
      ) : null}
      {byVlan ? (
        <Words size="second">
          {WIRE_WORDS.inThePlanThisVlanIs({ name: byVlan.name, network: byVlan.network })}
        </Words>
      ) : null}
      {most ? (
        <Words size="second">
          {WIRE_WORDS.deviceWithAddressesOfHeard({ count: heard[0]?.count ?? 0, name: most.name })}
        </Words>
      ) : null}
      {outside > 0 ? (
        <Words size="second">{WIRE_WORDS.deviceWithAddressesOfNoPlanned({ outside })}</Words>
      ) : null}
      {byVlan && most && byVlan.id !== most.id ? (
        <Notice tone="brick" title={WIRE_WORDS.thatDoesNotGoTogether}>
          {WIRE_WORDS.byItsVlanThisIsBy({ name: byVlan.name, name2: most.name })}
        </Notice>
      ) : null}
    </Card>
  );
}
