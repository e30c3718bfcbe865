import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';

/** The page that is open, and a way to it. */
export interface RelayedPage {
  /** As a browser beside the device would write it: `192.168.77.10`. */
  readonly host: string;
  /** A new connection to it. */
  connect(): Duplex;
}

export interface RelayDoor {
  /** The page a person opened; undefined while none is. */
  page(): RelayedPage | undefined;
  /** Whether this connection came in where no page of ours may be. */
  isBarred(request: IncomingMessage): boolean;
}
