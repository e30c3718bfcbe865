import { fireEvent } from '@testing-library/react';
import type { AuthorityView } from '@ipsonomo/core/api';
import { TrustScreen } from '../../src/features/waiting/TrustScreen';
import { show } from '../world';

// How a phone comes to trust a laptop.

const FINGERPRINT = 'AB:CD:EF';
const open = (authority: AuthorityView) =>
  show(<TrustScreen />, { also: [['/authority', authority]] });
const encrypted = (is: boolean) =>
  Object.defineProperty(globalThis, 'isSecureContext', { value: is, configurable: true });
afterEach(() => encrypted(false));

test('the certificate, the steps for each system, what to compare, and where it is opened then', async () => {
  encrypted(false);
  const clicked: string[] = [];
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function click(
    this: HTMLAnchorElement,
  ) {
    clicked.push(new URL(this.href).pathname);
  });
  const { findByText, getByText, queryByText } = open({ port: 4791, fingerprint: FINGERPRINT });
  fireEvent.click(await findByText('Take the certificate'));
  expect(clicked).toEqual(['/api/authority.crt']);
  for (const system of [/^Android: /, /^iPhone, iPad: /, /^Windows: /])
    expect(getByText(system)).toBeTruthy();
  expect(getByText(FINGERPRINT)).toBeTruthy();
  expect(getByText('Open https://localhost:4791/')).toBeTruthy();
  expect(queryByText(/^Here the application opens without/)).toBeNull();
});

test('where it opens without a network already, it says so; a server without an authority says why', async () => {
  encrypted(true);
  const { findByText, queryByText } = open({ port: null, fingerprint: '' });
  expect(await findByText(/^This server has no authority of its own/)).toBeTruthy();
  expect(await findByText(/^Here the application opens without/)).toBeTruthy();
  expect(queryByText('Take the certificate')).toBeNull();
});
