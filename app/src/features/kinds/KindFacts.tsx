import type { ReactNode } from 'react';
import { View } from 'react-native';
import { ROLE_WORDS, WAY_WORDS } from '@ipsonomo/language';
import type { ConnectionOffer, FactoryState, Kind } from '@ipsonomo/core/plan';
import { formatIpv4 } from '@ipsonomo/core/net';
import { CONNECTION_WORDS } from '@ipsonomo/language/screens/connection';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
import { Card, Words } from '../../parts';

interface Props {
  readonly kind: Kind;
  /** What can be done with it, below what is known. */
  readonly children?: ReactNode;
}

/** What is known of a kind. */
export function KindFacts({ kind, children }: Props) {
  return (
    <Card>
      {kind.ways.map(({ way, first, steps }) => (
        <View key={way} style={{ gap: 2 }}>
          <Words size="strong">{WAY_WORDS[way]}</Words>
          {[...first.map((text) => KINDS_WORDS.first({ text })), ...steps].map((text) => (
            <Words key={text} size="second">
              {text}
            </Words>
          ))}
        </View>
      ))}
      {factsOf(kind).map(([name, value]) => (
        <View key={name} style={{ flexDirection: 'row', gap: 12 }}>
          <View style={{ width: 150 }}>
            <Words size="second" tone="second">
              {name}
            </Words>
          </View>
          <View style={{ flex: 1 }}>
            <Words size="second">{value}</Words>
          </View>
        </View>
      ))}
      {children}
    </Card>
  );
}

type Fact = readonly [name: string, value: string];

/** What is said of a kind, in words; what is not said is left out. */
export function factsOf(kind: Kind): readonly Fact[] {
  const facts: readonly (readonly [name: string, value: string | undefined])[] = [
    [KINDS_WORDS.asItComes, factoryWords(kind.factory)],
    ['role', ROLE_WORDS[kind.role]],
    [KINDS_WORDS.orderNumber, kind.orderNumber],
    ['revision', kind.revision],
    ['switches', kind.switches?.elements.map((one) => one.label).join(', ')],
    [KINDS_WORDS.winsAtPowerUp, kind.wins.join(' before ')],
    [KINDS_WORDS.setBackBy, kind.setBack.join('; ')],
    [KINDS_WORDS.startTakes, `${kind.bootSeconds} s`],
    ['speaks', kind.roles.map(({ protocol, side }) => `${protocol} (${side})`).join(', ')],
    ['services', kind.services.map(({ name, port }) => `${name} ${port}`).join(', ')],
    [
      'identity',
      kind.identity && `${kind.identity.vendor} / ${kind.identity.type} / ${kind.identity.product}`,
    ],
    [KINDS_WORDS.comesNamed, kind.stationName],
    ['station', kind.station && `${kind.station.vendor} / ${kind.station.device}`],
    [CONNECTION_WORDS.connectionsOffered, kind.offers.map(offerWords).join('; ')],
    [KINDS_WORDS.sizesOffered, kind.offeredSizes.join(', ')],
    ['ports', kind.ports.join(', ')],
    ['modules', moduleWords(kind)],
    [KINDS_WORDS.mostConnections, kind.mostConnections?.toString()],
    [KINDS_WORDS.shortestInterval, kind.leastIntervalMillis?.toString().concat(KINDS_WORDS.ms)],
    ['note', kind.note],
  ];
  return facts.flatMap(([name, value]): readonly Fact[] => (value ? [[name, value]] : []));
}

const offerWords = ({ title, inInstance, outInstance, inBytes, outBytes }: ConnectionOffer) =>
  CONNECTION_WORDS.offerLine({
    ...{ title, input: [inInstance, inBytes].map(orDash).join(': ') },
    output: [outInstance, outBytes].map(orDash).join(': '),
  });

const orDash = (value: number | undefined): string => (value === undefined ? '–' : String(value));

const MOST_MODULES = 12;

/** Each module once, with what it takes in a connection. */
function moduleWords({ modules }: Kind): string {
  const all = new Map(
    modules.map((one) => [one.title, `${one.title} (${one.inBytes}/${one.outBytes})`]),
  );
  const shown = [...all.values()].slice(0, MOST_MODULES);
  const more = all.size - shown.length;
  return [...shown, ...(more > 0 ? [KINDS_WORDS.andMore({ more })] : [])].join(', ');
}

function factoryWords(factory: FactoryState): string {
  switch (factory.kind) {
    case 'asks':
      return factory.by === 'bootp' ? KINDS_WORDS.asksByBootp : KINDS_WORDS.asksByDhcp;
    case 'fixed':
      return KINDS_WORDS.has({ address: formatIpv4(factory.address) });
    case 'switches':
      return KINDS_WORDS.whatItsSwitchesSay;
    case 'nameless':
      return KINDS_WORDS.withoutNameAndAddress;
    case 'unknown':
      return KINDS_WORDS.nobodySaidHow;
  }
}
