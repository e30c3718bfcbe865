import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { prepareZXingModule, writeBarcode } from 'zxing-wasm/writer';
import { test } from './demo';
import { button, giveFile, openDemo, PHONE, pick, place } from './pages';

// Boxes as they come in at the desk: a scanner's keys, letters to repair, a picture of a sticker.

test.use({ viewport: PHONE });

const wasm = readFileSync(require.resolve('zxing-wasm/writer/zxing_writer.wasm'));
prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(wasm).buffer } });

async function picture(text: string, format: 'Code128' | 'QRCode'): Promise<Buffer> {
  const { image, error } = await writeBarcode(text, { format, scale: 4, addQuietZones: true });
  if (!image) throw new Error(error);
  return Buffer.from(await image.arrayBuffer());
}

test('stickers are scanned, repaired and read from pictures; each goes to the next of its kind', async ({
  page,
  server,
}) => {
  await openDemo(page, server);
  await place(page, 'Assign').click();
  await button(page, 'Boxes at the desk').click();
  const sticker = page.getByLabel('Sticker of the box', { exact: true });

  // Of several kinds nobody can know which device it is.
  await sticker.fill('02:4c:7a:1d:80:11');
  await expect(button(page, 'Choose which device it is')).toBeDisabled();
  await pick(page, 'What is in the box', 'Drum drive M');
  await sticker.press('Enter');
  await expect(page.getByText('Drum filter drive 1 is bound')).toBeVisible();
  await expect(sticker).toHaveValue('');

  // Letters that no MAC has are repaired, and that is said.
  await sticker.fill('O2-4C-7A-1D-8O-O3');
  await expect(page.getByText('Letters that are no hex were repaired')).toBeVisible();
  await button(page, 'Bind to Drum filter drive 2').click();
  await expect(page.getByText('Drum filter drive 2 is bound')).toBeVisible();

  // The same sticker twice is a mistake of somebody.
  await sticker.fill('02-4c-7a-1d-80-11');
  await button(page, 'Bind to Backwash drive').click();
  await expect(page.getByText(/is bound to Drum filter drive 1/)).toBeVisible();

  const bytes = await picture('024C7A1D802E', 'Code128');
  await giveFile(page, 'Read it from a picture', { name: 'sticker.png', bytes });
  await expect(sticker).toHaveValue('02:4C:7A:1D:80:2E');
  await button(page, 'Bind to Backwash drive').click();
  await expect(page.getByText('Backwash drive is bound')).toBeVisible();
  await button(page, 'Take it back').click();
  await expect(button(page, 'it is Backwash drive')).toBeVisible();

  const two = await picture('MAC1 02:4C:7A:40:51:62, MAC2 02:4C:7A:40:51:63', 'QRCode');
  await giveFile(page, 'Read it from a picture', { name: 'sticker.png', bytes: two });
  await expect(page.getByText('The label bears several MACs')).toBeVisible();
  await button(page, '02:4C:7A:40:51:63').click();
  await expect(sticker).toHaveValue('02:4C:7A:40:51:63');

  const other = await picture('P/N 4711-08', 'QRCode');
  await giveFile(page, 'Read it from a picture', { name: 'sticker.png', bytes: other });
  await expect(page.getByText(/No MAC is in the codes of this picture/)).toBeVisible();
  await giveFile(page, 'Read it from a picture', { name: 'x.png', bytes: Buffer.from('no') });
  await expect(page.getByText('This is no picture that can be read')).toBeVisible();
});
