import type { EnteredValue } from '@ipsonomo/core/entered';

/** A value that stands in the plan, in the controller and in the device. */
export const ENTERED_WORDS: Readonly<Record<EnteredValue, string>> = {
  name: 'name',
  address: 'address',
  mask: 'mask',
  gateway: 'gateway',
  revision: 'revision',
  in: 'bytes in',
  out: 'bytes out',
  'in-instance': 'instance in',
  'out-instance': 'instance out',
  'config-instance': 'instance config.',
  interval: 'interval, ms',
  modules: 'modules',
  connection: 'connection',
};
