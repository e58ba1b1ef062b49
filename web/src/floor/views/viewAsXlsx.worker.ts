import { type Around, viewAsXlsx } from './viewAsXlsx.ts';

self.addEventListener('message', async ({ data }: MessageEvent<Around & { readonly text: string }>) => {
  try {
    self.postMessage({ made: await viewAsXlsx(data.text, data) });
  } catch (error) {
    self.postMessage({ why: error instanceof RangeError ? 'tooManyRows' : 'failed' });
  }
});
