import 'reflect-metadata';
import { webcrypto } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  BasicConstraintsExtension,
  cryptoProvider,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  AuthorityKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509';
import type { Certificate } from './encrypted';

// A certificate authority of this installation (RFC 5280): phones that have been told to trust it open the application
// encrypted, and so without a network. It vouches for this machine alone, under the names and addresses that it has.

const DAY = 86_400_000;
/** As long as an installation lives. */
const AUTHORITY_DAYS = 3650;
/** What browsers take of a certificate (CA/Browser Forum Baseline Requirements §6.3.2: 398). */
const CERTIFICATE_DAYS = 397;
/** So long before its end there is a new one. */
const RENEWED_BEFORE = 30 * DAY;
/** Clocks of phones go after the server's. */
const SLACK = DAY;
/** P-256 (FIPS 186-5) is what every phone has. */
const KEYS = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const SIGNED = { name: 'ECDSA', hash: 'SHA-256' } as const;

cryptoProvider.set(webcrypto as never);

/** Under what this machine is opened. */
export interface MachineNames {
  readonly dns: readonly string[];
  readonly ip: readonly string[];
}

interface Pair {
  readonly certificate: X509Certificate;
  readonly keys: webcrypto.CryptoKeyPair;
}

/** The authority of this installation, and the certificate of this machine. */
export class Authority {
  private constructor(
    private readonly folder: string,
    private readonly authority: Pair,
    private readonly clock: () => number,
  ) {}

  /** Made at its first use, and read by its owner alone. @param called what people see of it in their settings */
  static async open(folder: string, called: string, clock: () => number): Promise<Authority> {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const known = await read(folder, 'authority');
    const authority = known ?? (await makeAuthority(called, clock()));
    if (!known) await keep(folder, 'authority', authority);
    return new Authority(folder, authority, clock);
  }

  /** What a phone is given to trust: DER (RFC 5280). */
  get der(): Buffer {
    return Buffer.from(this.authority.certificate.rawData);
  }

  /** SHA-256 of it as people compare it: `AB:CD:…`. */
  async fingerprint(): Promise<string> {
    const digest = Buffer.from(await this.authority.certificate.getThumbprint('SHA-256'));
    return [...digest].map((byte) => byte.toString(16).padStart(2, '0').toUpperCase()).join(':');
  }

  /** What this machine shows: as it is, or a new one where it ends soon or the machine has other names by now. */
  async certificateFor(names: MachineNames): Promise<Certificate> {
    const known = await read(this.folder, 'machine');
    const isGood = known !== undefined && (await this.isGood(known.certificate, names));
    const pair = isGood ? known : await this.issue(names);
    if (!isGood) await keep(this.folder, 'machine', pair);
    return { cert: Buffer.from(pair.certificate.toString('pem')), key: await pemOf(pair.keys) };
  }

  private async isGood(certificate: X509Certificate, names: MachineNames): Promise<boolean> {
    const ends = certificate.notAfter.getTime() - RENEWED_BEFORE > this.clock();
    const has = namesOf(certificate);
    const isComplete = [...names.dns, ...names.ip].every((name) => has.has(name));
    const publicKey = this.authority.certificate;
    return ends && isComplete && (await certificate.verify({ publicKey, signatureOnly: true }));
  }

  private async issue({ dns, ip }: MachineNames): Promise<Pair> {
    const keys = await newKeys();
    const { certificate, keys: own } = this.authority;
    const names = [
      ...dns.map((value) => ({ type: 'dns' as const, value })),
      ...ip.map((value) => ({ type: 'ip' as const, value })),
    ];
    const issued = await X509CertificateGenerator.create({
      ...timesFrom(this.clock(), CERTIFICATE_DAYS),
      ...{ serialNumber: serial(), issuer: certificate.subject, signingKey: own.privateKey },
      ...{ subject: `CN=${dns[0] ?? ip[0] ?? 'localhost'}`, publicKey: keys.publicKey },
      signingAlgorithm: SIGNED,
      extensions: [
        new BasicConstraintsExtension(false, undefined, true),
        new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
        new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
        new SubjectAlternativeNameExtension(names),
        await SubjectKeyIdentifierExtension.create(keys.publicKey),
        await AuthorityKeyIdentifierExtension.create(own.publicKey),
      ],
    });
    return { certificate: issued, keys };
  }
}

async function makeAuthority(called: string, now: number): Promise<Pair> {
  const keys = await newKeys();
  const certificate = await X509CertificateGenerator.createSelfSigned({
    ...timesFrom(now, AUTHORITY_DAYS),
    ...{ serialNumber: serial(), name: [{ CN: [called] }], keys, signingAlgorithm: SIGNED },
    extensions: [
      // It vouches for machines, and for no other authority.
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { certificate, keys };
}

const newKeys = (): Promise<webcrypto.CryptoKeyPair> =>
  webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify']) as Promise<webcrypto.CryptoKeyPair>;

/** Sixteen bytes, of which the first keeps it positive (RFC 5280 §4.1.2.2). */
function serial(): string {
  const bytes = webcrypto.getRandomValues(new Uint8Array(16));
  bytes[0] = (bytes[0] ?? 0) & 0x7f || 1;
  return Buffer.from(bytes).toString('hex');
}

const timesFrom = (now: number, days: number) => ({
  notBefore: new Date(now - SLACK),
  notAfter: new Date(now - SLACK + days * DAY),
});

function namesOf(certificate: X509Certificate): ReadonlySet<string> {
  const extension = certificate.getExtension(SubjectAlternativeNameExtension);
  return new Set(extension?.names.items.map(({ value }) => value) ?? []);
}

async function pemOf(keys: webcrypto.CryptoKeyPair): Promise<Buffer> {
  const der = await webcrypto.subtle.exportKey('pkcs8', keys.privateKey as never);
  return Buffer.from(PemConverter.encode(der, 'PRIVATE KEY'));
}

/** Whole or not at all. */
async function keep(folder: string, name: string, { certificate, keys }: Pair): Promise<void> {
  const key = (await pemOf(keys)).toString();
  const path = join(folder, `${name}.pem`);
  const text = `${certificate.toString('pem')}\n${key}\n`;
  writeFileSync(`${path}.part`, text, { mode: 0o600 });
  renameSync(`${path}.part`, path);
}

/** @returns undefined where it is not there, or is nothing that was kept here */
async function read(folder: string, name: string): Promise<Pair | undefined> {
  const path = join(folder, `${name}.pem`);
  if (!existsSync(path)) return undefined;
  try {
    const [cert, key] = PemConverter.decode(readFileSync(path, 'utf8'));
    if (!cert || !key) return undefined;
    const certificate = new X509Certificate(cert);
    const privateKey = await webcrypto.subtle.importKey('pkcs8', key, KEYS, true, ['sign']);
    const publicKey = await certificate.publicKey.export(KEYS, ['verify']);
    return { certificate, keys: { privateKey, publicKey } as webcrypto.CryptoKeyPair };
  } catch {
    return undefined;
  }
}
