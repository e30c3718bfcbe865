// What the error codes of the open standards mean on a machine, and what to look at. The names of CIP and Modbus codes
// are held against tshark's dissector in the tests; meanings and cures are common practice, no source.

/** Where a code comes from. */
export const CODE_SYSTEMS = ['cip', 'cip-connection', 'modbus', 'station'] as const;
export type CodeSystem = (typeof CODE_SYSTEMS)[number];

/** What a code is about: what of the plan is shown beside it. */
export type CodeTopic =
  'size' | 'interval' | 'instance' | 'owner' | 'identity' | 'path' | 'register' | 'name';

export interface CodeMeaning {
  /** The name the standard has for it. */
  readonly name: string;
  readonly means: string;
  readonly look: string;
  readonly topic?: CodeTopic;
}

const code = (name: string, means: string, look: string, topic?: CodeTopic): CodeMeaning => ({
  ...{ name, means, look },
  ...(topic ? { topic } : {}),
});

const SIZES =
  'Hold the bytes of both ends side by side, in one unit: words are two bytes, and a header of 2 or 4 bytes may be counted by one end only.';
const INSTANCES =
  'Hold the instance numbers of both ends side by side; the papers of the kind have them.';
const ELSEWHERE =
  'Find the controller that has it and stop it there, or use a connection that only listens.';
const LATER = 'Wait until it has started; if it stays, power it off and on.';

/** CIP general status (CIP Vol. 1 Appendix B). */
const CIP: Readonly<Record<number, CodeMeaning>> = {
  0x00: code('Success', 'It was done.', 'Nothing is wrong.'),
  0x01: code(
    'Connection failure',
    'The connection could not be opened; a second number says why.',
    'Look up the second number as a connection code.',
  ),
  0x02: code(
    'Resource unavailable',
    'The device has no more room for this.',
    'Close connections nobody needs: other controllers, tools, panels.',
  ),
  0x03: code(
    'Invalid parameter value',
    'A value in the request is not one it takes.',
    'Look at what was sent with it.',
  ),
  0x04: code(
    'Path segment error',
    'The device does not understand the path it was asked by.',
    'Look at the kind and its description file: the path may be of another device.',
    'path',
  ),
  0x05: code(
    'Path destination unknown',
    'What the path names is not in the device.',
    'Look at class, instance and slot; often the instance number of another kind.',
    'instance',
  ),
  0x08: code(
    'Service not supported',
    'The device does not know this request at all.',
    'Look at the kind: it may be another revision, or no such function.',
    'identity',
  ),
  0x09: code(
    'Invalid attribute value',
    'It knows the setting, and not this value.',
    'Look at the value and its limits in the papers.',
  ),
  0x0b: code(
    'Already in requested mode/state',
    'It is already as it was told to be.',
    'Nothing needs to be done.',
  ),
  0x0c: code(
    'Object state conflict',
    'It refuses while it is in this state: usually a controller is connected.',
    ELSEWHERE,
    'owner',
  ),
  0x0e: code(
    'Attribute not settable',
    'This cannot be written, or not now.',
    'It may be set by switches, or locked while a controller is connected.',
    'owner',
  ),
  0x0f: code(
    'Privilege violation',
    'Whoever asks may not do that.',
    'Look for a password or a protection in the device.',
    'owner',
  ),
  0x10: code(
    'Device state conflict',
    'The device as a whole refuses in its state: running, faulted, or in use.',
    ELSEWHERE,
    'owner',
  ),
  0x13: code('Not enough data', 'The request was shorter than it should be.', SIZES, 'size'),
  0x14: code(
    'Attribute not supported',
    'It does not have this setting.',
    'Look at its revision: an older one may lack it.',
    'identity',
  ),
  0x15: code('Too much data', 'The request was longer than it should be.', SIZES, 'size'),
  0x16: code(
    'Object does not exist',
    'There is no such object in the device.',
    INSTANCES,
    'instance',
  ),
  0x20: code(
    'Invalid parameter',
    'A part of the request is not as it should be.',
    'Look at what was sent with it.',
  ),
  0x25: code(
    'Key failure in path',
    'It is not the kind of device that the controller expects.',
    'Compare maker, kind and revision with the project of the controller.',
    'identity',
  ),
  0x26: code(
    'Path size invalid',
    'The path is longer or shorter than it says.',
    'It is the fault of whoever asked; look for another version of that program.',
    'path',
  ),
};

