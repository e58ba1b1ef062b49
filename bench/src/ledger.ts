import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import autocannon from 'autocannon';
import express from 'express';
import type { Figure } from './figure.ts';

/**
 * A ledger page beside a bare Express route that answers with the same bytes: p95 of one caller,
 * and pages per second of ten.
 */
export async function measureLedger(url: string, cookie: string, size: number): Promise<readonly Figure[]> {
  const path = `${url}/api/requests?tray=all`;
  const page = await (await fetch(path, { headers: { cookie } })).text();
  const bare = express();
  bare.get('/', (_request, response) => void response.type('application/json').send(page));
  const server = createServer(bare).listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const bareUrl = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  const [limit, ours] = [await p95(bareUrl, ''), await p95(path, cookie)];
  const [most, load] = [await perSecond(bareUrl, ''), await perSecond(path, cookie)];
  server.close();
  return [
    {
      what: `Ledger page, p95 of 300 calls, ${size} requests stored`,
      ours: `${ours.toFixed(1)} ms`,
      limit: `${limit.toFixed(1)} ms (bare Express route, same bytes)`,
      ratio: `${(ours / limit).toFixed(1)} times the limit`,
    },
    {
      what: 'Ledger pages, ten callers for 5 s',
      ours: `${load.toFixed(0)} a second`,
      limit: `${most.toFixed(0)} a second (bare Express route)`,
      ratio: `${(load / most).toFixed(2)} of the limit`,
    },
  ];
}

async function p95(url: string, cookie: string): Promise<number> {
  const times: number[] = [];
  for (let turn = 0; turn < 330; turn += 1) {
    const began = performance.now();
    const response = await fetch(url, { headers: cookie ? { cookie } : {} });
    await response.arrayBuffer();
    if (turn >= 30) times.push(performance.now() - began);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0;
}

async function perSecond(url: string, cookie: string): Promise<number> {
  const { requests } = await autocannon({ url, headers: { cookie }, connections: 10, duration: 5 });
  return requests.average;
}
