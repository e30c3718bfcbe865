import type { MacAddress } from '@ipsonomo/core/net';
import type { PortSegment, Stay } from '@ipsonomo/core/wire';
import type { MessagePort } from 'node:worker_threads';
import type { PlanNews } from './plan';

/** The site that ships with Ipsonomo, or one made of a plan that is rehearsed: what is seen there is evidence of that. */
export type PracticeSource = 'practice' | 'rehearsal';

// What the main thread asks of the wire's thread.

/** One register of a device, or of one on a line behind it. */
export interface RegisterQuestion {
  readonly tcpPort: number;
  /** Behind a gateway; 255 for the device itself. */
  readonly unit: number;
  readonly area: 'holding' | 'input';
  /** Counted from 0. */
  readonly register: number;
  /** As a person writes it. */
  readonly written: string;
  readonly person: string;
}

export type FieldCommand =
  | {
      readonly kind: 'open-practice';
      readonly port: MessagePort;
      readonly source: PracticeSource;
    }
  | { readonly kind: 'open-live'; readonly adapter: string }
  | { readonly kind: 'plan'; readonly plan: PlanNews }
  | { readonly kind: 'listen'; readonly runId: string }
  | { readonly kind: 'rest' }
  /** Answer bound devices for so many milliseconds. */
  | { readonly kind: 'arm'; readonly millis: number; readonly person: string }
  | { readonly kind: 'silence' }
  /** A person says that one device alone has this MAC. */
  | { readonly kind: 'one-device'; readonly mac: MacAddress }
  /** A person has read a notice. */
  | { readonly kind: 'notice-read'; readonly code: string; readonly at: number }
  /** Who let it answer is away: it stops answering. */
  | { readonly kind: 'page-lost' }
  | {
      readonly kind: 'check';
      readonly interfaceIds: readonly string[];
      readonly person: string;
    }
  | {
      readonly kind: 'watch-power' | 'pin';
      readonly interfaceId: string;
      readonly person: string;
      /** Why it is done although a controller uses the device; undefined while nobody said so. */
      readonly evenSo: string | undefined;
    }
  /** Follow a device that is given its address by hand. */
  | { readonly kind: 'follow'; readonly interfaceId: string; readonly person: string }
  | {
      readonly kind: 'walk';
      readonly interfaceId: string;
      readonly subnetId: string;
      readonly person: string;
    }
  | { readonly kind: 'open-page'; readonly interfaceId: string; readonly person: string }
  | { readonly kind: 'close-page' }
  /** One connection of a browser to the open page. */
  | { readonly kind: 'converse'; readonly port: MessagePort }
  /** A cold start: about to be switched off, on again, over. */
  | { readonly kind: 'drill'; readonly step: 'begin' | 'on' | 'end'; readonly person: string }
  /** Prove these; everybody else on the wire is looked for too, unless only the rest of a run is asked. */
  | {
      readonly kind: 'prove';
      readonly proofId: string;
      readonly interfaceIds: readonly string[];
      readonly perSecond: number;
      readonly person: string;
    }
  | { readonly kind: 'prove-stop' }
  /** Who is at the end of a route path, asked along it. */
  | {
      readonly kind: 'ask-path';
      readonly entry: string;
      readonly interfaceId: string;
      readonly route: readonly PortSegment[];
      readonly person: string;
    }
  /** Read one register. */
  | ({ readonly kind: 'read-register'; readonly interfaceId: string } & RegisterQuestion)
  /** Ask these in a steady beat. */
  | {
      readonly kind: 'vigil';
      readonly interfaceIds: readonly string[];
      readonly everyMillis: number;
      readonly millis: number;
      readonly person: string;
    }
  | { readonly kind: 'vigil-stop' }
  /** Ask for every address. */
  | { readonly kind: 'sweep' }
  /** Stations over layer 2. */
  | { readonly kind: 'search' }
  | { readonly kind: 'flash'; readonly mac: MacAddress }
  | {
      readonly kind: 'give-station';
      readonly interfaceId: string;
      readonly giving: Giving;
      readonly person: string;
      readonly evenSo: string | undefined;
    }
  | {
      readonly kind: 'reset-station';
      readonly interfaceId: string;
      readonly reason: string;
      readonly person: string;
      readonly evenSo: string | undefined;
    };

/** The name alone, or an address with it: for now, or to stay. */
export type Giving = Stay | 'name';

/** A command on its way, to be answered by its number. */
export interface FieldCall {
  readonly id: number;
  readonly command: FieldCommand;
}
