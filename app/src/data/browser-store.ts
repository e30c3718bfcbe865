import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { WaitingAct } from './outbox';

// What this browser keeps for the time without a server (Indexed Database API 3.0): what it was told last, and what was
// done and not yet sent.

/** What has changed since an answer was kept. */
interface Step {
  readonly of: string;
  readonly value: unknown;
}

export interface CarriedPaper {
  readonly bytes: ArrayBuffer;
  /** As the server said it. */
  readonly type: string;
}

interface Kept extends DBSchema {
  /** Each the text it came as. */
  answers: { key: string; value: string };
  steps: { key: number; value: Step; indexes: { of: string } };
  /** Papers of kinds that are carried along, by the SHA-256 of their bytes. */
  papers: { key: string; value: CarriedPaper };
  waiting: { key: number; value: Omit<WaitingAct, 'place'> & { readonly place?: number } };
}

export type BrowserDatabase = IDBPDatabase<Kept>;

let opened: Promise<BrowserDatabase | undefined> | undefined;

/** Undefined where the browser keeps nothing: in a private window, or on a disk that is full. */
export function browserDatabase(): Promise<BrowserDatabase | undefined> {
  if (typeof indexedDB === 'undefined') return Promise.resolve(undefined);
  opened ??= openDB<Kept>('ipsonomo', 2, {
    // What an older version keeps stays: its outbox above all.
    upgrade: (made, before) => {
      if (before < 2) made.createObjectStore('papers');
      if (before > 0) return;
      made.createObjectStore('answers');
      made.createObjectStore('steps', { autoIncrement: true }).createIndex('of', 'of');
      made.createObjectStore('waiting', { keyPath: 'place', autoIncrement: true });
    },
    // A later version of the application waits for nobody; this page then keeps things as far as it still can.
    blocking: () => {
      void opened?.then((one) => one?.close());
      opened = undefined;
    },
    terminated: () => (opened = undefined),
  }).catch(() => undefined);
  return opened;
}
