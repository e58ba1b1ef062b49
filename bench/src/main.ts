import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addressOf, DEMO_NOW, demoConfig, seed } from '@tolvek/demo';
import { DEMO_PASSWORD, start } from '@tolvek/server';
import { measureAnalysis, measureKeystroke, measureProof, measureRows } from './analysis.ts';
import type { Figure } from './figure.ts';
import { measureLedger } from './ledger.ts';
import { measureRules } from './rules.ts';
import { measureScript } from './script.ts';
import { measureSubmits } from './submits.ts';

/**
 * `npm run bench`: each figure beside a limit measured in the same run, and their ratio. `--size
 * N`: requests in the ledger.
 */
const size = Number(process.argv[process.argv.indexOf('--size') + 1]) || 10_000;
const folder = mkdtempSync(join(tmpdir(), 'tolvek-bench-'));
const figures: Figure[] = [
  ...(await measureRules()),
  measureAnalysis(),
  measureKeystroke(),
  measureProof(),
  measureRows(),
];

try {
  console.log(`Making a desk with ${size} requests …`);
  const running = await start(demoConfig({ TOLVEK_DATA: folder, PORT: '0', TOLVEK_LOG: 'error' }), {
    demoNow: DEMO_NOW,
    seed: (house) => seed(house, size),
  });
  await running.lettersSent();
  const cookieOf = async (name: string): Promise<string> => {
    const response = await fetch(`${running.url}/api/auth/sign-in/email`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: running.url },
      body: JSON.stringify({ email: addressOf(name), password: DEMO_PASSWORD }),
    });
    if (!response.ok) throw new Error(`${name} could not sign in: ${await response.text()}`);
    return response.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
  };
  figures.push(...(await measureLedger(running.url, await cookieOf('Maren Okafor'), size)));
  figures.push(await measureSubmits(running.url, await cookieOf('Priya Nakamura-Lind'), folder));
  figures.push(measureScript());
  await running.stop();
} finally {
  rmSync(folder, { recursive: true, force: true });
}
for (const { what, ours, limit, ratio } of figures)
  console.log(`${what}\n  Tolvek  ${ours}\n  limit   ${limit}\n  ratio   ${ratio}`);
