import type { Kind } from '@ipsonomo/core/plan';
import {
  DecodeError,
  decodeWith,
  encodeWith,
  MODBUS_OBJECT,
  modbusMessage,
  modbusReply,
  modbusRequest,
  modbusSize,
  type ModbusReply,
  type ModbusRequest,
} from '@ipsonomo/core/wire';
import { answerEach, type Answered } from './messages';

/** Exception codes (Modbus Application Protocol V1.1b3 §7). */
const EXCEPTION = { function: 1, address: 2, value: 3, path: 0x0a, target: 0x0b } as const;
const ENCAPSULATED = 0x2b;
const BASIC = 1;

/** One server of registers: the device itself, or one on the line behind it. */
export interface RegisterServer {
  readonly unit: number;
  /** Values from register 0 on. */
  readonly registers: readonly number[];
  /** It is planned there and does not answer. */
  readonly isSilent?: boolean;
}

export interface ModbusDevice {
  readonly kind: Pick<Kind, 'maker' | 'orderNumber' | 'name' | 'revision'>;
  /** Behind a gateway; empty where the device is none. */
  readonly line: readonly RegisterServer[];
  /** Of the device itself. */
  readonly registers: readonly number[];
}

/** Unit numbers that mean the device itself (Modbus Messaging on TCP/IP V1.0b §4.4.2). */
const ITSELF: readonly number[] = [0, 255];

/** Answers what arrived on a Modbus/TCP connection. */
export const answerModbus = (device: ModbusDevice, received: Uint8Array): Answered =>
  answerEach(received, modbusSize, (bytes) => {
    const message = decodeWith(modbusMessage, bytes);
    const pdu = encodeWith(modbusReply, replyOf(device, message.unit, message.pdu));
    return encodeWith(modbusMessage, { ...message, pdu });
  });

function replyOf(device: ModbusDevice, unit: number, pdu: Uint8Array): ModbusReply {
  const asked = pdu[0] ?? 0;
  const refuse = (code: number): ModbusReply => ({ kind: 'exception', function: asked, code });
  let request: ModbusRequest;
  try {
    request = decodeWith(modbusRequest, pdu);
  } catch (error) {
    if (!(error instanceof DecodeError)) throw error;
    return refuse(EXCEPTION.function);
  }
  const onLine = device.line.find((one) => one.unit === unit);
  // A gateway without such a line says so; one whose device is silent says that.
  if (!ITSELF.includes(unit) && device.line.length > 0 && !onLine) return refuse(EXCEPTION.path);
  if (onLine?.isSilent) return refuse(EXCEPTION.target);
  if (request.kind === 'identification')
    return onLine || request.code !== BASIC
      ? { kind: 'exception', function: ENCAPSULATED, code: EXCEPTION.value }
      : identificationOf(device.kind);
  const { area, start, count } = request;
  if (count < 1 || count > 125) return refuse(EXCEPTION.value);
  const all = onLine?.registers ?? device.registers;
  if (start + count > all.length) return refuse(EXCEPTION.address);
  return { kind: 'registers', area, values: all.slice(start, start + count) };
}

const identificationOf = ({
  maker,
  orderNumber,
  name,
  revision,
}: ModbusDevice['kind']): ModbusReply => ({
  ...{ kind: 'identification', code: BASIC, level: BASIC, next: undefined },
  objects: [
    { id: MODBUS_OBJECT.maker, text: maker },
    { id: MODBUS_OBJECT.product, text: orderNumber || name },
    { id: MODBUS_OBJECT.revision, text: revision },
  ],
});
