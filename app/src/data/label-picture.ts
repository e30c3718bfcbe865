import { askWorker } from './worker';

/**
 * What the barcodes and QR codes of a picture say, in the order in which they were found.
 * @throws where it is no picture that can be read
 */
export const readPicture = (picture: Blob): Promise<readonly string[]> =>
  askWorker<{ readonly texts: readonly string[] }>(
    new Worker(new URL('./label.worker.ts', import.meta.url)),
    picture,
  ).then(({ texts }) => texts);
