import { must, parseMac } from '@ipsonomo/core/net';
import type { MessagePort } from 'node:worker_threads';
import type { PracticeSource } from '../../protocol/commands';
import type { Carrier, CarrierEvents } from '../carrier';

/** The MAC of the laptop's plug on the practice site. */
const LAPTOP_MAC = must(parseMac('02:00:5e:00:53:f0'));

/** The practice site's wire: frames travel to and from its worker on a port. */
export function openPracticeCarrier(
  port: MessagePort,
  source: PracticeSource,
  events: CarrierEvents,
): Carrier {
  port.on('message', (frame: Uint8Array) => events.frame(frame));
  return {
    source,
    mac: LAPTOP_MAC,
    send: (frame) => port.postMessage(frame.slice()),
    openTcp: undefined,
    askUdp: undefined,
    close: () => port.close(),
  };
}
