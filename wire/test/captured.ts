import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { framesOfCapture, type PcapRecord } from '@ipsonomo/core/wire';
import { readCapture } from '../src/kept/capture';

/** The frames of a run's capture by time, read from its parts as they are on the disk. */
export function capturedIn(folder: string, run = 'run'): readonly PcapRecord[] {
  const parts = ['.others-a', '.others-b', ''].map((part) => join(folder, `${run}${part}.pcap`));
  return parts
    .filter((path) => existsSync(path))
    .flatMap((path) => [...framesOfCapture(new Uint8Array(readFileSync(path)))])
    .toSorted((a, b) => a.at - b.at);
}

/** A run's capture as it is downloaded, as one file. */
export async function wholeCapture(folder: string, run = 'run'): Promise<string> {
  const pieces: Uint8Array[] = [];
  for await (const piece of readCapture(folder, run)) pieces.push(piece);
  const path = join(folder, 'whole.pcap');
  writeFileSync(path, Buffer.concat(pieces));
  return path;
}
