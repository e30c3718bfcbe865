import { parentPort, workerData } from 'node:worker_threads';
import { ok } from '@ipsonomo/core/net';
import { docOf } from '@ipsonomo/core/plan';
import type { DescriptionFile, DescriptionRead } from './protocol';
import { readDescription } from './read-description';

// One file in a thread of its own: what is made to take for ever ends this thread and nothing else.

const { name, bytes } = workerData as DescriptionFile;
const read = readDescription(name, bytes);
const told: DescriptionRead = read.ok
  ? ok({ kinds: read.value.kinds.map((kind) => docOf('kind', kind)), unread: read.value.unread })
  : read;
parentPort?.postMessage(told);
