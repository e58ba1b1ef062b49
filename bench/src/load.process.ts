import { Agent, type IncomingHttpHeaders, request } from 'node:http';
import { DEMO_NOW, MADE_UP, seeded, visit } from '@tolvek/demo';
import { median, quantile } from './figure.ts';
import { answering } from './processes.ts';

/** Whoever calls: in a process of its own, so that neither side waits for it. */
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

export interface Called {
  readonly method?: string;
  readonly url: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string | Buffer;
}

interface Answered {
  readonly status: number;
  readonly bytes: number;
  readonly text: string;
  readonly headers: IncomingHttpHeaders;
}

function call(called: Called, by: Agent = agent): Promise<Answered> {
  const { method = 'GET', url, headers = {}, body } = called;
  return new Promise((done, fail) => {
    const asked = request(
      url,
      {
        method,
        headers: { ...headers, ...(body ? { 'content-length': String(Buffer.byteLength(body)) } : {}) },
        agent: by,
      },
      (answer) => {
        const pieces: Buffer[] = [];
        answer.on('data', (piece: Buffer) => pieces.push(piece));
        answer.on('end', () => {
          const text = Buffer.concat(pieces).toString();
          done({ status: answer.statusCode ?? 0, bytes: text.length, text, headers: answer.headers });
        });
      },
    );
    // A line that was kept open may be closed at the other end just when it is taken up again.
    asked.on('error', (error: NodeJS.ErrnoException) =>
      asked.reusedSocket && error.code === 'ECONNRESET' ? call(called, by).then(done, fail) : fail(error),
    );
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
const sentTo = (each: Called, answers: object, release = 1): Called => {
  key += 1;
  return {
    ...each,
    method: 'POST',
    headers: { ...each.headers, 'content-type': 'application/json', 'Idempotency-Key': `bench-${process.pid}-${key}` },
    body: JSON.stringify({ release, answers }),
  };
};
const submitTo = (each: Called): Called => sentTo(each, visit(random, today, 'corrin'));

/** A picture of one point: the smallest PNG there is. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** Submits through the doors of several forms, as people make them up. */
export interface Submits {
  readonly doors: readonly Door[];
  /** Things that answers point to, by what they are called. */
  readonly things: Readonly<Record<string, string>>;
  readonly times: number;
}
interface Door {
  readonly form: string;
  /** The release in force of its form. */
  readonly release: number;
  readonly submit: Called;
  /** Where a picture is sent that the answers name; null where they name none. */
  readonly picture: Called | null;
}

async function answersTo({ form, picture }: Door, things: Submits['things']): Promise<object> {
  const made = MADE_UP.find((each) => each.form === form);
  const answers = made?.answers({ random, day: today, thing: (called) => things[called] ?? '' });
  if (!answers) return visit(random, today, 'corrin');
  if (!picture) return answers;
  const { status, text } = await call({ ...picture, body: PICTURE });
  if (status >= 400) throw new Error(`${picture.url}: ${status} ${text.slice(0, 200)}`);
  return { ...answers, pictures: [(JSON.parse(text) as { ref: string }).ref] };
}

/** So many submits by eight at once, over the forms in turn: ms for each. Pictures are there before. */
async function submits({ doors, things, times }: Submits): Promise<number> {
  const calls: Called[] = [];
  for (let n = 0; n < times; n += 1) {
    const door = doors[n % doors.length] as Door;
    calls.push(sentTo(door.submit, await answersTo(door, things), door.release));
  }
  const began = performance.now();
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      for (let each = calls.pop(); each; each = calls.pop()) {
        const { status, text } = await call(each);
        if (status >= 400) throw new Error(`${each.url}: ${status} ${text.slice(0, 300)}`);
      }
    }),
  );
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

/** A page that viewers open: one of its calls each time. */
export interface Page {
  readonly name: string;
  readonly calls: readonly Called[];
}

/** Viewers who open so many pages each, resting between them, while something is written all the time. */
export interface Crowd {
  readonly viewers: readonly { readonly n: number; readonly pages: readonly Page[] }[];
  readonly each: number;
  /** ms: half of it to one and a half times, by chance. */
  readonly rest: number;
  /** So often something is written, ms: one after the other of these, and now and then a submit. */
  readonly writes: number;
  readonly writing: readonly Called[];
  readonly submitting: Called;
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const chosen = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;

/** How long the pages of a crowd took by their names: the 95th of a hundred, ms, and how many there were. */
async function crowd({ viewers, each, rest, writes, writing, submitting }: Crowd) {
  const took = new Map<string, number[]>();
  const looking = viewers.flatMap(({ n, pages }) =>
    Array.from({ length: n }, async () => {
      for (let turn = 0; turn < each; turn += 1) {
        await pause(rest * (0.5 + random()));
        const { name, calls } = chosen(pages);
        const asked = chosen(calls);
        const began = performance.now();
        const { status, text } = await call(asked);
        if (status >= 400) throw new Error(`${asked.url}: ${status} ${text.slice(0, 200)}`);
        const times = took.get(name) ?? [];
        times.push(performance.now() - began);
        took.set(name, times);
      }
    }),
  );
  let isOver = false;
  const write = async (): Promise<void> => {
    for (let n = 0; !isOver; n += 1) {
      const { status, text } = await call(n % 4 === 3 ? submitTo(submitting) : chosen(writing));
      if (status >= 400) throw new Error(`A write: ${status} ${text.slice(0, 200)}`);
      await pause(writes);
    }
  };
  const written = write();
  await Promise.all(looking);
  isOver = true;
  await written;
  return Object.fromEntries(
    [...took].map(([name, times]) => [name, { p95: quantile(times, 0.95), calls: times.length }]),
  );
}

/** So many calls by eight at once: ms for each, and the 95th of a hundred that one waited for. */
async function together({ each, times }: { each: Called; times: number }) {
  const took: number[] = [];
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < times) {
      next += 1;
      const began = performance.now();
      const { status, text } = await call(each);
      took.push(performance.now() - began);
      if (status >= 400) throw new Error(`${each.url}: ${status} ${text.slice(0, 200)}`);
    }
  };
  const began = performance.now();
  await Promise.all(Array.from({ length: 8 }, work));
  return { ms: (performance.now() - began) / times, p95: quantile(took, 0.95) };
}

/** So many calls over so many connections at once, each from an address of its own: ms for each. */
async function opening({ each, connections, times }: { each: Called; connections: number; times: number }) {
  const own = new Agent({ keepAlive: true, maxSockets: connections });
  let next = 0;
  const work = async (place: number): Promise<void> => {
    const from = `10.0.${Math.floor(place / 250)}.${(place % 250) + 1}`;
    while (next < times) {
      next += 1;
      const { status, text } = await call({ ...each, headers: { ...each.headers, 'x-forwarded-for': from } }, own);
      if (status >= 400) throw new Error(`${each.url}: ${status} ${text.slice(0, 200)}`);
    }
  };
  const began = performance.now();
  await Promise.all(Array.from({ length: connections }, (_, place) => work(place)));
  own.destroy();
  return (performance.now() - began) / times;
}

answering({ medianOf, opening, submits, mixed, crowd, together, once: call });
