import fc from 'fast-check';
import ipaddr from 'ipaddr.js';
import { formatIpv4, parseIpv4, toIpv4 } from '../../src/net';

// R-IPV4
describe('parseIpv4', () => {
  test.each([
    ['010.1', 'ipv4.parts', '010.1'],
    ['10.0.1', 'ipv4.parts', '10.0.1'],
    ['10.0.300.4', 'ipv4.octet', '300'],
    [' 10.0.3.4', 'ipv4.space', ' 10.0.3.4'],
    ['10.0.3.4\n', 'ipv4.space', '10.0.3.4\n'],
    ['10.00.3.4', 'ipv4.leadingZero', '00'],
    ['10.0.3.08', 'ipv4.leadingZero', '08'],
    ['0x0a.0.3.4', 'ipv4.digits', '0x0a'],
    ['10..3.4', 'ipv4.digits', ''],
    ['10.0.3.-4', 'ipv4.digits', '-4'],
    ['10.0.3.4294967296', 'ipv4.octet', '4294967296'],
    ['', 'ipv4.empty', ''],
    ['１0.0.3.4', 'ipv4.digits', '１0'],
  ])('refuses %j as %s and names the part', (text, code, where) => {
    expect(parseIpv4(text)).toMatchObject({ ok: false, error: { code, where } });
  });

  test('agrees with ipaddr.js on every address in full notation', () => {
    fc.assert(
      fc.property(fc.nat(0xffffffff), (value) => {
        const text = formatIpv4(toIpv4(value));
        expect(parseIpv4(text)).toEqual({ ok: true, value });
        expect(ipaddr.IPv4.parse(text).toByteArray().join('.')).toBe(text);
      }),
    );
  });

  test('never accepts what ipaddr.js refuses', () => {
    const octet = fc.oneof(fc.nat(999).map(String), fc.string({ maxLength: 3 }));
    fc.assert(
      fc.property(fc.array(octet, { minLength: 1, maxLength: 5 }), (parts) => {
        const text = parts.join('.');
        if (parseIpv4(text).ok) expect(ipaddr.IPv4.isValidFourPartDecimal(text)).toBe(true);
      }),
    );
  });
});
