import { readFileSync } from 'node:fs';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';

// A reader of codes that did not write them.

prepareZXingModule({
  overrides: {
    wasmBinary: readFileSync(require.resolve('zxing-wasm/reader/zxing_reader.wasm'))
      .buffer as ArrayBuffer,
  },
});

/** The texts of all codes in a picture. */
export async function codesIn(png: Uint8Array): Promise<readonly string[]> {
  const found = await readBarcodes(new Blob([new Uint8Array(png)]), {
    ...{ maxNumberOfSymbols: 80, tryHarder: true, formats: ['QRCode'] },
  });
  return found.map(({ text }) => text);
}
