import type { Role } from '@ipsonomo/core/api';
import type { Waited } from '../common/waited';

/** Who acts, as the server knows them: every use case is given it. */
export interface Actor {
  /** As they are called at this moment. */
  readonly name: string;
  /** The browser, or the token, they act with; undefined for the machine's own person, and for whoever stands before the door. */
  readonly browser: string | undefined;
  /** Undefined where `browser` is. */
  readonly account: { readonly id: string; readonly role: Role } | undefined;
  /** What they do was kept by their browser, or may be sent once more. */
  readonly waited?: Waited | undefined;
}

/** The machine's own person: a script, a test, a thread. They may do everything. */
export const machineActor = (name: string): Actor => ({
  ...{ name, browser: undefined, account: undefined },
});
