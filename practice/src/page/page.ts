import type { HostAddress } from '@ipsonomo/core/host';
import { lengthOfMask, parseIpv4, toIpv4 } from '@ipsonomo/core/net';
import type { PageAnswer, PageRequest } from './http';
import { aboutHtml, frame, loginHtml, networkHtml, passwordHtml, restartingHtml } from './html';
import { appliesAtOnce, type PageNow } from './now';

/** What was told to it on its page. */
export type PageDeed =
  | { readonly kind: 'password'; readonly password: string }
  /** Kept, and used from the next start on. */
  | { readonly kind: 'store'; readonly address: HostAddress }
  /** Used at once, and forgotten at power-off. */
  | { readonly kind: 'apply'; readonly address: HostAddress }
  /** What is in use is kept. */
  | { readonly kind: 'save' }
  | { readonly kind: 'restart' };

export interface PageStep {
  readonly answer: PageAnswer;
  readonly deeds: readonly PageDeed[];
}

/** Name and password as such devices leave their makers. */
export const FACTORY_LOGIN = 'setup';
const LEAST_PASSWORD = 6;

const to = (location: string, deeds: readonly PageDeed[] = [], cookie?: string): PageStep => ({
  answer: { status: 303, body: '', location, ...(cookie === undefined ? {} : { cookie }) },
  deeds,
});

const show = (now: PageNow, body: string, status = 200): PageStep => ({
  answer: { status, body: frame(now.kind, body) },
  deeds: [],
});

/** One web page of a device: login, forced new password, address form, and its own way to keep it. */
export class DevicePage {
  private session: string | undefined;

  constructor(private readonly random: () => number) {}

  /** At power-off nobody is logged in any more. */
  forget(): void {
    this.session = undefined;
  }

  answer(now: PageNow, request: PageRequest): PageStep {
    const { method, path } = request;
    if (path === '/login' && method === 'POST') return this.login(now, request);
    if (!this.isLoggedIn(request)) return show(now, loginHtml(path !== '/' && path !== '/network'));
    if (path === '/password') return this.newPassword(now, request);
    if (now.password === undefined && now.kind.asksNewPassword) return to('/password');
    if (path === '/about') return show(now, aboutHtml(now));
    if (path === '/' || path === '/network')
      return method === 'POST' ? changeNetwork(now, request) : show(now, networkHtml(now));
    if (method === 'POST' && path === '/save') return locked(now) ?? to('/network', [SAVE]);
    if (method === 'POST' && path === '/restart')
      return locked(now) ?? { ...show(now, restartingHtml(now)), deeds: [{ kind: 'restart' }] };
    return show(now, '<p>There is no such page.</p>', 404);
  }

  private isLoggedIn({ cookie }: PageRequest): boolean {
    return this.session !== undefined && cookie.split('; ').includes(`sid=${this.session}`);
  }

  private login(now: PageNow, { form }: PageRequest): PageStep {
    const right = now.password ?? FACTORY_LOGIN;
    if (form.get('user') !== FACTORY_LOGIN || form.get('password') !== right)
      return show(now, loginHtml(true), 403);
    this.session = Math.floor(this.random() * 2 ** 32).toString(16);
    return to('/network', [], `sid=${this.session}`);
  }

  private newPassword(now: PageNow, { method, form }: PageRequest): PageStep {
    if (method !== 'POST') return show(now, passwordHtml(''));
    const password = form.get('password') ?? '';
    if (password !== form.get('again')) return show(now, passwordHtml('The two differ.'), 400);
    if (password.length < LEAST_PASSWORD || password === FACTORY_LOGIN)
      return show(now, passwordHtml(`Six characters or more, and not the old one.`), 400);
    return to('/network', [{ kind: 'password', password }]);
  }
}

const SAVE: PageDeed = { kind: 'save' };

const locked = (now: PageNow): PageStep | undefined =>
  now.isConnected && now.kind.isLockedWhileConnected
    ? show(now, networkHtml(now, 'Read-only while its controller is connected.'), 403)
    : undefined;

function changeNetwork(now: PageNow, { form }: PageRequest): PageStep {
  const refusal = locked(now);
  if (refusal) return refusal;
  const address = addressIn(form);
  if (typeof address === 'string') return show(now, networkHtml(now, address), 400);
  return to('/network', [{ kind: appliesAtOnce(now.kind) ? 'apply' : 'store', address }]);
}

function addressIn(form: URLSearchParams): HostAddress | string {
  const address = parseIpv4(form.get('address') ?? '');
  const mask = parseIpv4(form.get('mask') ?? '');
  const gateway = parseIpv4(form.get('gateway') || '0.0.0.0');
  if (!address.ok) return 'The address cannot be read.';
  if (!mask.ok || lengthOfMask(mask.value) === undefined) return 'The mask cannot be read.';
  if (!gateway.ok) return 'The gateway cannot be read.';
  const length = lengthOfMask(mask.value) ?? 0;
  const none = gateway.value === toIpv4(0);
  return {
    address: address.value,
    length: length as HostAddress['length'],
    ...(none ? {} : { gateway: gateway.value }),
  };
}
