// The error codes of the open standards by their names, which are held against tshark's dissector in the tests. What they
// mean to a person stands in the language.

/** Where a code comes from. */
export const CODE_SYSTEMS = ['cip', 'cip-connection', 'modbus', 'station'] as const;
export type CodeSystem = (typeof CODE_SYSTEMS)[number];

/** What a code is about: what of the plan is shown beside it. */
export type CodeTopic =
  'size' | 'interval' | 'instance' | 'owner' | 'identity' | 'path' | 'register' | 'name';

export interface CodeMeaning {
  /** The name the standard has for it. */
  readonly name: string;
  readonly topic?: CodeTopic;
}

const code = (name: string, topic?: CodeTopic): CodeMeaning => ({
  name,
  ...(topic ? { topic } : {}),
});

/** CIP general status (CIP Vol. 1 Appendix B). */
const CIP: Readonly<Record<number, CodeMeaning>> = {
  0x00: code('Success'),
  0x01: code('Connection failure'),
  0x02: code('Resource unavailable'),
  0x03: code('Invalid parameter value'),
  0x04: code('Path segment error', 'path'),
  0x05: code('Path destination unknown', 'instance'),
  0x08: code('Service not supported', 'identity'),
  0x09: code('Invalid attribute value'),
  0x0b: code('Already in requested mode/state'),
  0x0c: code('Object state conflict', 'owner'),
  0x0e: code('Attribute not settable', 'owner'),
  0x0f: code('Privilege violation', 'owner'),
  0x10: code('Device state conflict', 'owner'),
  0x13: code('Not enough data', 'size'),
  0x14: code('Attribute not supported', 'identity'),
  0x15: code('Too much data', 'size'),
  0x16: code('Object does not exist', 'instance'),
  0x20: code('Invalid parameter'),
  0x25: code('Key failure in path', 'identity'),
  0x26: code('Path size invalid', 'path'),
};

/** Extended status of a refused connection (CIP Vol. 1, 3-5.6). */
const CIP_CONNECTION: Readonly<Record<number, CodeMeaning>> = {
  0x0100: code('Connection in use or duplicate Forward Open', 'owner'),
  0x0103: code('Transport class and trigger combination not supported'),
  0x0106: code('Ownership conflict', 'owner'),
  0x0107: code('Target connection not found'),
  0x0109: code('Invalid connection size', 'size'),
  0x0110: code('Target for connection not configured'),
  0x0111: code('RPI not supported', 'interval'),
  0x0113: code('Out of connections'),
  0x0114: code('Vendor ID or product code mismatch', 'identity'),
  0x0115: code('Device type mismatch', 'identity'),
  0x0116: code('Revision mismatch', 'identity'),
  0x0117: code('Invalid produced or consumed application path', 'instance'),
  0x0118: code('Invalid or inconsistent configuration application path', 'instance'),
  0x0119: code('Non-listen only connection not opened', 'owner'),
  0x011a: code('Target object out of connections'),
  0x011b: code('RPI is smaller than the production inhibit time', 'interval'),
  0x0126: code('Invalid configuration size', 'size'),
  0x0127: code('Invalid O->T size', 'size'),
  0x0128: code('Invalid T->O size', 'size'),
  0x0129: code('Invalid configuration application path', 'instance'),
  0x012a: code('Invalid consuming application path', 'instance'),
  0x012b: code('Invalid producing application path', 'instance'),
  0x0203: code('Connection timed out', 'interval'),
  0x0204: code('Unconnected request timed out', 'path'),
  0x0205: code('Parameter error in unconnected request', 'path'),
  0x0301: code('No buffer memory available'),
  0x0311: code('Port not available', 'path'),
  0x0312: code('Link address not valid', 'path'),
  0x0315: code('Invalid segment in connection path', 'path'),
  0x0317: code('Scheduling not specified'),
};

/** Modbus exceptions (Modbus Application Protocol V1.1b3 §7). */
const MODBUS: Readonly<Record<number, CodeMeaning>> = {
  1: code('Illegal function'),
  2: code('Illegal data address', 'register'),
  3: code('Illegal data value', 'register'),
  4: code('Slave device failure'),
  5: code('Acknowledge'),
  6: code('Slave device busy'),
  8: code('Memory parity error'),
  10: code('Gateway path unavailable', 'path'),
  11: code('Gateway target device failed to respond', 'path'),
};

/** A refused set over layer 2 (IEC 61158-6-10, from memory). */
const STATION: Readonly<Record<number, CodeMeaning>> = {
  0: code('Ok'),
  1: code('Option unsupp.'),
  2: code('Suboption unsupp. or no DataSet avail.'),
  3: code('Suboption not set', 'name'),
  4: code('Resource Error'),
  5: code('SET not possible by local reasons', 'name'),
  6: code('In operation, SET not possible', 'owner'),
};

export const CODES: Readonly<Record<CodeSystem, Readonly<Record<number, CodeMeaning>>>> = {
  ...{ cip: CIP, 'cip-connection': CIP_CONNECTION, modbus: MODBUS, station: STATION },
};
