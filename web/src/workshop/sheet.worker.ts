import { sheetIn } from '@tolvek/core/sheets';

self.addEventListener('message', async ({ data }: MessageEvent<{ file: File; rows: number }>) => {
  const bytes = new Uint8Array(await data.file.arrayBuffer());
  for await (const told of sheetIn(bytes, data.rows)) self.postMessage(told);
});
