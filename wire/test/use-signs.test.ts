import { BROADCAST_MAC, ZERO_MAC } from '@ipsonomo/core/net';
import { arpFrame, encodeWith, ethernet } from '@ipsonomo/core/wire';
import { Site } from './site';
import { DRIVE, EngineBench, ip, mac, planOf, STRANGER, target } from './bench';

// R-IN-USE: what the wire shows of a controller that works with a device, without a word of ours.

const CONTROLLER = ip('10.77.0.10');
const drive = target({ controllerAt: [CONTROLLER], holds: true });
const power = { interfaceId: 'drive', person: 'Mara Quist' };

function asks(bench: EngineBench, from: string, about: string): void {
  const said = { senderMac: STRANGER, senderAddress: ip(from), targetMac: ZERO_MAC } as const;
  const packet = { operation: 'request', ...said, targetAddress: ip(about) } as const;
  bench.engine.frame(arpFrame(STRANGER, BROADCAST_MAC, packet));
}

function exchanges(bench: EngineBench, id: number): void {
  const payload = Uint8Array.of(id >>> 8, id & 255, ...new Uint8Array(44));
  const frame = { to: DRIVE, from: STRANGER, etherType: 0x8892, payload };
  bench.engine.frame(encodeWith(ethernet, frame));
}

const refusalOf = (bench: EngineBench): unknown => {
  try {
    void bench.engine.acts.watchPower(power);
    return undefined;
  } catch (error) {
    return error;
  }
};

test.each<[what: string, seen: (bench: EngineBench) => void, facts: object | undefined]>([
  ['nothing was seen', () => undefined, undefined],
  [
    'its controller asked for it',
    (bench) => asks(bench, '10.77.0.10', '10.77.0.85'),
    { sign: 'asked', by: '10.77.0.10', seconds: 20 },
  ],
  ['somebody else asked for it', (bench) => asks(bench, '10.77.0.9', '10.77.0.85'), undefined],
  [
    'its controller asked for another',
    (bench) => asks(bench, '10.77.0.10', '10.77.0.86'),
    undefined,
  ],
  ['its controller said who it is', (bench) => asks(bench, '10.77.0.10', '10.77.0.10'), undefined],
  [
    'cyclic data went to it',
    (bench) => exchanges(bench, 0x8001),
    { sign: 'exchanges', by: '02:00:5e:00:53:77', seconds: 20 },
  ],
  ['a time message went to it', (bench) => exchanges(bench, 0xff00), undefined],
  [
    'that was long ago',
    (bench) => {
      asks(bench, '10.77.0.10', '10.77.0.85');
      bench.advance(110_000);
    },
    undefined,
  ],
])('%s', (_what, seen, facts) => {
  const bench = new EngineBench(planOf([drive]));
  seen(bench);
  bench.advance(20_000);
  const refusal = refusalOf(bench);
  if (facts) expect(refusal).toMatchObject({ code: 'device.mayBeUsed', facts });
  else expect(refusal).toBeUndefined();
});

test('who knows better goes on, and that is kept with the reason', () => {
  const bench = new EngineBench(planOf([drive]));
  asks(bench, '10.77.0.10', '10.77.0.85');
  expect(refusalOf(bench)).toBeDefined();
  void bench.engine.acts.watchPower({ ...power, evenSo: 'line is locked' });
  const kept = bench.events.find(({ kind }) => kind === 'overruled');
  expect(kept).toMatchObject({ facts: { act: 'power', reason: 'line is locked' } });
});

test('a name and a reset over layer 2 ask as well, before anything is sent', async () => {
  const at = { controllerAt: [CONTROLLER], holds: true, mac: mac('02:00:5e:00:53:11') };
  const bench = new EngineBench(planOf([target({ ...at, way: 'layer2-name' })]));
  exchanges(bench, 0xbbff);
  const refused = { code: 'device.mayBeUsed' };
  await expect(bench.engine.acts.giveStation(power, 'name')).rejects.toMatchObject(refused);
  await expect(bench.engine.acts.resetStation(power, 'spare')).rejects.toMatchObject(refused);
  expect(bench.sent).toEqual([]);
});

test('on the practice site a controller that runs a block is heard asking for it', async () => {
  const block = target({
    ...{ interfaceId: 'block', title: 'Sorting block 5', mac: mac('02:4c:7a:71:00:31') },
    ...{ address: ip('172.22.40.115'), way: 'controller', stationName: 'sl1-block-5' },
    controllerAt: [ip('172.22.40.10')],
  });
  const site = new Site([block]);
  await site.advance(10);
  const act = { interfaceId: 'block', person: 'Mara Quist' };
  await site.through(site.engine.acts.giveStation(act, 'name'));
  await site.advance(10);
  expect(() => site.engine.acts.watchPower(act)).toThrow('device.mayBeUsed');
});
