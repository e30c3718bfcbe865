import { once } from 'node:events';
import { createWriteStream, renameSync, writeFileSync } from 'node:fs';
import { finished } from 'node:stream/promises';
import archiver, { type Archiver } from 'archiver';
import { readerOf, type FormatId } from '@ipsonomo/core/api';
import type { WrittenFile } from '@ipsonomo/handover';
import { sha256Of } from '../common/sha256';

/** Packed already: once more costs time and saves nothing. */
const IS_PACKED = /\.(pdf|png|xlsx)$/;

export const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? Buffer.from(content) : content;

interface Zip {
  readonly archive: Archiver;
  readonly isWritten: Promise<void>;
}

interface Entry {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/**
 * The file that leaves: one file as it is, several in a ZIP, the files by their reader, with the digest of each (FIPS 180-4,
 * as sha256sum reads it). What is added is written before more is asked for, so that no more than one format is in memory.
 * Only the whole stands under its name.
 */
export class PackageOut {
  private readonly part: string;
  /** Held back until it is known whether it is the only one. */
  private first: { readonly file: WrittenFile; readonly entry: Entry } | undefined;
  private zip: Zip | undefined;
  private readonly taken = new Set<string>();
  private readonly sums: string[] = [];

  /** @param at when it was written, in milliseconds since 1970 */
  constructor(
    private readonly path: string,
    private readonly at: number,
  ) {
    this.part = `${path}.part`;
  }

  async add(format: FormatId, files: readonly WrittenFile[]): Promise<void> {
    for (const file of files) {
      const folder = files.length > 1 ? `${readerOf(format)}/${format}` : readerOf(format);
      const entry = { name: this.free(`${folder}/${file.name}`), bytes: bytesOf(file.content) };
      if (!this.first && !this.zip) this.first = { file, entry };
      else await this.pack(entry);
    }
  }

  /** @param name of a ZIP @returns what it is called; undefined where there is nothing to leave */
  async end(name: string): Promise<string | undefined> {
    const { zip, first } = this;
    if (!zip && !first) return undefined;
    if (!zip && first) writeFileSync(this.part, first.entry.bytes);
    if (zip) {
      const sums = Buffer.from(`${this.sums.join('\n')}\n`);
      await this.append(zip, { name: 'SHA256SUMS', bytes: sums });
      await zip.archive.finalize();
      await zip.isWritten;
    }
    renameSync(this.part, this.path);
    return first && !zip ? first.file.name : name;
  }

  private async pack(entry: Entry): Promise<void> {
    const { first } = this;
    this.first = undefined;
    const zip = (this.zip ??= this.begun());
    for (const one of first ? [first.entry, entry] : [entry]) {
      const digest = sha256Of(one.bytes);
      this.sums.push(`${digest}  ${one.name}`);
      await this.append(zip, one);
    }
  }

  private begun(): Zip {
    const archive = archiver('zip', { zlib: { level: 6 } });
    const out = archive.pipe(createWriteStream(this.part));
    return { archive, isWritten: finished(out) };
  }

  private async append({ archive, isWritten }: Zip, { name, bytes }: Entry): Promise<void> {
    const content = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const isIn = once(archive, 'entry');
    archive.append(content, { name, date: new Date(this.at), store: IS_PACKED.test(name) });
    // A disk that is full is told by whoever writes to it.
    await Promise.race([isIn, isWritten]);
  }

  /** A name that no other file has, whether or not a file system minds capitals. */
  private free(base: string): string {
    let full = base;
    for (let more = 2; this.taken.has(full.toLowerCase()); more += 1)
      full = base.replace(/(\.[^./]*)?$/, ` ${more}$1`);
    this.taken.add(full.toLowerCase());
    return full;
  }
}
