/** An act that a browser may have kept before it was sent. */
export interface Waited {
  /** Its own number (UUID), by which it is done once. */
  readonly id: string;
  /** The name of the act. */
  readonly act: string;
  /** When it was done, by the server's clock; milliseconds since 1970. */
  readonly doneAt: number;
  /** How much the browser's clock is ahead of the server's, in milliseconds. */
  readonly clockIsOff: number;
  /** In the browser's own count, which holds where its clock does not. */
  readonly place: number;
}
