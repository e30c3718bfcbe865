/** Who acts, as the server knows them: every use case is given it. */
export interface Actor {
  /** As they call themselves. */
  readonly name: string;
  /** Undefined for the machine's own person, and for whoever stands before the door. */
  readonly browser: string | undefined;
}

/** The machine's own person: a script, a test, a thread. */
export const machineActor = (name: string): Actor => ({ name, browser: undefined });
