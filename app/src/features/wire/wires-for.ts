import type { AdapterView } from '@ipsonomo/core/api';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { REHEARSAL_WORDS } from '@ipsonomo/language/screens/rehearsal';
import { WIRE_WORDS } from '@ipsonomo/language/screens/wire';
import type { HeardRates } from './use-heard-rates';

export const PRACTICE = 'practice';
export const REHEARSAL = 'rehearsal';

interface Known {
  readonly job: string;
  readonly adapters: readonly AdapterView[];
  readonly heard: HeardRates;
  /** A practice site with its devices ships. */
  readonly hasSite: boolean;
  readonly isRehearsal: boolean;
}

/** What can be the wire of a job. A rehearsal has its own site and takes no adapter. */
export function wiresFor({ job, adapters, heard, hasSite, isRehearsal }: Known) {
  if (isRehearsal)
    return [
      { value: REHEARSAL, title: REHEARSAL_WORDS.ownSite, detail: REHEARSAL_WORDS.ownSiteMore },
    ];
  const site = {
    ...{ value: PRACTICE, title: COMMON_WORDS.practiceSite },
    detail: WIRE_WORDS.theSimulatedHatcheryThatShipsWith,
  };
  return [
    ...(hasSite ? [site] : []),
    ...adapters.map((adapter) => ({
      value: adapter.name,
      title: adapter.name,
      detail: adapterWords(adapter, job, heard.get(adapter.name)),
    })),
  ];
}

/** @param rate frames a second that come in, once that is known */
function adapterWords(adapter: AdapterView, job: string, rate: number | undefined): string {
  const kind = adapter.wireless
    ? WIRE_WORDS.radio
    : adapter.virtual
      ? WIRE_WORDS.virtual
      : WIRE_WORDS.cable;
  const isUp = adapter.link === 'up';
  const speed = adapter.speed === null ? [] : [WIRE_WORDS.speed({ speed: adapter.speed })];
  const link = isUp ? [WIRE_WORDS.link, ...speed] : [WIRE_WORDS.noLink2];
  const other =
    adapter.job && adapter.job.id !== job ? [WIRE_WORDS.theWireOf({ name: adapter.job.name })] : [];
  const heard = !isUp || rate === undefined ? [] : [WIRE_WORDS.heard({ rate })];
  return [...other, kind, ...link, ...heard, adapter.mac, ...adapter.addresses].join(' · ');
}
