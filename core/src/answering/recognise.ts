import { findOption, OPTION, toHex, toLatin1, type DhcpMessage } from '../wire';

// How a request is known to be a planned device's where its MAC is not the key: by the name it says,
// or by the switch port it came in at. Both are bytes, compared exactly as they were sent.

/** A switch port as relay information tells it (RFC 3046 §2.0): circuit and remote id, hex. */
export interface RelayPort {
  readonly circuit: string;
  /** Of the switch; empty where it sends none. */
  readonly remote: string;
}

const CIRCUIT = 1;
const REMOTE = 2;

/**
 * The names a client says, one character a byte: the host name (option 12), and the client identifier
 * (option 61) whole, and after a type byte 0, which says that no hardware type stands there (RFC 2132 §9.14).
 */
export function namesSaid(message: DhcpMessage): readonly string[] {
  const options = message.options ?? [];
  const hostName = findOption(options, OPTION.hostName);
  const id = findOption(options, OPTION.clientId);
  const names = [hostName, id && toLatin1(id)];
  if (id?.[0] === 0) names.push(toLatin1(id.subarray(1)));
  return names.filter((name): name is string => name !== undefined && name !== '');
}

/** The port a relay says the request came in at; undefined where no relay said so, or not in whole bytes. */
export function relayPortOf(message: DhcpMessage): RelayPort | undefined {
  const data = findOption(message.options ?? [], OPTION.relayInformation);
  if (!data) return undefined;
  const parts = new Map<number, string>();
  for (let at = 0; at < data.length;) {
    const length = data[at + 1];
    if (length === undefined || at + 2 + length > data.length) return undefined;
    parts.set(data[at] ?? 0, toHex(data.subarray(at + 2, at + 2 + length)));
    at += 2 + length;
  }
  const circuit = parts.get(CIRCUIT);
  return circuit === undefined ? undefined : { circuit, remote: parts.get(REMOTE) ?? '' };
}

const readable = (hex: string): string => {
  const bytes = hex.match(/../g)?.map((pair) => parseInt(pair, 16)) ?? [];
  const isText = bytes.length > 0 && bytes.every((byte) => byte > 0x20 && byte < 0x7f);
  return isText ? String.fromCharCode(...bytes) : hex;
};

/** A port for a person: as text where its bytes are letters, else hex. @example eth1 of 0200aa */
export const portText = ({ circuit, remote }: RelayPort): string =>
  remote === '' ? readable(circuit) : `${readable(circuit)} of ${readable(remote)}`;

/** Is the port a request came in at the planned one? A plan that names no switch takes any. */
export const isPort = (planned: RelayPort, heard: RelayPort): boolean =>
  planned.circuit === heard.circuit && (planned.remote === '' || planned.remote === heard.remote);
