import { DRIVE, EngineBench, ip, planOf, STRANGER, target } from './bench';

// Somebody says it has an address: ours, or one that is to be given. A word alone takes none; an answer does.

const GIVEN = '10.77.0.85';

test('we step aside where our own address is taken, and stay silent where none is free', () => {
  const bench = new EngineBench(planOf([target()], ['10.77.0.253', '10.77.0.252']));
  bench.engine.arm(600_000, '');
  bench.has(STRANGER, '10.77.0.253');
  bench.advance(2000);
  expect(bench.engine.status().voices).toMatchObject([
    { address: ip('10.77.0.252'), state: 'ready' },
  ]);
  expect(bench.notices()).toContainEqual({
    code: 'voice-taken',
    address: '10.77.0.253',
    by: '02:00:5e:00:53:77',
  });
  bench.has(STRANGER, '10.77.0.252');
  bench.asks(DRIVE);
  bench.advance(20); // it asks who has it, and is answered
  bench.has(STRANGER, '10.77.0.252');
  bench.advance(5000);
  expect(bench.replies()).toEqual([]);
  expect(bench.notices()).toContainEqual({ code: 'no-voice', subnet: 'Filter hall' });
  // All are tried again after a while: the stranger has gone.
  bench.asks(DRIVE);
  bench.advance(7000);
  expect(bench.replies()).toEqual(['BootP reply 10.77.0.85']);
});

test('R-STEP-ASIDE: a word alone does not take our own address: we ask, keep it where nobody answers, and never defend it', () => {
  const bench = new EngineBench(planOf([target()], ['10.77.0.253', '10.77.0.252']));
  bench.arm();
  bench.spoken();
  bench.has(STRANGER, '10.77.0.253');
  expect(bench.engine.status().voices).toMatchObject([{ state: 'claiming' }]);
  bench.asks(DRIVE);
  bench.advance(1000);
  expect(bench.engine.status().voices).toMatchObject([
    { address: ip('10.77.0.253'), state: 'ready' },
  ]);
  expect(bench.spoken().filter((one) => !/10\.77\.0\.85/.test(one))).toEqual([
    'probe 10.77.0.253',
    'probe 10.77.0.253',
    'announce 10.77.0.253',
  ]);
  expect(bench.notices().map(({ code }) => code)).not.toContain('voice-taken');
});

test('a stranger that says so each second keeps nobody from being answered', () => {
  const bench = new EngineBench(planOf([target()], ['10.77.0.253', '10.77.0.252']));
  bench.arm();
  bench.spoken();
  for (let second = 0; second < 60; second += 1) {
    bench.has(STRANGER, `10.77.0.${253 - (second % 2)}`);
    bench.asks(DRIVE);
    bench.advance(1000);
    expect([second, bench.replies()]).toEqual([second, ['BootP reply 10.77.0.85']]);
  }
});

test('one who says so without end, of every address we might have, has them; soon after it is quiet we answer again', () => {
  const bench = new EngineBench(planOf([target()], ['10.77.0.253', '10.77.0.252']));
  bench.arm();
  for (let time = 0; time < 600; time += 1) {
    bench.has(STRANGER, `10.77.0.${253 - (time % 2)}`);
    bench.advance(20);
  }
  bench.spoken();
  bench.asks(DRIVE);
  bench.advance(11_000);
  expect(bench.replies()).toEqual(['BootP reply 10.77.0.85']);
});

test('a word of somebody that has the planned address holds the device up for as long as it is asked for', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  for (let time = 0; time < 10; time += 1) {
    bench.has(STRANGER, '10.77.0.85');
    bench.advance(2000); // as BootP clients ask again
    bench.asks(DRIVE);
    bench.advance(500);
    expect([time, bench.replies()]).toEqual([time, ['BootP reply 10.77.0.85']]);
  }
});

test('a word just before it asks, or after: it is answered before it asks again', () => {
  for (const after of [-1, 1, 100]) {
    const bench = new EngineBench();
    bench.arm();
    bench.spoken();
    const word = () => bench.has(STRANGER, GIVEN);
    bench.advance(16_000); // what is known is asked again when it turns old: the word comes into that question
    if (after < 0) word();
    bench.asks(DRIVE);
    bench.advance(Math.max(0, after));
    if (after > 0) word();
    bench.advance(450);
    expect([after, bench.replies()]).toEqual([after, [`BootP reply ${GIVEN}`]]);
  }
});

test('words without pause have an address asked for no oftener than four times a second', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  for (let time = 0; time < 200; time += 1) {
    bench.has(STRANGER, GIVEN);
    bench.asks(DRIVE, { transaction: 1 + Math.floor(time / 20) });
    bench.advance(10);
  }
  const probes = bench.spoken().filter((one) => one.startsWith('probe'));
  expect(probes.length).toBeGreaterThan(4);
  expect(probes.length).toBeLessThanOrEqual(2 * 9);
});

test('a word into our question is asked about again, and whoever waits is answered; who says it each time has it', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.has(STRANGER, GIVEN);
  bench.advance(1000);
  bench.asks(DRIVE);
  bench.advance(20);
  bench.has(STRANGER, GIVEN);
  bench.advance(1000);
  expect(bench.replies()).toEqual([`BootP reply ${GIVEN}`]);
  bench.has(STRANGER, GIVEN);
  bench.advance(1000);
  bench.asks(DRIVE, { transaction: 2 });
  for (let time = 0; time < 20; time += 1) {
    bench.advance(70);
    bench.has(STRANGER, GIVEN);
  }
  bench.advance(3000);
  expect(bench.replies()).toEqual([]);
});

test('who asks again and again is answered at once each time: the question is asked before what is known turns old', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  let probes = 0;
  for (let time = 0; time < 240; time += 1) {
    bench.asks(DRIVE, { transaction: time });
    const said = bench.spoken();
    expect(said).toContain(`BootP reply ${GIVEN}`);
    bench.advance(500);
    probes += [...said, ...bench.spoken()].filter((one) => one.startsWith('probe')).length;
  }
  // Of two minutes, one question of two frames every quarter of a minute.
  expect(probes).toBeGreaterThan(8);
  expect(probes).toBeLessThan(20);
});

test('our own address given to a device in the plan: we take another before the next word', () => {
  const bench = new EngineBench();
  bench.arm();
  bench.spoken();
  bench.engine.plan(planOf([target({ address: ip('10.77.0.253') })], ['10.77.0.252']));
  bench.asks(DRIVE);
  bench.advance(2000);
  const spoken = bench.spoken();
  expect(spoken).toContain('announce 10.77.0.252');
  expect(spoken).toContain('BootP reply 10.77.0.253');
});
