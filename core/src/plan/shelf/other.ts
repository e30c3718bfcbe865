import { WAYS } from '../words';
import type { Kind } from '../kind';
import { guide, ownStep, toKind } from './build';

/** A device of which no more is known than how it gets its address. */
export const OTHER_DEVICE: Kind = toKind({
  ...{ id: 'other-device', maker: 'any maker', name: 'Some other device' },
  ...{ role: 'io', stem: 'device' },
  ways: WAYS.map((way) => guide(way)),
  factory: { kind: 'unknown' },
  pinning: ownStep('Set it to keep its address, as its manual says'),
});

/** The same one that never answers a ping, and is proven by other signs. */
export const OTHER_SILENT_DEVICE: Kind = {
  ...OTHER_DEVICE,
  ...{ id: 'other-device-silent', name: 'Some other device, silent to ping', answersPing: false },
};
