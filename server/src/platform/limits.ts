import type { Route } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import type { Request, Response } from 'express';
import { ipKeyGenerator, type RateLimitRequestHandler, rateLimit } from 'express-rate-limit';
import { Problem } from './problem.ts';

/** What a call is for: to look, to be helped while typing, or to send something off. */
export type Pace = 'reading' | 'typing' | 'sending';

/** Calls a minute: of one signed-in person, and of one address from outside. */
const CALLS: Readonly<Record<Pace, { readonly person: number; readonly address: number }>> = {
  reading: { person: 1_200, address: 300 },
  typing: { person: 600, address: 240 },
  sending: { person: 240, address: 60 },
};
const MINUTE = 60_000;

/** Routes that are called while somebody types, by their names. */
const TYPING = new Set([
  'checkAnswers',
  'offers',
  'keepAnswers',
  'keepKept',
  'sheetOffers',
  'draftOffers',
  'saveDraft',
  'tryCondition',
  'find',
  'lookThrough',
  'lookAtBoard',
  'lookAtCalendar',
  'lookAtChart',
  'lookAgain',
  'addUpView',
  'lookAtMatrix',
  'lookAtTotals',
  'lookAtReport',
]);

export const paceOf = ({ name, method }: Pick<Route, 'name' | 'method'>): Pace =>
  TYPING.has(name) ? 'typing' : method === 'GET' ? 'reading' : 'sending';

/**
 * Where a call comes from: the address that Express took from the trusted proxies, of IPv6 the
 * network, as one line has a whole one.
 */
export const addressOf = (request: Pick<Request, 'ip'>): string => ipKeyGenerator(request.ip ?? '', 64);

/**
 * Limits on calls: for signed-in people by person, for everybody else by address, each pace with a
 * count of its own. `times`: how many times the usual number; the demo allows more.
 */
export class Limits {
  private readonly counters: Readonly<Record<Pace, RateLimitRequestHandler>>;

  constructor(times: number) {
    const counter = (pace: Pace): RateLimitRequestHandler =>
      rateLimit({
        windowMs: MINUTE,
        limit: (request) => CALLS[pace][callers.get(request) ? 'person' : 'address'] * times,
        keyGenerator: (request) => callers.get(request) ?? addressOf(request),
        standardHeaders: 'draft-8',
        legacyHeaders: false,
        validate: {
          trustProxy: false,
          xForwardedForHeader: false,
          forwardedHeader: false,
          keyGeneratorIpFallback: false,
        },
        handler: (_request, _response, next) => next(tooMany()),
      });
    this.counters = { reading: counter('reading'), typing: counter('typing'), sending: counter('sending') };
  }

  /** Counts a call; throws a `Problem` with 429 when there were too many. */
  async take(pace: Pace, viewer: Viewer | null, request: Request, response: Response): Promise<void> {
    if (viewer) callers.set(request, `person ${viewer.personId}`);
    await new Promise<void>((go, refuse) => {
      void this.counters[pace](request, response, (error?: unknown) => (error ? refuse(error as Error) : go()));
    });
  }
}

/** Who calls, where somebody is signed in. */
const callers = new WeakMap<Request, string>();

const tooMany = (): Problem => new Problem(429, 'too-many', refused('tooMany'), undefined, 60);
