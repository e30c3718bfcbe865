import type { Noted } from '@ipsonomo/core/api';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { PlanChanger } from './change-plan';
import { mediaTypeOf } from './papers';
import { sha256Of } from '../common/sha256';

const MEGA = 1_000_000;
/** A photo as a page makes it has a few hundred thousand bytes. */
const MOST_PHOTO = 1.5 * MEGA;
const MOST_TOGETHER = 1000 * MEGA;
const PICTURES = ['image/jpeg', 'image/png'];

/** What people note of devices, and photograph. */
export class Notes {
  constructor(
    private readonly store: Pick<Store, 'photos'>,
    private readonly changer: Pick<PlanChanger, 'note'>,
  ) {}

  /** Refuses with `note.empty`, `photo.unreadable`, `photo.large` and `photo.full`. */
  async add(jobId: string, interfaceId: string, noted: Noted, actor: Actor): Promise<void> {
    const text = noted.text.trim();
    const bytes = noted.photo === undefined ? undefined : Buffer.from(noted.photo, 'base64');
    if (text === '' && bytes === undefined) throw Refusal.of('note.empty', '');
    const photo = bytes && (await this.keep(jobId, bytes));
    const facts = { text, ...(photo === undefined ? {} : { photo }) };
    await this.changer.note(jobId, interfaceId, facts, actor);
  }

  async photo(
    jobId: string,
    id: string,
  ): Promise<{ readonly bytes: Buffer; readonly type: string }> {
    const bytes = await this.store.photos.find(jobId, id);
    if (!bytes) throw Refusal.of('photo.missing', '');
    return { bytes, type: mediaTypeOf(bytes) };
  }

  private async keep(jobId: string, bytes: Buffer): Promise<string> {
    if (!PICTURES.includes(mediaTypeOf(bytes))) throw Refusal.of('photo.unreadable', '');
    if (bytes.length > MOST_PHOTO) throw Refusal.of('photo.large', '', { most: MOST_PHOTO / MEGA });
    if ((await this.store.photos.together(jobId)) + bytes.length > MOST_TOGETHER)
      throw Refusal.of('photo.full', '', { most: MOST_TOGETHER / MEGA });
    const id = sha256Of(bytes);
    await this.store.photos.add(jobId, id, bytes);
    return id;
  }
}
