import type { Issue } from '@ipsonomo/core/net';
import type { Mend, MendLabel, Snag, SnagFacts, SnagRule, Severity } from '@ipsonomo/core/snags';
import { sentenceOf } from './refusals';
import { ROLE_WORDS } from './evidence';
import { WAY_WORDS } from '@ipsonomo/core/plan';

type Sentences = { readonly [Rule in SnagRule]: (facts: SnagFacts[Rule]) => string };

/** A snag in two short sentences: what it is, with its values; and what it will do, or how it came. */
const SENTENCES: Sentences = {
  'S-FOUND': ({ what, how }) => `${what} was found (${how}), and nobody planned it yet.`,
  'S-SUBNET-OVERLAP': ({ subnet, network, other, otherNetwork }) =>
    `${subnet} (${network}) overlaps ${other} (${otherNetwork}). Neither way between them works.`,
  'S-SUBNET-NEVER': ({ subnet, network, block }) =>
    `${subnet} (${network}) lies in the block “${block}”: no device can be there.`,
  'S-SUBNET-LINK-LOCAL': ({ subnet, network }) =>
    `${subnet} (${network}) is link-local space: devices choose there by themselves, and no router passes it.`,
  'S-SUBNET-DOCUMENTATION': ({ subnet, network }) =>
    `${subnet} (${network}) is kept for examples in documents. Was it copied from one?`,
  'S-SUBNET-SHARED': ({ subnet, network }) =>
    `${subnet} (${network}) is shared space of carriers. IT may route it elsewhere.`,
  'S-SUBNET-PUBLIC': ({ subnet, network }) =>
    `${subnet} (${network}) is public space. If it is yours, say so in its note.`,
  'S-SUBNET-HOME': ({ subnet, network }) =>
    `${subnet} (${network}) is what many home and office networks have. A laptop with both cannot tell them apart.`,
  'S-SUBNET-BLOCK': ({ subnet, network, blocks }) =>
    `${subnet} (${network}) is in none of the blocks of its realm (${blocks}).`,
  'S-SUBNET-SMALL': ({ subnet, devices, room }) =>
    `${subnet} has room for ${room} devices; ${devices} are planned.`,
  'S-SUBNET-GROWTH': ({ subnet, devices, free }) =>
    `${subnet} has ${devices} devices and ${free} addresses left: less than a tenth to grow.`,
  'S-VLAN-TWICE': ({ subnet, vlan, other }) =>
    `VLAN ${vlan} is that of ${other} and of ${subnet}: two subnets on one wire.`,
  'S-REALM-GONE': ({ subnet }) => `${subnet} is in a realm that is no longer in the plan.`,
  'S-RANGE-OUTSIDE': ({ subnet, network, first, last, note }) =>
    `${first}–${last} (${roleWord(note)}) reaches outside ${subnet} (${network}).`,
  'S-BAND-OVERLAP': ({ subnet, band, other, first }) =>
    `In ${subnet} the bands ${roleWord(other)} and ${roleWord(band)} overlap from ${first} on.`,
  'S-BAND-FULL': ({ subnet, band }) =>
    `The band ${roleWord(band)} of ${subnet} has no address left.`,
  'S-GATEWAY-OUTSIDE': ({ subnet, network, gateway, role }) =>
    role === 'outside'
      ? `The gateway ${gateway} is outside ${subnet} (${network}): nobody can reach it.`
      : `The gateway ${gateway} is the ${role} address of ${subnet} (${network}).`,
  'S-GATEWAY-DEVICE': ({ device, address, subnet }) =>
    `${device} has ${address}, the gateway of ${subnet}: with it on the wire nothing finds its way out.`,
  'S-GATEWAY-MISSING': ({ device, controller, side }) =>
    side === 'device'
      ? `${device} is in another subnet than its controller ${controller} and has no gateway: its answers stay.`
      : `${controller} is in another subnet than ${device} and has no gateway: its requests stay.`,
  'S-GATEWAY-NOBODY': ({ subnet, gateway }) =>
    `No router of the plan has ${gateway}, the gateway of ${subnet}.`,
  'S-FACTORY-WIRE': ({ subnet, address, count, devices }) =>
    `${count} devices come with ${address} into ${subnet} (${devices} …). Connect them one at a time.`,
  'S-BLOCK-NEED': ({ block, network, need, where }) =>
    `${need} (${where}) does not fit in ${block} (${network}).`,
  'S-SUBNET-GONE': ({ device, address }) =>
    `${device} (${address}) is in a subnet that is no longer in the plan.`,
  'S-ADDRESS-TWICE': ({ address, devices, count }) =>
    count === 2
      ? `${address} is given twice: ${devices}.`
      : `${address} is given ${count} times: ${devices}.`,
  'S-ADDRESS-ON-BOTH': ({ device, address }) =>
    `Two interfaces of ${device} have ${address}. It cannot tell its own networks apart.`,
  'S-ADDRESS-OUTSIDE': ({ device, address, subnet, network }) =>
    `${device} has ${address}, outside ${subnet} (${network}).`,
  'S-ADDRESS-SLIP': ({ device, address, meant, how, subnet }) =>
    `${device} has ${address}; ${HOW[String(how)] ?? ''}. In ${subnet} it would be ${meant}.`,
  'S-ADDRESS-NETWORK': ({ device, address, network }) =>
    `${device} has ${address}, the name of the network ${network} itself.`,
  'S-ADDRESS-BROADCAST': ({ device, address, network }) =>
    `${device} has ${address}, the broadcast address of ${network}.`,
  'S-ADDRESS-NEVER': ({ device, address, block }) =>
    `${device} has ${address}, of the block “${block}”: no device can have it.`,
  'S-ADDRESS-HELD': ({ device, address, note }) =>
    `${device} has ${address}, which others hold (${note}).`,
  'S-ADDRESS-POOL': ({ device, address, subnet }) =>
    `${device} has ${address} for good, but it lies in the pool of ${subnet}: the DHCP server may give it to another.`,
  'S-ADDRESS-LAPTOPS': ({ device, address }) =>
    `${device} has ${address}, of the band for service laptops.`,
  'S-ADDRESS-BAND': ({ device, address, band, role }) =>
    `${device} (${roleWord(role)}) has ${address}, of the band ${roleWord(band)}.`,
  'S-ADDRESS-EDGE': ({ device, address, last }) =>
    `${device} has ${address}. Its kind refuses addresses that end in ${last}, though this one is legal.`,
  'S-ADDRESS-FACTORY': ({ device, address, other }) =>
    `${device} has ${address}, the address a fresh ${other} comes with: the two meet when it is changed.`,
  'S-ADDRESS-PROPOSED': ({ device, address, kind }) =>
    `${device} has ${address}, which the project of ${kind} proposes by itself: easily given twice.`,
  'S-ADDRESS-FREED': ({ device, address, whose }) =>
    `${device} has ${address}, which was ${whose}'s until lately. Old lists and devices may still say so.`,
  'S-LOAN-OUTSIDE': ({ device, lent, network }) =>
    `${device} was lent ${lent}, which no device can have in ${network}.`,
  'S-LOAN-KEPT': ({ device, lent, subnet, whose }) =>
    `${device} was lent ${lent}, which is ${LOAN_KEPT[String(whose)] ?? 'kept'} in ${subnet}.`,
  'S-SERVER-DEVICE': ({ device, address, subnet }) =>
    `${device} has ${address}, where the DHCP server of ${subnet} is: with it on the wire neither works.`,
  'S-MASK-GAP': ({ device, mask }) =>
    `${device} has the mask ${mask}: its ones are not in one piece.`,
  'S-MASK-OTHER': ({ device, mask, wanted, effect }) =>
    effect === 'wide'
      ? `${device} has the mask ${mask}; its subnet has ${wanted}. It looks for far devices on its own wire.`
      : `${device} has the mask ${mask}; its subnet has ${wanted}. It sends its neighbours' traffic to the gateway.`,
  'S-OWN-GATEWAY': ({ device, gateway, network, why }) =>
    why === 'self'
      ? `${device} is its own gateway (${gateway}).`
      : why === 'outside'
        ? `${device} has the gateway ${gateway}, outside its network ${network}.`
        : `${device} has the gateway ${gateway}, which is the ${why} address of ${network}.`,
  'S-GATEWAYS-TWO': ({ device, gateways }) =>
    `${device} has two default gateways (${gateways}): which one it takes is luck.`,
  'S-INTERFACES-ONE-SUBNET': ({ device, subnet }) =>
    `Two interfaces of ${device} are in ${subnet}. What comes in at one may be answered by the other.`,
  'S-MAC-TWICE': ({ mac, devices }) => `The MAC ${mac} is bound twice: ${devices}.`,
  'S-MAC-GROUP': ({ device, mac }) => `${device} has ${mac}, a group address. No device has one.`,
  'S-SWITCH-CODE': ({ device, last, act, kind }) =>
    `${device} ends in ${last}; on the switches of ${kind} that means “${ACTS[String(act)] ?? act}”, no address.`,
  'S-SWITCH-NEVER': ({ device, address, kind }) =>
    `${device} has ${address}; the switches of ${kind} cannot make it.`,
  'S-SWITCH-BASE': ({ device, address, base }) =>
    `${device} has ${address}; its switches work in ${base} only.`,
  'S-SWITCH-NAME': ({ device, name, pattern }) =>
    `${device} goes by “${name}”, which its switches cannot make (${pattern}).`,
  'S-KIND-GONE': ({ device, kind }) => `${device} is of a kind that nobody knows (${kind}).`,
  'S-WAY-MISSING': ({ device, way, kind }) =>
    `${device} is to get its address by ${wayWord(way)}; ${kind} does not have that way.`,
  'S-WAY-CONTROLLER': ({ device }) =>
    `${device} is given its address by its controller, but has none in the plan.`,
  'S-HOST-NAME': (facts) => `${facts['device']}: host name “${facts['name']}”. ${why(facts)}`,
  'S-HOST-NAME-TWICE': ({ name, devices }) => `The host name ${name} is given twice: ${devices}.`,
  'S-STATION-NAME': (facts) => `${facts['device']}: station name “${facts['name']}”. ${why(facts)}`,
  'S-STATION-NAME-TWICE': ({ name, devices }) =>
    `The station name ${name} is on one wire twice: ${devices}. The controller finds neither.`,
  'S-DHCP-NAME': (facts) => `${facts['device']}: DHCP name. ${why(facts)}`,
  'S-DHCP-NAME-TWICE': ({ name, devices }) =>
    `Two devices ask under the name ${name}: ${devices}. Look at their switches.`,
  'S-VARIABLE': (facts) => `${facts['device']}: variable name “${facts['name']}”. ${why(facts)}`,
  'S-VARIABLE-TWICE': ({ name, devices }) =>
    `The variable ${name} stands twice in one project: ${devices}.`,
  'S-NAME-NEAR': ({ device, name, host }) =>
    `${device} is called “${name}” on the wire and “${host}” elsewhere: one letter apart.`,
  'S-TITLE-TWICE': ({ devices, count, title }) =>
    `${count} devices are called “${title}”. ${devices ? 'People will mix them up.' : ''}`,
  'S-CONTROLLER-GONE': ({ device }) => `The controller of ${device} is no longer in the plan.`,
  'S-CONTROLLER-SELF': ({ device }) => `${device} is its own controller.`,
  'S-ROLE-NONE': ({ device, controller, kind, controllerKind }) =>
    `${controller} (${controllerKind}) and ${device} (${kind}) have no protocol in which one opens and the other serves.`,
  'S-REALM-APART': ({ device, controller }) =>
    `${device} and its controller ${controller} are in two realms, and no router of the plan translates between them.`,
  'S-PROTOCOL-KIND': ({ device, protocol, kind }) =>
    `${device} is planned for ${protocol}, which ${kind} does not speak.`,
  'S-CONNECTIONS-LIMIT': ({ device, have, most }) =>
    `${device} has ${have} devices; its kind takes ${most}.`,
  'S-PACKETS-LIMIT': ({ device, have, most }) =>
    `The devices of ${device} come to ${have} packets a second; its kind takes ${most}.`,
  'S-SIZE': ({ device, way, own, other }) =>
    `${device}: ${dirWord(way)} ${own} bytes at the device, ${other} in the controller's project. The connection is refused.`,
  'S-SIZE-UNITS': ({ device, way, own, other, factor }) =>
    `${device}: ${dirWord(way)} ${own} bytes at the device, ${other} in the project: ${factor} times. Bytes at one end, words at the other?`,
  'S-SIZE-HEADER': ({ device, way, own, other, header }) =>
    `${device}: ${dirWord(way)} ${own} bytes at the device, ${other} in the project: ${header} bytes apart. One end counts a header of ${header}.`,
  'S-VIEWPOINT': ({ device, inDevice, outDevice }) =>
    `${device}: in and out are swapped between the two ends (${inDevice} and ${outDevice} bytes). Whose inputs are meant?`,
  'S-SIZE-OFFERED': ({ device, way, stated, need, offered }) =>
    Number(need) > Number(stated)
      ? `${device}: its modules need ${need} bytes ${dirWord(way)}, planned are ${stated}; the next size offered is ${offered}.`
      : `${device}: ${stated} bytes ${dirWord(way)} are not offered; the next is ${offered}.`,
  'S-INSTANCE': ({ device, what, own, other }) =>
    `${device}: ${what} instance ${own} at the device, ${other} in the project.`,
  'S-CONFIG-SIZE': ({ device, own, other }) =>
    `${device}: a configuration of ${own} bytes at the device, of ${other} in the project.`,
  'S-INTERVAL': ({ device, own, other }) =>
    `${device}: every ${own} ms at the device, every ${other} ms in the project.`,
  'S-INTERVAL-SHORT': ({ device, interval, least, kind }) =>
    `${device} is to send every ${interval} ms; ${kind} keeps ${least} ms at best.`,
  'S-REVISION': ({ device, own, other }) =>
    `${device} is revision ${own}, the project expects ${other}.`,
  'S-REGISTER-AREA': ({ device, own, other, ownArea, otherArea }) =>
    `${device}: register ${own} (${AREAS[String(ownArea)] ?? ownArea}) at the device, ${other} (${AREAS[String(otherArea)] ?? otherArea}) in the project: two tables apart.`,
  'S-REGISTER-ONE': ({ device, own, other, ownCounting, otherCounting }) =>
    `${device}: register ${own} (${COUNTING[String(ownCounting)]}) at the device, ${other} (${COUNTING[String(otherCounting)]}) in the project: exactly one apart.`,
  'S-REGISTER': ({ device, own, other }) =>
    `${device}: register ${own} at the device, ${other} in the project are not the same.`,
  'S-SLOT-TWICE': ({ device, slot }) => `${device} has two modules in slot ${slot}.`,
  'S-SLOT-OFFER': ({ device, slot, module, kind }) =>
    `${device}: “${module}” does not go in slot ${slot} of ${kind}.`,
  'S-UNIT-TWICE': ({ device, line, unit, sub, other }) =>
    `${device}, ${line}: unit ${unit} is ${other} and ${sub}.`,
  'S-UNIT-RANGE': ({ device, line, unit, sub }) =>
    `${device}, ${line}: ${sub} has unit ${unit}; 1 to 247 are allowed.`,
  'S-LINE-PORT': ({ device, line, other, port }) =>
    `${device}: ${other} and ${line} have the TCP port ${port} both.`,
  'S-REFERENCE-GONE': ({ device, what }) =>
    `${device}: “${what}” names a device that is no longer in the plan.`,
  'S-REFERENCE-OLD': ({ device, what, named, address, now }) =>
    `${device}: “${what}” still says ${address}; ${named} has ${now}.`,
  'S-PORT-TWICE': ({ device, port }) => `Two cables are in port ${port} of ${device}.`,
  'S-CABLE-GONE': ({ port }) =>
    `A cable ends in port ${port} of a device that is no longer in the plan.`,
  'S-ROUTE-VIA': ({ device, to, via }) =>
    `${device}: the route to ${to} goes via ${via}, which it cannot reach by itself.`,
  'S-ROUTE-NOBODY': ({ device, kind }) =>
    `${device} has routes or translations, but ${kind} passes nothing on.`,
  'S-TRANSLATION-SIZE': ({ device, inside, outside }) =>
    `${device}: ${inside} cannot stand one to one for ${outside}: the sizes differ.`,
};

