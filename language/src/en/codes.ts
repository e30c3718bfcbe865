import type { CodeSystem } from '@ipsonomo/core/codes';

// What the error codes of the open standards mean on a machine, and what to look at (common practice, no source).

export interface CodeWords {
  readonly means: string;
  readonly look: string;
}

const SIZES =
  'Hold the bytes of both ends side by side, in one unit: words are two bytes, and a header of 2 or 4 bytes may be counted by one end only.';
const INSTANCES =
  'Hold the instance numbers of both ends side by side; the papers of the kind have them.';
const ELSEWHERE =
  'Find the controller that has it and stop it there, or use a connection that only listens.';
const LATER = 'Wait until it has started; if it stays, power it off and on.';

const CIP: Readonly<Record<number, CodeWords>> = {
  0x00: { means: 'It was done.', look: 'Nothing is wrong.' },
  0x01: {
    means: 'The connection could not be opened; a second number says why.',
    look: 'Look up the second number as a connection code.',
  },
  0x02: {
    means: 'The device has no more room for this.',
    look: 'Close connections nobody needs: other controllers, tools, panels.',
  },
  0x03: {
    means: 'A value in the request is not one it takes.',
    look: 'Look at what was sent with it.',
  },
  0x04: {
    means: 'The device does not understand the path it was asked by.',
    look: 'Look at the kind and its description file: the path may be of another device.',
  },
  0x05: {
    means: 'What the path names is not in the device.',
    look: 'Look at class, instance and slot; often the instance number of another kind.',
  },
  0x08: {
    means: 'The device does not know this request at all.',
    look: 'Look at the kind: it may be another revision, or no such function.',
  },
  0x09: {
    means: 'It knows the setting, and not this value.',
    look: 'Look at the value and its limits in the papers.',
  },
  0x0b: { means: 'It is already as it was told to be.', look: 'Nothing needs to be done.' },
  0x0c: {
    means: 'It refuses while it is in this state: usually a controller is connected.',
    look: ELSEWHERE,
  },
  0x0e: {
    means: 'This cannot be written, or not now.',
    look: 'It may be set by switches, or locked while a controller is connected.',
  },
  0x0f: {
    means: 'Whoever asks may not do that.',
    look: 'Look for a password or a protection in the device.',
  },
  0x10: {
    means: 'The device as a whole refuses in its state: running, faulted, or in use.',
    look: ELSEWHERE,
  },
  0x13: { means: 'The request was shorter than it should be.', look: SIZES },
  0x14: {
    means: 'It does not have this setting.',
    look: 'Look at its revision: an older one may lack it.',
  },
  0x15: { means: 'The request was longer than it should be.', look: SIZES },
  0x16: { means: 'There is no such object in the device.', look: INSTANCES },
  0x20: {
    means: 'A part of the request is not as it should be.',
    look: 'Look at what was sent with it.',
  },
  0x25: {
    means: 'It is not the kind of device that the controller expects.',
    look: 'Compare maker, kind and revision with the project of the controller.',
  },
  0x26: {
    means: 'The path is longer or shorter than it says.',
    look: 'It is the fault of whoever asked; look for another version of that program.',
  },
};

