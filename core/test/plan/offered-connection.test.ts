import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readEds } from '../../src/describe';
import {
  applyEdits,
  connectionOffered,
  docOfPlan,
  endOffered,
  isFieldOf,
  measureEnd,
  offerEdits,
  planOf,
  PROTOCOLS,
  toDevice,
  toPlan,
  type ConnectionEnd,
} from '../../src/plan';
import { snagsOf } from '../../src/snags';

// What a description file says of connections: into the kind, and from there into each connection.

const text = readFileSync(join(__dirname, '../data/descriptions/plain.eds'), 'latin1');
const read = readEds(text);
const [kind] = typeof read === 'string' ? [] : read.kinds;
const [offer] = kind?.offers ?? [];
if (!kind || !offer) throw new Error('the file offers no connection');

const device = (id: string, fields: object = {}) =>
  toDevice({ id, title: id, name: id, kindId: kind.id, way: 'bootp', ...fields });

test('a connection that is planned as offered has both ends alike, and nothing speaks against it', () => {
  const connection = connectionOffered(offer);
  expect(connection.controller).toEqual(connection.device);
  expect(connection.device).toMatchObject({
    ...{ inSize: 32, outSize: 16, inInstance: 100, outInstance: 101, configInstance: 102 },
    intervalMillis: 4,
  });
  const plan = toPlan({ kinds: [kind], devices: [device('drive', { connection })] });
  expect(snagsOf(plan).filter(({ field }) => field === 'connection')).toEqual([]);
});

test.each<[string, Partial<ConnectionEnd>]>([
  ['bytes', {}],
  ['words', { unitBits: '16' }],
  ['double words with a header', { unitBits: '32', headerBytes: 4 }],
  ['the device’s own viewpoint', { viewpoint: 'device' }],
])('an end in %s carries what is offered, however it counts', (_what, fields) => {
  const end = endOffered({ ...connectionOffered(offer).device, ...fields }, offer);
  expect(measureEnd(end)).toEqual({ inBytes: 32, outBytes: 16 });
  const [own, other] =
    end.viewpoint === 'controller'
      ? [end.inInstance, end.outInstance]
      : [end.outInstance, end.inInstance];
  expect([own, other]).toEqual([100, 101]);
});

test('into every connection of its kind, and nobody else’s; the project’s side stays what it is', () => {
  const connection = connectionOffered(offer);
  const spoilt = { ...connection, device: { ...connection.device, inInstance: 7, inSize: 9 } };
  const plan = toPlan({
    kinds: [kind],
    devices: [
      device('right', { connection }),
      device('wrong', { connection: { ...spoilt, controller: spoilt.device } }),
      device('without'),
      device('modbus', { connection: { ...spoilt, protocol: 'Modbus/TCP' } }),
      device('another', { connection: spoilt, kindId: 'belloch-drive-d4' }),
    ],
  });
  const doc = docOfPlan(plan);
  const edits = offerEdits(doc, plan.devices, kind.id, offer);
  expect(edits.map((one) => (one.op === 'set' ? [one.id, one.field] : one))).toEqual([
    ['wrong', 'connection'],
  ]);
  const done = applyEdits(doc, edits);
  const after = done.ok ? planOf(done.value.doc).devices[1]?.connection : undefined;
  expect(after).toEqual({ ...connection, controller: spoilt.device });
});

test('each protocol has its own fields: instances are not asked for where there are none', () => {
  const has = (field: string) => PROTOCOLS.filter((one) => isFieldOf(one, field));
  expect(has('inInstance')).toEqual(['EtherNet/IP']);
  expect(has('configBytes')).toEqual(['EtherNet/IP']);
  expect(has('register')).toEqual(['Modbus/TCP']);
  expect(has('inSize')).toEqual(['EtherNet/IP', 'PROFINET', 'Modbus/TCP']);
  expect(has('intervalMillis')).toEqual([...PROTOCOLS]);
});
