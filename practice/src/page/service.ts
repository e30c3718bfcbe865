import type { HostAddress } from '@ipsonomo/core/host';
import type { Memory } from '../start';
import { answerBytes, readRequest } from './http';
import type { PageNow } from './now';
import type { DevicePage, PageDeed } from './page';

const BAD = { answer: { status: 400, body: '' }, deeds: [] } as const;

/** What the page of a device answers to what arrived; undefined while the request is not whole. */
export function answerPage(
  page: DevicePage,
  now: PageNow,
  received: Uint8Array,
): { readonly data: Uint8Array; readonly deeds: readonly PageDeed[] } | undefined {
  const request = readRequest(received);
  if (request === undefined) return undefined;
  const { answer, deeds } = request === 'bad' ? BAD : page.answer(now, request);
  return { data: answerBytes(answer), deeds };
}

/** What a device remembers after it was told something on its page. */
export function memoryAfter(
  memory: Memory,
  deed: PageDeed,
  configured: HostAddress | undefined,
): Memory {
  switch (deed.kind) {
    case 'password':
      return { ...memory, password: deed.password };
    case 'store':
      return { ...memory, control: 0, stored: deed.address };
    case 'save':
      return { ...memory, control: 0, stored: configured };
    case 'apply':
    case 'restart':
      return memory;
  }
}
