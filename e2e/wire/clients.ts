import { mkdtempSync, writeFileSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Machine } from './namespaces';

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-clients-'));

/** Sets what udhcpc was given, and nothing else: the package's own script writes resolv.conf too. */
const UDHCPC_SCRIPT = join(folder, 'udhcpc.sh');
writeFileSync(
  UDHCPC_SCRIPT,
  `#!/bin/sh
case $1 in
  bound|renew) ip addr replace "$ip/$mask" dev "$interface" ;;
  deconfig) ip addr flush dev "$interface" ;;
esac
`,
);
chmodSync(UDHCPC_SCRIPT, 0o755);

export interface Outcome {
  /** The address the client was given; undefined where nobody answered it. */
  readonly address: string | undefined;
  readonly out: string;
}

/** udhcpc of Debian: DHCP. Asks `tries` times, a second apart. */
export function udhcpc(
  machine: Machine,
  tries = 4,
  adapter = 'eth0',
  more: readonly string[] = [],
): Outcome {
  const args = ['udhcpc', '-i', adapter, '-n', '-q', '-f', '-t', String(tries), '-T', '1'];
  const { code, out } = machine.run('busybox', ...args, ...more, '-s', UDHCPC_SCRIPT);
  const address = /lease of (\S+) obtained/.exec(out)?.[1];
  return { address: code === 0 ? address : undefined, out };
}

/** Sets what dhclient was given, and nothing else: the package's own script writes resolv.conf too. */
const DHCLIENT_SCRIPT = join(folder, 'dhclient.sh');
writeFileSync(
  DHCLIENT_SCRIPT,
  `#!/bin/sh
case $reason in
  BOUND|REBOOT) ip addr replace "$new_ip_address/24" dev "$interface" ;;
esac
exit 0
`,
);
chmodSync(DHCLIENT_SCRIPT, 0o755);

/** dhclient of Debian with a client identifier of its own, which it sends as the bytes it is. */
export function dhclient(machine: Machine, identifier: string, seconds: number): Outcome {
  const own = mkdtempSync(join(folder, 'dhclient-'));
  const config = join(own, 'conf');
  writeFileSync(
    config,
    `timeout ${seconds};\nretry 1;\nsend dhcp-client-identifier "${identifier}";\n`,
  );
  machine.ip('addr', 'flush', 'dev', 'eth0');
  const files = ['-cf', config, '-lf', join(own, 'leases'), '-pf', join(own, 'pid')];
  const { code, out } = machine.run(
    'dhclient',
    '-4',
    '-1',
    ...files,
    '-sf',
    DHCLIENT_SCRIPT,
    'eth0',
  );
  const address = /inet ([0-9.]+)\//.exec(machine.ip('-4', '-o', 'addr', 'show', 'eth0'))?.[1];
  return { address: code === 0 ? address : undefined, out };
}

/** udhcpc that stays and renews when told to by SIGUSR1. */
export const udhcpcDaemon = (machine: Machine) =>
  machine.start('busybox', 'udhcpc', '-i', 'eth0', '-f', '-t', '5', '-T', '1', '-s', UDHCPC_SCRIPT);

/** bootpc of Debian: a BOOTP client by RFC 951 on an ordinary socket. Uses what it was given. */
export function bootpc(machine: Machine, seconds: number, more: readonly string[] = []): Outcome {
  machine.ip('route', 'replace', '255.255.255.255', 'dev', 'eth0');
  const wait = ['--dev', 'eth0', '--returniffail', '--timeoutwait', String(seconds)];
  const { out } = machine.run('bootpc', ...wait, ...more);
  const address = /^IPADDR='?([0-9.]+)/m.exec(out)?.[1];
  if (address !== undefined) machine.ip('addr', 'replace', `${address}/24`, 'dev', 'eth0');
  return { address, out };
}
