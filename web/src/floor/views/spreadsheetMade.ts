import { say } from '../../wire/words.ts';

type Told = { readonly made: Blob } | { readonly why: 'tooManyRows' | 'failed' };

/** The rows of a view as a spreadsheet, made beside the page: many rows take a while, and it goes on meanwhile. */
export function spreadsheetMade(text: string, name: string): Promise<Told> {
  const worker = new Worker(new URL('./viewAsXlsx.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Told>((done) => {
    worker.onmessage = ({ data }: MessageEvent<Told>) => done(data);
    worker.onerror = () => done({ why: 'failed' });
    worker.postMessage({ text, name, address: location.origin, opens: say('views:opens') });
  }).finally(() => worker.terminate());
}
