import type { HeardClient } from '@ipsonomo/core/answering';
import type { MacAddress } from '@ipsonomo/core/net';
import type { FieldEvent, VigilRing } from '../protocol';

/** What happens on a wire, for whoever owns it. */
export interface EngineReports {
  /** @param lines the same as the journal has them */
  events(events: readonly FieldEvent[], lines: string): void;
  heard(client: HeardClient): void;
  forgot(mac: MacAddress): void;
  /** The list of stations found over layer 2 changed. */
  stations(): void;
  /** Somebody was seen with an address that is news. */
  present(): void;
  /** A vigil begins. */
  vigil(ring: VigilRing): void;
  changed(): void;
}