const CIP_CONNECTION: Readonly<Record<number, CodeWords>> = {
  0x0100: { means: 'Another connection to the same thing is open already.', look: ELSEWHERE },
  0x0103: {
    means: 'The device cannot exchange data in this manner.',
    look: 'Look at the type of connection in the project of the controller.',
  },
  0x0106: { means: 'Another controller owns its outputs.', look: ELSEWHERE },
  0x0107: {
    means: 'The connection that should be closed is not open.',
    look: 'Nothing needs to be done: it was closed before.',
  },
  0x0109: { means: 'The two ends state different sizes.', look: SIZES },
  0x0110: { means: 'The device has not been set up for that connection yet.', look: LATER },
  0x0111: {
    means: 'It cannot keep this interval.',
    look: 'Give it a longer interval, or one it offers.',
  },
  0x0113: {
    means: 'It has as many connections as it can have.',
    look: 'Close those nobody needs: other controllers, tools, panels.',
  },
  0x0114: {
    means: 'It is another device than the controller expects.',
    look: 'Compare the order number with the project of the controller.',
  },
  0x0115: {
    means: 'It is another sort of device than the controller expects.',
    look: 'Compare the order number with the project of the controller.',
  },
  0x0116: {
    means: 'Its revision is not the one the controller expects.',
    look: 'Take the description of its revision into the project of the controller.',
  },
  0x0117: { means: 'An instance number of the data is wrong.', look: INSTANCES },
  0x0118: { means: 'The instance number of the configuration is wrong.', look: INSTANCES },
  0x0119: {
    means: 'Who only listens needs somebody who owns it, and nobody does.',
    look: 'Start the controller that owns it first.',
  },
  0x011a: {
    means: 'What it should be connected to has no more connections.',
    look: 'Close those nobody needs: other controllers, tools, panels.',
  },
  0x011b: {
    means: 'It should send more often than it is allowed to.',
    look: 'Give it a longer interval, or a shorter inhibit time.',
  },
  0x0126: {
    means: 'The configuration has another length than the device wants.',
    look: 'Compare the revision of its description in the project of the controller.',
  },
  0x0127: {
    means: 'The controller sends another number of bytes than the device takes.',
    look: SIZES,
  },
  0x0128: {
    means: 'The controller wants another number of bytes than the device sends.',
    look: SIZES,
  },
  0x0129: { means: 'The instance number of the configuration is wrong.', look: INSTANCES },
  0x012a: { means: 'The instance number of the controller’s outputs is wrong.', look: INSTANCES },
  0x012b: { means: 'The instance number of the controller’s inputs is wrong.', look: INSTANCES },
  0x0203: {
    means: 'It was open, and nothing came for too long.',
    look: 'Watch it over time: a cable, a switch under load, or too short an interval.',
  },
  0x0204: {
    means: 'It was asked to connect and did not answer in time.',
    look: 'Is it reached at all, there and back? Look at its address, mask and gateway.',
  },
  0x0205: {
    means: 'A part of the request is not as it should be.',
    look: 'Look at the route path: slots and addresses.',
  },
  0x0301: {
    means: 'It has no memory left for that.',
    look: 'Smaller or fewer connections; power it off and on.',
  },
  0x0311: {
    means: 'The route path leaves by a port that is not there.',
    look: 'Look at the slots and ports of the route path.',
  },
  0x0312: {
    means: 'The route path names a slot or an address that is not there.',
    look: 'Look at the slots and addresses of the route path; it begins after the module one is connected to.',
  },
  0x0315: {
    means: 'A part of the path cannot be read.',
    look: 'Look at slot, key and instance numbers; often a device of another kind.',
  },
  0x0317: {
    means: 'The connection lacks its schedule.',
    look: 'It is of another network; look at the type of connection.',
  },
};

const MODBUS: Readonly<Record<number, CodeWords>> = {
  1: {
    means: 'It does not know this kind of request.',
    look: 'Another function: inputs and holding registers are read differently.',
  },
  2: {
    means: 'It has no such register.',
    look: 'A difference of exactly one is the classic: counting from 0, from 1, or with a leading area digit.',
  },
  3: {
    means: 'It does not take this value or this many registers.',
    look: 'Ask for fewer registers at once.',
  },
  4: { means: 'It failed while it did that.', look: 'Look at its own state.' },
  5: { means: 'It does it, and needs longer than an answer may take.', look: 'Ask again later.' },
  6: { means: 'It is busy.', look: 'Ask more slowly.' },
  8: { means: 'Its memory has a fault.', look: 'Look at its own state.' },
  10: {
    means: 'The gateway has no way to that unit.',
    look: 'Look at the line of the gateway: is that unit number planned on it?',
  },
  11: {
    means: 'The gateway asked, and the unit behind it did not answer.',
    look: 'Look at the serial line: unit number, baud, parity, its two wires.',
  },
};

const STATION: Readonly<Record<number, CodeWords>> = {
  0: { means: 'It was done.', look: 'Nothing is wrong.' },
  1: { means: 'It does not know this setting.', look: 'Look at its kind.' },
  2: { means: 'It does not know this part of the setting.', look: 'Look at its kind.' },
  3: {
    means: 'It did not take it.',
    look: 'A name in capital letters or with a wrong sign is refused so.',
  },
  4: { means: 'It has no room for it.', look: LATER },
  5: {
    means: 'It refuses by itself: a switch on it, or a name it cannot have.',
    look: 'Look at the name, letter by letter, and at its switches.',
  },
  6: { means: 'Its controller runs it.', look: ELSEWHERE },
};

const CODE_WORDS: Readonly<Record<CodeSystem, Readonly<Record<number, CodeWords>>>> = {
  cip: CIP,
  'cip-connection': CIP_CONNECTION,
  modbus: MODBUS,
  station: STATION,
};

/** What a code means and what to look at; undefined for one that no table has. */
export const codeWords = (system: CodeSystem, value: number): CodeWords | undefined =>
  CODE_WORDS[system][value];
