/**
 * One question to a thread of its own, which ends with its answer.
 * @throws where the thread says that it failed, or cannot be started
 */
export function askWorker<T extends object>(worker: Worker, question: unknown): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<T | { readonly failed: string }>) =>
      'failed' in data ? reject(new Error(data.failed)) : resolve(data);
    worker.onerror = () => reject(new Error('the thread could not be started'));
    worker.postMessage(question);
  }).finally(() => worker.terminate());
}
