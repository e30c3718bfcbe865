import { execFileSync, spawnSync } from 'node:child_process';
import { CODE_SYSTEMS, CODES, formatCode, readCode, type CodeSystem } from '../../src/codes';

// R-CODE: what a code means. The names are held against an independent dissector's.

const installed = spawnSync('tshark', ['--version']).status === 0;
const withTshark = installed || process.env['CI'] ? describe : describe.skip;

const FIELDS: Readonly<Record<CodeSystem, string>> = {
  cip: 'cip.genstat',
  'cip-connection': 'cip.cm.ext_status',
  modbus: 'modbus.exception_code',
  station: 'pn_dcp.block_error',
};

withTshark('tshark has the same names', () => {
  const lines = execFileSync('tshark', ['-G', 'values'], {
    ...{ maxBuffer: 2 ** 28, stdio: ['ignore', 'pipe', 'ignore'], encoding: 'utf8' },
  }).split('\n');
  test.each(CODE_SYSTEMS)('%s', (system) => {
    const theirs = new Map(
      lines.flatMap((line) => {
        const [kind, field, value, name] = line.split('\t');
        return kind === 'V' && field === FIELDS[system] ? [[Number(value), name] as const] : [];
      }),
    );
    const ours = Object.entries(CODES[system]).map(([value, { name }]) => [Number(value), name]);
    expect(ours.length).toBeGreaterThan(6);
    expect(ours).toEqual(ours.map(([value]) => [value, theirs.get(Number(value))]));
  });
});

test.each<[string, CodeSystem, readonly string[]]>([
  ['0x01', 'cip', ['0x01 Connection failure']],
  ['16#0127', 'cip-connection', ['0x0127 Invalid O->T size']],
  ['0127h', 'cip-connection', ['0x0127 Invalid O->T size']],
  // As decimal it is 0x0127 as well, and as hex nothing.
  ['295', 'cip-connection', ['0x0127 Invalid O->T size']],
  ['01/0315', 'cip', ['0x0315 Invalid segment in connection path']],
  ['0x01, 0x0109', 'cip', ['0x0109 Invalid connection size']],
  // Hex or decimal: both are known, so both are shown.
  ['10', 'cip', ['0x10 Device state conflict']],
  ['11', 'modbus', ['11 Gateway target device failed to respond']],
  ['2', 'modbus', ['2 Illegal data address']],
  ['0x06', 'station', ['6 In operation, SET not possible']],
  ['0x0999', 'cip-connection', ['0x0999 unknown']],
  ['', 'cip', []],
  ['error', 'modbus', []],
])('"%s" of %s', (text, system, expected) => {
  const read = readCode(text, system).map(
    (one) => `${formatCode(one)} ${one.meaning?.name ?? 'unknown'}`,
  );
  expect(read).toEqual(expected);
});
