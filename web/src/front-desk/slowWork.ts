/** As a line of an address: Base64, without the signs that mean something there. */
const packed = (text: string): string => btoa(text).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');

/**
 * Works out what the desk asks of a device before it sends, beside the page; undefined where that did not work out.
 * `task`: as the desk gave it.
 */
export function workedOut(task: string): Promise<string | undefined> {
  const worker = new Worker(new URL('./slowWork.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<string | undefined>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<string | null>) => resolve(data === null ? undefined : packed(data));
    worker.onerror = () => resolve(undefined);
    worker.postMessage(atob(task.replaceAll('-', '+').replaceAll('_', '/')));
  }).finally(() => worker.terminate());
}
