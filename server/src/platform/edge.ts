import { refused } from '@tolvek/words';
import type { Request, RequestHandler, Response } from 'express';
import type { Config } from './config.ts';
import { answerProblem, notAllowed, Problem } from './problem.ts';

const MB = 1024 * 1024;

/** How much a call may send, by where it goes; what is not named may send nothing that counts. */
function mostBytes(path: string): number {
  if (/^\/api\/(doors\/[^/]+|requests\/[^/]+|forms\/[^/]+\/draft)\/uploads$/.test(path)) return 25 * MB;
  if (path.startsWith('/api/auth/')) return 10 * 1024;
  if (path.startsWith('/scim/')) return 4 * MB;
  return path.startsWith('/api/') ? 512 * 1024 : 1024;
}

const tooLargeBody = (most: number): Problem => new Problem(413, 'too-large', refused('tooLarge', { most }));

/** How long a caller whose body was refused may take to read why, ms. */
const GRACE = 1_000;

/**
 * Holds every body to a limit before anything reads it: at once when its length is said, else while
 * it comes in. What is beyond is not read, and the line is closed.
 */
export const limitBodies: RequestHandler = (request, response, next) => {
  const most = mostBytes(request.path);
  const { socket } = request;
  // A small rest that nobody read goes by in this time, and the line can be used again.
  const hangUp = (): void => {
    setTimeout(() => request.complete || socket.destroy(), GRACE).unref();
  };
  response.once('finish', () => request.complete || hangUp());
  const refuse = (): void => {
    request.pause();
    if (response.headersSent) hangUp();
    else answerProblem(response.set('Connection', 'close'), tooLargeBody(most));
  };
  if (Number(request.get('Content-Length') ?? '0') > most) return refuse();
  if (request.get('Transfer-Encoding') !== undefined) {
    let read = 0;
    const emit = request.emit.bind(request);
    // Whoever reads the body begins later, or never: bytes are counted as they are handed over.
    request.emit = ((event: string, ...rest: unknown[]) => {
      if (event === 'data') read += (rest[0] as Buffer).length;
      if (event !== 'data' || read <= most) return emit(event, ...rest);
      refuse();
      return true;
    }) as typeof request.emit;
  }
  next();
};

/**
 * Headers that are the same on every answer, worked out once by what would set them each time.
 *
 * @throws Error when that goes on later, or asks who calls: then they are not always the same.
 */
export function alwaysSet(middleware: RequestHandler): RequestHandler {
  const headers = new Map<string, string>();
  let isDone = false;
  const nobody = new Proxy({} as Request, {
    get: () => {
      throw new Error('Headers that are the same for everybody ask for nothing of a call.');
    },
  });
  const noted = { setHeader: (name: string, value: string) => headers.set(name, value), removeHeader: () => undefined };
  middleware(nobody, noted as unknown as Response, () => {
    isDone = true;
  });
  if (!isDone) throw new Error('Headers that are the same for everybody are there at once.');
  return (_request, response, next) => {
    for (const [name, value] of headers) response.setHeader(name, value);
    next();
  };
}

/** The names under which the application is reached. */
function hostsOf({ url, mode, port }: Pick<Config, 'url' | 'mode' | 'port'>): ReadonlySet<string> {
  const local = mode === 'demo' ? [`localhost:${port}`, `127.0.0.1:${port}`] : [];
  return new Set([new URL(url).host, ...local]);
}

/**
 * Answers only under the address that is set, and takes writes only from its own pages: what a
 * caller names as host proves nothing, so a browser’s `Origin` is held against the setting.
 */
export function ownAddress(config: Pick<Config, 'url' | 'mode' | 'port'>): RequestHandler {
  const hosts = hostsOf(config);
  const scheme = new URL(config.url).protocol;
  const origins = new Set([...hosts].map((host) => `${scheme}//${host}`));
  return (request, _response, next) => {
    if (!hosts.has(request.get('Host') ?? '') && request.path !== '/api/health')
      throw new Problem(421, 'other-host', refused('otherHost'));
    const isWrite = request.method !== 'GET' && request.method !== 'HEAD';
    const origin = request.get('Origin');
    const isOther = origin !== undefined ? !origins.has(origin) : request.get('Sec-Fetch-Site') === 'cross-site';
    if (isWrite && isOther) throw notAllowed(refused('otherSite'));
    next();
  };
}