/** Extended status of a refused connection (CIP Vol. 1, 3-5.6). */
const CIP_CONNECTION: Readonly<Record<number, CodeMeaning>> = {
  0x0100: code(
    'Connection in use or duplicate Forward Open',
    'Another connection to the same thing is open already.',
    ELSEWHERE,
    'owner',
  ),
  0x0103: code(
    'Transport class and trigger combination not supported',
    'The device cannot exchange data in this manner.',
    'Look at the type of connection in the project of the controller.',
  ),
  0x0106: code('Ownership conflict', 'Another controller owns its outputs.', ELSEWHERE, 'owner'),
  0x0107: code(
    'Target connection not found',
    'The connection that should be closed is not open.',
    'Nothing needs to be done: it was closed before.',
  ),
  0x0109: code('Invalid connection size', 'The two ends state different sizes.', SIZES, 'size'),
  0x0110: code(
    'Target for connection not configured',
    'The device has not been set up for that connection yet.',
    LATER,
  ),
  0x0111: code(
    'RPI not supported',
    'It cannot keep this interval.',
    'Give it a longer interval, or one it offers.',
    'interval',
  ),
  0x0113: code(
    'Out of connections',
    'It has as many connections as it can have.',
    'Close those nobody needs: other controllers, tools, panels.',
  ),
  0x0114: code(
    'Vendor ID or product code mismatch',
    'It is another device than the controller expects.',
    'Compare the order number with the project of the controller.',
    'identity',
  ),
  0x0115: code(
    'Device type mismatch',
    'It is another sort of device than the controller expects.',
    'Compare the order number with the project of the controller.',
    'identity',
  ),
  0x0116: code(
    'Revision mismatch',
    'Its revision is not the one the controller expects.',
    'Take the description of its revision into the project of the controller.',
    'identity',
  ),
  0x0117: code(
    'Invalid produced or consumed application path',
    'An instance number of the data is wrong.',
    INSTANCES,
    'instance',
  ),
  0x0118: code(
    'Invalid or inconsistent configuration application path',
    'The instance number of the configuration is wrong.',
    INSTANCES,
    'instance',
  ),
  0x0119: code(
    'Non-listen only connection not opened',
    'Who only listens needs somebody who owns it, and nobody does.',
    'Start the controller that owns it first.',
    'owner',
  ),
  0x011a: code(
    'Target object out of connections',
    'What it should be connected to has no more connections.',
    'Close those nobody needs: other controllers, tools, panels.',
  ),
  0x011b: code(
    'RPI is smaller than the production inhibit time',
    'It should send more often than it is allowed to.',
    'Give it a longer interval, or a shorter inhibit time.',
    'interval',
  ),
  0x0126: code(
    'Invalid configuration size',
    'The configuration has another length than the device wants.',
    'Compare the revision of its description in the project of the controller.',
    'size',
  ),
  0x0127: code(
    'Invalid O->T size',
    'The controller sends another number of bytes than the device takes.',
    SIZES,
    'size',
  ),
  0x0128: code(
    'Invalid T->O size',
    'The controller wants another number of bytes than the device sends.',
    SIZES,
    'size',
  ),
  0x0129: code(
    'Invalid configuration application path',
    'The instance number of the configuration is wrong.',
    INSTANCES,
    'instance',
  ),
  0x012a: code(
    'Invalid consuming application path',
    'The instance number of the controller’s outputs is wrong.',
    INSTANCES,
    'instance',
  ),
  0x012b: code(
    'Invalid producing application path',
    'The instance number of the controller’s inputs is wrong.',
    INSTANCES,
    'instance',
  ),
  0x0203: code(
    'Connection timed out',
    'It was open, and nothing came for too long.',
    'Watch it over time: a cable, a switch under load, or too short an interval.',
    'interval',
  ),
  0x0204: code(
    'Unconnected request timed out',
    'It was asked to connect and did not answer in time.',
    'Is it reached at all, there and back? Look at its address, mask and gateway.',
    'path',
  ),
  0x0205: code(
    'Parameter error in unconnected request',
    'A part of the request is not as it should be.',
    'Look at the route path: slots and addresses.',
    'path',
  ),
  0x0301: code(
    'No buffer memory available',
    'It has no memory left for that.',
    'Smaller or fewer connections; power it off and on.',
  ),
  0x0311: code(
    'Port not available',
    'The route path leaves by a port that is not there.',
    'Look at the slots and ports of the route path.',
    'path',
  ),
  0x0312: code(
    'Link address not valid',
    'The route path names a slot or an address that is not there.',
    'Look at the slots and addresses of the route path; it begins after the module one is connected to.',
    'path',
  ),
  0x0315: code(
    'Invalid segment in connection path',
    'A part of the path cannot be read.',
    'Look at slot, key and instance numbers; often a device of another kind.',
    'path',
  ),
  0x0317: code(
    'Scheduling not specified',
    'The connection lacks its schedule.',
    'It is of another network; look at the type of connection.',
  ),
};

