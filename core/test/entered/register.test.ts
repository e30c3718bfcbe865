import { registerAsked } from '../../src/entered';
import type { ConnectionEnd } from '../../src/plan';

test.each<[string, ConnectionEnd['counting'], string, number | string]>([
  // Modbus Application Protocol V1.1b3 §4.4: register 1 of the data model is address 0 in the message.
  ['107', 'from-0', 'holding', 107],
  ['108', 'from-1', 'holding', 107],
  ['40108', 'area-digit', 'holding', 107],
  ['400108', 'area-digit', 'holding', 107],
  ['30001', 'area-digit', 'input', 0],
  ['0', 'from-1', '', 'register.range'],
  ['70000', 'from-0', '', 'register.range'],
  ['108', 'area-digit', '', 'register.area'],
  ['10001', 'area-digit', '', 'register.area'],
  ['many', 'from-0', '', 'entered.number'],
])('register %s counted %s', (written, counting, area, register) => {
  const read = registerAsked(written, counting);
  expect(read.ok ? [read.value.area, read.value.register] : ['', read.error.code]).toEqual([
    area,
    register,
  ]);
});
