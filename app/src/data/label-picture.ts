type Answer = { readonly texts: readonly string[] } | { readonly failed: string };

/**
 * What the barcodes and QR codes of a picture say, in the order in which they were found.
 * @throws where it is no picture that can be read
 */
export function readPicture(picture: Blob): Promise<readonly string[]> {
  const worker = new Worker(new URL('./label.worker.ts', import.meta.url));
  return new Promise<readonly string[]>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<Answer>) =>
      'texts' in data ? resolve(data.texts) : reject(new Error(data.failed));
    worker.onerror = () => reject(new Error('the reader could not be started'));
    worker.postMessage(picture);
  }).finally(() => worker.terminate());
}
