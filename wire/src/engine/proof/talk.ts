import type { Said } from '@ipsonomo/core/proof';
import {
  CIP_SERVICE,
  connectionStateOf,
  DecodeError,
  decodeWith,
  encodeWith,
  ENIP_COMMAND,
  identityAnswer,
  IDENTITY_OBJECT,
  MODBUS_OBJECT,
  modbusMessage,
  modbusReply,
  modbusRequest,
  modbusSize,
  type CipRequest,
  type Identity,
  type ModbusReply,
  type ModbusRequest,
} from '@ipsonomo/core/wire';
import type { TcpStream } from '../../carriers/carrier';
import { Encapsulated } from '../cip/encapsulated';
import { Broken, Inbox } from '../talk/inbox';

// What is said in the conversations of a proof. None of them changes anything in a device.

/** Its answer, or undefined where it is none or cannot be read. */
export async function readable<T>(talk: () => Promise<T>): Promise<T | undefined> {
  try {
    return await talk();
  } catch (error) {
    if (error instanceof Broken || error instanceof DecodeError) return undefined;
    throw error;
  }
}

/** Who a device is, over EtherNet/IP (ListIdentity). */
export const askIdentity = (stream: TcpStream): Promise<Identity | undefined> =>
  readable(async () => {
    const talk = new Encapsulated(stream);
    talk.send(ENIP_COMMAND.listIdentity);
    return decodeWith(identityAnswer, (await talk.reply('identity')).data);
  });

export const saidOverEnip = (said: Identity): Said => ({
  by: 'EtherNet/IP',
  identity: { vendor: said.vendor, type: said.type, product: said.product },
  ...{ product: said.name, orderNumber: '', revision: said.revision.join('.') },
  serial: serialOfSaid(said),
  ...{ hardware: '', connection: connectionStateOf(said) },
});

/** As it is printed on most devices: eight hexadecimal digits. */
export const serialOfSaid = ({ serial }: Pick<Identity, 'serial'>): string =>
  serial.toString(16).padStart(8, '0');

/** The question for the identity object: who somebody is, also at the end of a route path. */
export const WHO_IT_IS: CipRequest = {
  ...{ service: CIP_SERVICE.getAttributesAll, path: IDENTITY_OBJECT },
  data: new Uint8Array(0),
};

/** A device by itself, and no line behind it (Modbus Messaging on TCP/IP V1.0b §4.4.2). */
const ITSELF = 0xff;
const TRANSACTION = 0x4950;

/**
 * One question over Modbus/TCP and its answer.
 * @throws Broken, DecodeError
 */
export async function askModbus(
  stream: TcpStream,
  request: ModbusRequest,
  unit = ITSELF,
): Promise<ModbusReply> {
  const inbox = new Inbox(stream, modbusSize);
  const pdu = encodeWith(modbusRequest, request);
  stream.write(encodeWith(modbusMessage, { transaction: TRANSACTION, unit, pdu }));
  const reply = decodeWith(modbusMessage, await inbox.next('modbus'));
  // A late answer to another question would be about something else.
  if (reply.transaction !== TRANSACTION || reply.unit !== unit) throw new Broken('modbus', 'other');
  return decodeWith(modbusReply, reply.pdu);
}

/** Who a device is, over Modbus/TCP (function 43 / 14); undefined where it does not tell. */
export const askModbusIdentity = (stream: TcpStream): Promise<Said | undefined> =>
  readable(async () => {
    const reply = await askModbus(stream, { kind: 'identification', code: 1, object: 0 });
    if (reply.kind !== 'identification') return undefined;
    const text = (id: number) => reply.objects.find((one) => one.id === id)?.text.trim() ?? '';
    const [maker, orderNumber] = [text(MODBUS_OBJECT.maker), text(MODBUS_OBJECT.product)];
    return {
      ...{ by: 'Modbus/TCP', identity: undefined, serial: '', hardware: '' },
      connection: undefined,
      ...{ product: `${maker} ${orderNumber}`.trim(), orderNumber },
      revision: text(MODBUS_OBJECT.revision),
    };
  });

const PAGE_MILLIS = 2000;
const MOST_PAGE = 64 * 1024;

/** The title of a web page; empty where it has none. */
export async function askTitle(stream: TcpStream, host: string): Promise<string> {
  const parts: Uint8Array[] = [];
  let length = 0;
  await new Promise<void>((resolve) => {
    const callOff = stream.clock.after(PAGE_MILLIS, resolve);
    const over = () => {
      callOff();
      resolve();
    };
    stream.onData((data) => {
      parts.push(data);
      length += data.length;
      if (length >= MOST_PAGE || hasTitle(parts)) over();
    });
    stream.onClose(over);
    const lines = [`GET / HTTP/1.1`, `Host: ${host}`, 'Accept: text/html', 'Connection: close'];
    stream.write(Buffer.from(`${lines.join('\r\n')}\r\n\r\n`));
  });
  return titleOf(Buffer.concat(parts).toString('utf8'));
}

const hasTitle = (parts: readonly Uint8Array[]): boolean =>
  /<\/title>/i.test(Buffer.concat(parts).toString('latin1'));

const MOST_TITLE = 120;

/** @example titleOf('<head><title> Camera\n1 </title>') // 'Camera 1' */
export const titleOf = (html: string): string =>
  (/<title[^>]*>([^<]*)<\/title>/i.exec(html)?.[1] ?? '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, MOST_TITLE);
