import { formatIpv4 } from '@ipsonomo/core/net';
import type { Call } from './CallPage';

/** Where such a device is as it left its maker. */
export const factoryOf = ({ kind }: Call): string | undefined =>
  kind?.factory.kind === 'fixed' ? formatIpv4(kind.factory.address) : undefined;
