import { type AnswerOf, type Route, type RouteName, type Routes, routes } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import type { House } from './house.ts';
import { type Limits, paceOf } from './limits.ts';
import { patiently, storing } from './patience.ts';
import { notAllowed, notSignedIn, Problem } from './problem.ts';
import { callerOf, type Session } from './signIn/session.ts';
import { aTurn } from './turns.ts';

/** A call that was understood: everything in it has been parsed by the contract. */
export interface Call<N extends RouteName, V = Viewer | null> {
  readonly params: z.output<Routes[N]['params']>;
  readonly query: z.output<Routes[N]['query']>;
  readonly body: z.output<Routes[N]['body']>;
  readonly viewer: V;
  /** The `Idempotency-Key`, where the route asks for one; else empty. */
  readonly key: string;
  /** The version in `If-Match`, where the route asks for one; else 0. */
  readonly version: number;
  readonly request: Request;
  readonly response: Response;
}

type ViewerFor<N extends RouteName> = Routes[N]['caller'] extends 'staff' | 'coordinator' ? Viewer : Viewer | null;
type Handler<N extends RouteName> = (call: Call<N, ViewerFor<N>>) => AnswerOf<N> | Promise<AnswerOf<N>>;

export type Serve = <N extends RouteName>(name: N, handler: Handler<N>) => void;

/** Routes that are sent a body and store nothing: they wait for no writer. */
const ONLY_READ: ReadonlySet<RouteName> = new Set<RouteName>([
  'checkAnswers',
  'offers',
  'sheetOffers',
  'draftOffers',
  'tryCondition',
  // It closes the gate itself.
  'takeInRows',
]);

/**
 * Binds routes of the contract to handlers: who may call, what is understood, and answers that the
 * contract describes.
 */
export function serving(router: Router, house: House, limits: Limits): Serve {
  return (name, handler) => {
    const route = routes[name] as Route;
    const method = route.method.toLowerCase() as 'get' | 'post' | 'put' | 'patch';
    router[method](route.path, async (request: Request, response: Response) => {
      const session = await callerFor(route, limits, house, request, response);
      const call = {
        params: route.params.parse(request.params),
        query: route.query.parse({ ...request.query }),
        body: route.body.parse(request.body ?? {}),
        viewer: session?.viewer ?? null,
        key: route.guard === 'Idempotency-Key' ? keyOf(request) : '',
        version: route.guard === 'If-Match' ? versionOf(request) : 0,
        request,
        response,
      };
      const work = () => handler(call as unknown as Call<typeof name, ViewerFor<typeof name>>);
      const isStored = route.method !== 'GET' && !ONLY_READ.has(name);
      const answer = await (isStored ? storing(house, work) : patiently(house, work));
      response.set('Cache-Control', 'no-store').json(answer);
    });
  };
}

/** The caller of a route, refused here when they may not call it at all. */
export async function callerFor(
  route: Route,
  limits: Limits,
  house: House,
  request: Request,
  response: Response,
): Promise<Session | null> {
  await aTurn('caller');
  const session = callerOf(house, request);
  await limits.take(paceOf(route), session?.viewer ?? null, request, response);
  if (route.caller === 'anyone' || route.caller === 'link') return session;
  if (!session) throw notSignedIn();
  if (route.caller === 'coordinator' && session.viewer.role === 'member')
    throw notAllowed('The Workshop is for coordinators. Ask one of them to make the change.');
  return session;
}

function keyOf(request: Request): string {
  const key = request.get('Idempotency-Key')?.trim() ?? '';
  if (!/^[\w-]{8,100}$/.test(key))
    throw new Problem(
      400,
      'key-missing',
      'Idempotency-Key is missing',
      'Send a header “Idempotency-Key” with 8 to 100 letters, figures, “-” or “_”, a new one for each new request.',
    );
  return key;
}

function versionOf(request: Request): number {
  const match = /^"?(\d{1,9})"?$/.exec(request.get('If-Match')?.trim() ?? '');
  if (!match)
    throw new Problem(
      428,
      'version-missing',
      'If-Match is missing',
      'Send a header “If-Match” with the version you are changing.',
    );
  return Number(match[1]);
}
