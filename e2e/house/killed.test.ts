import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { addressOf } from '@tolvek/demo';
import { afterAll, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { VISIT } from './desk.ts';

const root = resolve(import.meta.dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'tolvek-kill-'));
/** So many are sent, and the server is killed among them; `npm run laws` sends four times as many. */
const COUNT = often(100);
const KILLED_AT = Math.round(COUNT * 0.45);
let server: ChildProcess | undefined;

afterAll(() => {
  server?.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

async function startServer(port: number): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['server/built/demo.mjs', '--size', '0'], {
    cwd: root,
    env: { ...process.env, TOLVEK_DATA: folder, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((done, fail) => {
    child.stdout?.on('data', (chunk: Buffer) => chunk.toString().includes('Tolvek is ready') && done());
    child.once('exit', (code) => fail(new Error(`The server stopped with ${code} before it was ready.`)));
  });
  return child;
}

it('loses no submit that was acknowledged and doubles none that is sent again when the server is killed among them', async () => {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  server = await startServer(port);
  const signIn = await fetch(`${url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: addressOf('Priya Nakamura-Lind'), password: 'tolvek-demo' }),
  });
  const cookie = signIn.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
  const send = async (index: number): Promise<string | null> => {
    try {
      const response = await fetch(`${url}/api/doors/come-on-site/requests`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie, 'Idempotency-Key': `kill-test-${index}` },
        body: JSON.stringify({ release: 1, answers: { ...VISIT, visitor: `Visitor ${index}` } }),
      });
      return response.ok ? ((await response.json()) as { number: string }).number : null;
    } catch {
      return null;
    }
  };

  const acknowledged = new Map<number, string>();
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < COUNT) {
      const index = next;
      next += 1;
      const number = await send(index);
      if (number) acknowledged.set(index, number);
      if (acknowledged.size === KILLED_AT) server?.kill('SIGKILL');
    }
  };
  await Promise.all(Array.from({ length: 8 }, work));
  expect(acknowledged.size).toBeGreaterThanOrEqual(KILLED_AT);
  expect(acknowledged.size).toBeLessThan(COUNT);

  // The session survives as well: the same cookie goes on.
  server = await startServer(port);
  const numbers: (string | null)[] = [];
  for (let index = 0; index < COUNT; index += 1) numbers.push(await send(index));
  expect(numbers.every((number) => number !== null)).toBe(true);
  for (const [index, number] of acknowledged) expect(numbers[index]).toBe(number);
  expect(new Set(numbers).size).toBe(COUNT);

  const desk = (await (await fetch(`${url}/api/desk`, { headers: { cookie } })).json()) as {
    mine: { number: string }[];
  };
  expect(desk.mine).toHaveLength(Math.min(COUNT, 100));
  // The last number given is the count: no number was used up by a submit that was repeated.
  expect([...numbers].sort().at(-1)).toBe(`AC-${String(COUNT).padStart(5, '0')}`);
}, 240_000);
