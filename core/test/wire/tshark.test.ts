import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { frameView } from '@ipsonomo/language';
import {
  dissect,
  encodeWith,
  OWN_PCAP,
  pcapHeader,
  pcapRecord,
  framesOfCapture,
} from '../../src/wire';
import { frames } from './samples';
import { withTshark } from './with-tshark';

function fieldsOf(frame: Uint8Array, fields: readonly string[]): readonly string[] {
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-')), 'frames.pcap');
  const record = { at: 1_732_420_000_000_000, frame, wireLength: frame.length };
  writeFileSync(
    file,
    Buffer.concat([encodeWith(pcapHeader, OWN_PCAP), encodeWith(pcapRecord(OWN_PCAP), record)]),
  );
  const checks = ['-o', 'ip.check_checksum:TRUE', '-o', 'udp.check_checksum:TRUE'];
  const more = ['-o', 'tcp.check_checksum:TRUE', '-T', 'fields', '-E', 'separator=|'];
  const names = [...fields, '_ws.malformed', '_ws.expert.severity'];
  const asked = names.flatMap((field) => ['-e', field]);
  const out = execFileSync('tshark', ['-r', file, ...checks, ...more, ...asked], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  return out.toString().trimEnd().split('|');
}

/** tshark's severities: 4194304 note, 6291456 warning, 8388608 error. */
const NOTE_OR_LESS = /^(|2097152|4194304|1048576)(,(2097152|4194304|1048576))*$/;

withTshark('what we encode is dissected cleanly by tshark', () => {
  test.each([
    [
      'arp',
      ['arp.opcode', 'arp.src.hw_mac', 'arp.src.proto_ipv4', 'arp.dst.proto_ipv4'],
      ['2', '02:00:5e:00:53:11', '172.22.40.104', '172.22.40.250'],
    ],
    [
      'ping',
      [
        'icmp.type',
        'icmp.ident',
        'icmp.seq',
        'icmp.checksum.status',
        'ip.checksum.status',
        'ip.dst',
      ],
      ['8', '7', '9', '1', '1', '172.22.40.104'],
    ],
    [
      'exceeded',
      [
        'icmp.type',
        'icmp.code',
        'icmp.checksum.status',
        'ip.src',
        'ip.dst',
        'icmp.ident',
        'icmp.seq',
      ],
      // Of both headers: the router's, and the quoted one.
      ['11,8', '0,0', '1,2', '172.22.40.1,172.22.40.250', '172.22.40.250,172.22.41.80', '7', '9'],
    ],
    [
      'discover',
      [
        'dhcp.option.dhcp',
        'dhcp.id',
        'dhcp.flags.bc',
        'dhcp.option.hostname',
        'udp.checksum.status',
      ],
      ['1', '0xa212aa4c', '1', 'ox1-valves-1', '1'],
    ],
    [
      'readAttribute',
      [
        'tcp.checksum.status',
        'enip.command',
        'enip.session',
        'cip.sc',
        'cip.class',
        'cip.instance',
      ],
      ['1', '0x006f', '0x00001234', '0x0e', '0xf5', '0x01'],
    ],
    [
      'routed',
      ['cip.sc', 'cip.class', 'cip.port', 'cip.linkaddress.byte', 'cip.linkaddress.string'],
      // Asked of the connection manager; then along the route.
      ['0x52,0x01', '0x06,0x01', '1,2,15,0x0012', '5,3', '172.22.40.186'],
    ],
    [
      'registers',
      ['mbtcp.trans_id', 'mbtcp.unit_id', 'modbus.func_code', 'modbus.reference_num'],
      ['9', '3', '3', '107'],
    ],
    ['exception', ['mbtcp.unit_id', 'modbus.func_code', 'modbus.exception_code'], ['3', '3', '11']],
    [
      'identified',
      ['modbus.func_code', 'modbus.mei', 'modbus.num_objects', 'modbus.object_str_value'],
      ['43', '14', '3', 'Eldrup,EB-8,1.4'],
    ],
    [
      'recordAsked',
      [
        ...['dcerpc.pkt_type', 'dcerpc.dg_if_id', 'dcerpc.obj_id', 'dcerpc.opnum'],
        ...['pn_io.block_type', 'pn_io.slot_nr', 'pn_io.subslot_nr', 'pn_io.index'],
        'pn_io.record_data_length',
      ],
      [
        ...['0', 'dea00001-6c97-11d1-8271-00a02442df7d', 'dea00000-6c97-11d1-8271-0001000803fe'],
        ...['5', '0x0009', '0x0000', '0x0001', '0xf000', '1200'],
      ],
    ],
    [
      'modulesTold',
      [
        ...['dcerpc.pkt_type', 'pn_io.block_type', 'pn_io.slot_nr', 'pn_io.module_ident_number'],
        'pn_io.submodule_ident_number',
      ],
      ['2', '0x8009,0x0013', '0x0000,0x0000,0x0002', '0x00000010,0x80000022', '0x00000001'],
    ],
    [
      'oldModulesTold',
      ['pn_io.block_type', 'pn_io.slot_nr', 'pn_io.module_ident_number', 'pn_io.subslot_nr'],
      ['0x8009,0x0013', '0x0000,0x0002', '0x00000022', '0x0001,0x0001'],
    ],
    [
      'identificationTold',
      [
        ...['pn_io.block_type', 'pn_io.order_id', 'pn_io.im_serial_number'],
        ...['pn_io.im_hardware_revision', 'pn_io.im_revision_prefix'],
        ...['pn_io.im_sw_revision_functional_enhancement', 'pn_io.im_revision_bugfix'],
        'pn_io.im_sw_revision_internal_change',
      ],
      [
        ...['0x8009,0x0020', 'EB-8-CH'.padEnd(20), '7A710021'.padEnd(16), '0x0003', "'V'"],
        ...['0x03', '0x01', '0x04'],
      ],
    ],
    [
      'whoItIs',
      [
        ...['enip.command', 'enip.lir.vendor', 'enip.lir.devtype', 'enip.lir.prodcode'],
        ...['enip.lir.status', 'enip.lir.serial', 'enip.lir.name', 'enip.lir.state'],
        ...['enip.sinaddr', 'enip.sinport'],
      ],
      [
        ...['0x0063', '0xfeb1', '12', '16', '0x0061', '0x7a405162', 'Valve block 16', '0x03'],
        ...['172.22.40.104', '44818'],
      ],
    ],
    [
      'identify',
      [
        'eth.dst',
        'pn_dcp.service_id',
        'pn_dcp.service_type',
        'pn_dcp.xid',
        'pn_dcp.response_delay',
      ],
      ['01:0e:cf:00:00:00', '5', '0', '0x00000009', '64'],
    ],
    [
      'station',
      [
        'pn_dcp.service_type',
        'pn_dcp.suboption_device_nameofstation',
        'pn_dcp.suboption_device_devicevendorvalue',
        'pn_dcp.suboption_vendor_id',
        'pn_dcp.suboption_device_id',
        'pn_dcp.suboption_ip_block_info',
        'pn_dcp.suboption_ip_ip',
        'pn_dcp.suboption_ip_standard_gateway',
      ],
      [
        ...['1', 'sl1-block-1', 'Field block 8', '0x03fe', '0x0008', '1'],
        ...['172.22.40.104', '172.22.40.1'],
      ],
    ],
    [
      'named',
      ['pn_dcp.service_id', 'pn_dcp.block_qualifier', 'pn_dcp.suboption_device_nameofstation'],
      ['4', '1', 'sl1-block-1'],
    ],
    [
      'addressed',
      ['pn_dcp.block_qualifier', 'pn_dcp.suboption_ip_ip', 'pn_dcp.suboption_ip_standard_gateway'],
      ['0', '172.22.40.104', '172.22.40.104'],
    ],
    [
      'flashed',
      ['pn_dcp.suboption_control', 'pn_dcp.suboption_control_signal_value'],
      ['3', '0x0100'],
    ],
    [
      'lldp',
      ['lldp.port.id', 'lldp.tlv.system.name', 'lldp.time_to_live', 'lldp.ieee.802_1.port_vlan.id'],
      ['port5', 'hall-switch', '120', '40'],
    ],
    ['reset', ['pn_dcp.suboption_control', 'pn_dcp.block_qualifier_reset'], ['6', '4']],
    ['refusal', ['pn_dcp.service_type', 'pn_dcp.block_error'], ['1', '6']],
  ])('%s', (name, fields, expected) => {
    const frame = frames[name];
    if (!frame) throw new Error(name);
    const found = fieldsOf(frame, fields);
    expect(found.slice(0, fields.length)).toEqual(expected);
    expect(found[fields.length] ?? '').toBe('');
    expect(found[fields.length + 1] ?? '').toMatch(NOTE_OR_LESS);
  });
});

// editcap comes with tshark.
withTshark('as editcap writes them', () => {
  test('a capture with nanoseconds and one with a cut frame are read', () => {
    const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-'));
    const source = join(__dirname, '../data/udhcpc-with-dnsmasq.pcap');
    const own = [...framesOfCapture(new Uint8Array(readFileSync(source)))];
    const written = (...args: readonly string[]) => {
      const file = join(folder, 'written.pcap');
      execFileSync('editcap', [...args, source, file]);
      return [...framesOfCapture(new Uint8Array(readFileSync(file)))];
    };
    expect(written('-F', 'nsecpcap')).toEqual(own);
    const cut = written('-F', 'pcap', '-s', '60');
    expect(cut.map((one) => [one.frame.length, one.wireLength])).toEqual(
      own.map((one) => [60, one.wireLength]),
    );
  });
});

test('a big-endian capture is read as the same', () => {
  const record = { at: 1_732_420_000_123_456, frame: Uint8Array.of(1, 2, 3), wireLength: 60 };
  const bytes = Buffer.alloc(24 + 16 + 3);
  [0xa1b2c3d4, 0x00020004, 0, 0, 65535, 1].forEach((word, i) => bytes.writeUInt32BE(word, 4 * i));
  const head = [1_732_420_000, 123_456, 3, 60];
  head.forEach((word, i) => bytes.writeUInt32BE(word, 24 + 4 * i));
  bytes.set(record.frame, 40);
  expect([...framesOfCapture(new Uint8Array(bytes))]).toEqual([record]);
});

withTshark('what we say of a station is what tshark says of it', () => {
  test.each<[keyof typeof frames, readonly string[], readonly string[]]>([
    ['station', ['pn_dcp.suboption_device_nameofstation'], ['station name']],
    [
      'addressed',
      ['pn_dcp.suboption_ip_ip', 'pn_dcp.suboption_ip_subnetmask'],
      ['address.address', 'address.mask'],
    ],
    ['named', ['pn_dcp.suboption_device_nameofstation'], ['station name']],
  ])('%s', (name, fields, ours) => {
    const frame = frames[name] ?? new Uint8Array(0);
    const view = frameView(dissect(frame)) as unknown as {
      readonly discovery: {
        readonly blocks: readonly { readonly name?: string; readonly value: unknown }[];
      };
    };
    const said = ours.map((path) => {
      const [block = '', part] = path.split('.');
      const value = view.discovery.blocks.find((one) => one.name === block)?.value;
      return String(part === undefined ? value : (value as Record<string, unknown>)[part]);
    });
    expect(fieldsOf(frame, fields).slice(0, fields.length)).toEqual(said);
  });
});
