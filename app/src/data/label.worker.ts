import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';

// Reads the barcodes of a picture in a thread of its own, with what ships with the application.

prepareZXingModule({ overrides: { locateFile: (file: string) => `/wasm/${file}` } });

/** A phone's picture has more points than a barcode needs. */
const MOST_POINTS = 2400;

/** The browser knows more kinds of pictures than the reader. @throws where it is none */
async function pointsOf(picture: Blob): Promise<ImageData> {
  const bitmap = await createImageBitmap(picture);
  const scale = Math.min(1, MOST_POINTS / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [bitmap.width * scale, bitmap.height * scale].map(Math.ceil);
  const canvas = new OffscreenCanvas(width ?? 1, height ?? 1);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('the browser has no canvas here');
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return context.getImageData(0, 0, canvas.width, canvas.height);
}

self.onmessage = ({ data }: MessageEvent<Blob>) => {
  pointsOf(data)
    .then((points) => readBarcodes(points, { tryHarder: true, maxNumberOfSymbols: 16 }))
    .then((codes) => codes.filter(({ isValid }) => isValid).map(({ text }) => text))
    .then(
      (texts) => self.postMessage({ texts }),
      (error: unknown) => self.postMessage({ failed: String(error) }),
    );
};