const HOW: Readonly<Record<string, string>> = {
  swapped: 'two neighbouring digits look swapped',
  spare: 'one digit looks to be too many',
  lost: 'one digit looks to be missing',
  wrong: 'one digit looks wrong',
};

const ACTS: Readonly<Record<string, string>> = {
  stored: 'use the stored address',
  asks: 'ask for one',
  factory: 'back to factory',
  locked: 'locked',
  name: 'go by a name',
  fixed: 'a fixed address',
};

const LOAN_KEPT: Readonly<Record<string, string>> = {
  gateway: 'the gateway',
  server: 'the address of a DHCP server',
  held: 'held for somebody',
  pool: 'in the pool that a DHCP server gives out',
};

const AREAS: Readonly<Record<string, string>> = {
  '0': 'a coil',
  '1': 'a discrete input',
  '3': 'an input register',
  '4': 'a holding register',
};

const COUNTING: Readonly<Record<string, string>> = {
  'from-0': 'counted from 0',
  'from-1': 'counted from 1',
  'area-digit': 'with area digit',
};

const roleWord = (role: unknown): string =>
  (ROLE_WORDS as Readonly<Record<string, string>>)[String(role)] ?? String(role);
const wayWord = (way: unknown): string =>
  (WAY_WORDS as Readonly<Record<string, string>>)[String(way)] ?? String(way);