/** Modbus exceptions (Modbus Application Protocol V1.1b3 §7). */
const MODBUS: Readonly<Record<number, CodeMeaning>> = {
  1: code(
    'Illegal function',
    'It does not know this kind of request.',
    'Another function: inputs and holding registers are read differently.',
  ),
  2: code(
    'Illegal data address',
    'It has no such register.',
    'A difference of exactly one is the classic: counting from 0, from 1, or with a leading area digit.',
    'register',
  ),
  3: code(
    'Illegal data value',
    'It does not take this value or this many registers.',
    'Ask for fewer registers at once.',
    'register',
  ),
  4: code('Slave device failure', 'It failed while it did that.', 'Look at its own state.'),
  5: code(
    'Acknowledge',
    'It does it, and needs longer than an answer may take.',
    'Ask again later.',
  ),
  6: code('Slave device busy', 'It is busy.', 'Ask more slowly.'),
  8: code('Memory parity error', 'Its memory has a fault.', 'Look at its own state.'),
  10: code(
    'Gateway path unavailable',
    'The gateway has no way to that unit.',
    'Look at the line of the gateway: is that unit number planned on it?',
    'path',
  ),
  11: code(
    'Gateway target device failed to respond',
    'The gateway asked, and the unit behind it did not answer.',
    'Look at the serial line: unit number, baud, parity, its two wires.',
    'path',
  ),
};

/** A refused set over layer 2 (IEC 61158-6-10, from memory). */
const STATION: Readonly<Record<number, CodeMeaning>> = {
  0: code('Ok', 'It was done.', 'Nothing is wrong.'),
  1: code('Option unsupp.', 'It does not know this setting.', 'Look at its kind.'),
  2: code(
    'Suboption unsupp. or no DataSet avail.',
    'It does not know this part of the setting.',
    'Look at its kind.',
  ),
  3: code(
    'Suboption not set',
    'It did not take it.',
    'A name in capital letters or with a wrong sign is refused so.',
    'name',
  ),
  4: code('Resource Error', 'It has no room for it.', LATER),
  5: code(
    'SET not possible by local reasons',
    'It refuses by itself: a switch on it, or a name it cannot have.',
    'Look at the name, letter by letter, and at its switches.',
    'name',
  ),
  6: code('In operation, SET not possible', 'Its controller runs it.', ELSEWHERE, 'owner'),
};

export const CODES: Readonly<Record<CodeSystem, Readonly<Record<number, CodeMeaning>>>> = {
  ...{ cip: CIP, 'cip-connection': CIP_CONNECTION, modbus: MODBUS, station: STATION },
};
