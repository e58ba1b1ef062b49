import { Agent, request } from 'node:http';
import { DEMO_NOW, seeded, visit } from '@tolvek/demo';
import { median } from './figure.ts';
import { answering } from './processes.ts';

/** Whoever calls: in a process of its own, so that neither side waits for it. */
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

export interface Called {
  readonly method?: string;
  readonly url: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
}

function call({
  method = 'GET',
  url,
  headers = {},
  body,
}: Called): Promise<{ status: number; bytes: number; text: string }> {
  return new Promise((done, fail) => {
    const asked = request(
      url,
      {
        method,
        headers: { ...headers, ...(body ? { 'content-length': String(Buffer.byteLength(body)) } : {}) },
        agent,
      },
      (answer) => {
        const pieces: Buffer[] = [];
        answer.on('data', (piece: Buffer) => pieces.push(piece));
        answer.on('end', () => {
          const text = Buffer.concat(pieces).toString();
          done({ status: answer.statusCode ?? 0, bytes: text.length, text });
        });
      },
    );
    asked.on('error', fail);
    asked.end(body);
  });
}

/** The median of so many calls one after the other, ms. */
async function medianOf({ each, times }: { each: Called; times: number }): Promise<number> {
  const took: number[] = [];
  for (let n = 0; n < times; n += 1) {
    const began = performance.now();
    const { status, text } = await call(each);
    took.push(performance.now() - began);
    if (status >= 400) throw new Error(`${each.url}: ${status} ${text.slice(0, 200)}`);
  }
  return median(took);
}

let key = 0;
const random = seeded(7);
const today = Math.floor(DEMO_NOW / 86_400_000) + 1;
const submitTo = (each: Called): Called => {
  key += 1;
  return {
    ...each,
    method: 'POST',
    headers: { ...each.headers, 'content-type': 'application/json', 'Idempotency-Key': `bench-${process.pid}-${key}` },
    body: JSON.stringify({ release: 1, answers: visit(random, today, 'corrin') }),
  };
};

/** So many submits by eight at once: ms for each. */
async function submits({ each, times }: { each: Called; times: number }): Promise<number> {
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < times) {
      next += 1;
      const { status, text } = await call(submitTo(each));
      if (status >= 400) throw new Error(`${each.url}: ${status} ${text.slice(0, 300)}`);
    }
  };
  const began = performance.now();
  await Promise.all(Array.from({ length: 8 }, work));
  return (performance.now() - began) / times;
}

interface Mixed extends Called {
  /** A submit, with answers made up for it. */
  readonly submits?: boolean;
  /** A draft saved, as a page does that is being worked on: on the version saved last. */
  readonly saves?: string;
}

const versions = new Map<string, number>();
let savings = 0;
const saveTo = (each: Called, draft: string): Called => {
  savings += 1;
  return {
    ...each,
    method: 'PUT',
    headers: { ...each.headers, 'if-match': String(versions.get(each.url) ?? 1) },
    body: draft.replace('"title":"Heavy"', `"title":"Heavy ${savings}"`),
  };
};

/** Callers that each go through their calls again and again, resting between them. */
export interface Caller {
  readonly name: string;
  readonly calls: readonly Mixed[];
  readonly rest: number;
}

/** All of them for so long: how often each called, and how long its slowest answer took, ms. */
async function mixed({ callers, ms }: { callers: readonly Caller[]; ms: number }) {
  const until = performance.now() + ms;
  const told: Record<string, { calls: number; slowest: number; refused: number }> = {};
  await Promise.all(
    callers.map(async ({ name, calls, rest }) => {
      for (let n = 0; performance.now() < until; n += 1) {
        const each = calls[n % calls.length];
        if (!each) return;
        const began = performance.now();
        const { status, text } = await call(
          each.submits ? submitTo(each) : each.saves === undefined ? each : saveTo(each, each.saves),
        );
        if (each.saves !== undefined && status < 400)
          versions.set(each.url, (JSON.parse(text) as { version: number }).version);
        const at = (told[name] ??= { calls: 0, slowest: 0, refused: 0 });
        at.calls += 1;
        if (status >= 400) at.refused += 1;
        at.slowest = Math.max(at.slowest, Math.round(performance.now() - began));
        await new Promise((done) => setTimeout(done, rest));
      }
    }),
  );
  return told;
}

answering({ medianOf, submits, mixed, once: call });