const dirWord = (way: unknown): string => (way === 'in' ? 'in' : 'out');
const why = (facts: SnagFacts['S-HOST-NAME']): string =>
  sentenceOf({ code: facts['code'], where: String(facts['part']), facts } as unknown as Issue);

/** How much a snag weighs. */
export const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  wrong: 'wrong',
  doubtful: 'doubtful',
  hint: 'hint',
};

export const snagSentence = ({ rule, facts }: Snag): string =>
  (SENTENCES[rule] as (facts: Snag['facts']) => string)(facts);

const MENDS: Readonly<Record<MendLabel, (facts: Mend['facts']) => string>> = {
  'give-address': ({ device, address }) => `Give ${device} ${address}`,
  'use-subnet-mask': ({ device }) => `Give ${device} the mask of its subnet`,
  'take-loan-back': ({ device }) => `Take back what was lent to ${device}`,
  'use-subnet-gateway': ({ device }) => `Give ${device} the gateway of its subnet`,
  'move-gateway': ({ gateway }) => `Move the gateway to ${gateway}`,
  'drop-range': ({ subnet }) => `Take what reaches outside out of ${subnet}`,
  rename: ({ device, name }) => `Call ${device} ${name}`,
  'derive-name': ({ name }) => `Make it from the host name: ${name}`,
  'choose-way': ({ way }) => `Choose ${wayWord(way)}`,
  'planned-so': ({ what }) => `${what} is meant as it was found`,
  'no-controller': ({ device }) => `Take the controller off ${device}`,
  'correct-reference': ({ now }) => `Write ${now} there`,
  'move-subnet': ({ subnet }) => `Put it in ${subnet}`,
};

/** What pressing the mend does, as a button says it. */
export const mendWords = ({ label, facts }: Mend): string => MENDS[label](facts);
