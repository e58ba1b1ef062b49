import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/web/pbkdf2';

self.addEventListener('message', async ({ data }: MessageEvent<string>) => {
  const challenge = JSON.parse(data) as Parameters<typeof solveChallenge>[0]['challenge'];
  const solution = await solveChallenge({ challenge, deriveKey }).catch(() => null);
  self.postMessage(solution && JSON.stringify({ challenge, solution }));
});
