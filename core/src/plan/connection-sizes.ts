import { offeredSize, type Kind } from './kind';
import type { ConnectionEnd, Device } from './model';

// How many bytes a cyclic connection carries: as its modules need, as its kind offers, and as each end
// states it in its own units.

/** Bytes without header, seen by the controller: in is what the device sends. */
interface Bytes {
  readonly inBytes: number;
  readonly outBytes: number;
}

/** What an end says of them; undefined where it does not. */
export type Measured = { readonly [K in keyof Bytes]: number | undefined };

const bytesOf = (size: number | undefined, end: ConnectionEnd): number | undefined =>
  size === undefined ? undefined : (size * Number(end.unitBits)) / 8 - end.headerBytes;

/**
 * One end in the common measure. In and out swap with the viewpoint: what the device sends is the
 * controller's input.
 * @example 90 words of 16 bits and no header are 180 bytes
 */
export function measureEnd(end: ConnectionEnd): Measured {
  const [inBytes, outBytes] = [bytesOf(end.inSize, end), bytesOf(end.outSize, end)];
  return end.viewpoint === 'controller'
    ? { inBytes, outBytes }
    : { inBytes: outBytes, outBytes: inBytes };
}

/** Where the data are, seen by the controller, as `measureEnd` sees the sizes. */
export function instancesOf(
  end: ConnectionEnd,
): Pick<ConnectionEnd, 'inInstance' | 'outInstance' | 'configInstance'> {
  const { inInstance, outInstance, configInstance, viewpoint } = end;
  return viewpoint === 'controller'
    ? { inInstance, outInstance, configInstance }
    : { inInstance: outInstance, outInstance: inInstance, configInstance };
}

/** The end with sizes that carry these bytes, in its units, with its header, from its viewpoint. */
export function endWithBytes(end: ConnectionEnd, { inBytes, outBytes }: Bytes): ConnectionEnd {
  const sizeOf = (bytes: number) =>
    Math.ceil(((bytes + end.headerBytes) * 8) / Number(end.unitBits));
  const [inSize, outSize] = [sizeOf(inBytes), sizeOf(outBytes)];
  return end.viewpoint === 'controller'
    ? { ...end, inSize, outSize }
    : { ...end, inSize: outSize, outSize: inSize };
}

/** The bytes that the modules of a station need, before rounding up to what is offered. */
export function moduleBytes(device: Pick<Device, 'modules'>, kind: Kind): Bytes {
  let inBytes = 0;
  let outBytes = 0;
  for (const { title } of device.modules) {
    const offer = kind.modules.find((one) => one.title === title);
    inBytes += offer?.inBytes ?? 0;
    outBytes += offer?.outBytes ?? 0;
  }
  return { inBytes, outBytes };
}

/** What the modules need, rounded up to the next size that the kind offers. */
export function offeredBytes(device: Pick<Device, 'modules'>, kind: Kind): Bytes {
  const { inBytes, outBytes } = moduleBytes(device, kind);
  return { inBytes: offeredSize(kind, inBytes), outBytes: offeredSize(kind, outBytes) };
}
