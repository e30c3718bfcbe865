import { evidenceWords } from '@ipsonomo/language';
import { readEvidence } from '@ipsonomo/core/plan';
import { ip, mac, target } from './bench';
import { Site } from './site';

// R-REGISTER-READ: one register through the serial gateway of the practice site.

const gateway = target({
  ...{ interfaceId: 'gateway', title: 'Scale gateway', mac: mac('02:4c:7a:52:00:14') },
  ...{ address: ip('172.22.40.51'), way: 'web-page' },
});

async function read(unit: number, register: number, area: 'holding' | 'input' = 'holding') {
  const site = new Site([gateway]);
  site.site.act({ kind: 'cable', device: 'scale-gateway', on: true }, site.now());
  await site.advance(5);
  const asked = { unit, register, area, written: String(register), tcpPort: 502 };
  await site.through(
    site.engine.acts.readRegister({ ...asked, interfaceId: 'gateway', person: 'Mara' }),
  );
  return site.last('register-read')?.facts ?? {};
}

test.each<[string, number, number, object, RegExp]>([
  ['a scale on the line', 1, 2, { value: 4180 }, /unit 1, holding register 2: 4180 \(0x1054\)/],
  ['the gateway itself', 255, 1, { value: 37 }, /the device itself, holding register 1: 37/],
  [
    'a register it does not have',
    1,
    900,
    { exception: 2 },
    /exception 2: It has no such register\. A difference of exactly one/,
  ],
  ['nobody on the line with this number', 9, 0, { exception: 10 }, /exception 10: /],
  ['one that is silent on the line', 2, 0, { exception: 11 }, /exception 11: /],
])('%s', async (_name, unit, register, facts, words) => {
  const found = await read(unit, register);
  expect(found).toMatchObject(facts);
  expect(evidenceWords(readEvidence('register-read', found))).toMatch(words);
});

test('another device answers at its address: not a word is said to it', async () => {
  const site = new Site([{ ...gateway, mac: mac('02:4c:7a:52:00:99') }]);
  site.site.act({ kind: 'cable', device: 'scale-gateway', on: true }, site.now());
  await site.advance(5);
  const asked = { unit: 1, register: 0, area: 'holding' as const, written: '0', tcpPort: 502 };
  const act = site.engine.acts.readRegister({ ...asked, interfaceId: 'gateway', person: '' });
  await expect(site.through(act)).rejects.toThrow('talk.other');
});
