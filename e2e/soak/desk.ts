import assert from 'node:assert/strict';
import { type ChildProcess, fork } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { addressOf } from '@tolvek/demo';
import { DEMO_PASSWORD } from '@tolvek/server';

/** A desk in a process of its own, on a folder, at a port. `args`: where its letters go, and how many proxies it trusts. */
export async function startDesk(...args: readonly string[]): Promise<ChildProcess> {
  const child = fork(fileURLToPath(new URL('./desk.process.ts', import.meta.url)), args, {
    execArgv: ['--import', 'tsx'],
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  await Promise.race([
    once(child, 'message'),
    once(child, 'exit').then(([code]) => Promise.reject(new Error(`It ended with ${code} before it was ready.`))),
  ]);
  return child;
}

/** The cookies of somebody of the demo who signed in. */
export async function signedInAt(url: string, name: string): Promise<string> {
  const response = await fetch(`${url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: addressOf(name), password: DEMO_PASSWORD }),
  });
  assert.equal(response.status, 200);
  return response.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
}

export function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as { port: number };
      probe.close(() => done(free));
    });
  });
}
