import { aboutRegister, type Caller, type Route, type RouteRight } from '@tolvek/contract';
import {
  configuresAnything,
  inRegister,
  may,
  mayAnywhere,
  type Right,
  type Viewer,
  worksInWorkshop,
} from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import type { z } from 'zod';
import { Written } from './alike.ts';
import type { House } from './house.ts';
import { type Limits, paceOf } from './limits.ts';
import { patiently } from './patience.ts';
import { notAllowed, notSignedIn, Problem } from './problem.ts';
import { answered } from './reads.ts';
import { callerOf, programOf, type Session } from './signIn/session.ts';
import { answerLeaves, aTurn } from './turns.ts';
import { wishedBy } from './words.ts';

/** A call that was understood: everything in it has been parsed by the contract. */
export interface Call<R extends Route = Route> {
  readonly params: z.output<R['params']>;
  readonly query: z.output<R['query']>;
  readonly body: z.output<R['body']>;
  readonly viewer: ViewerFor<R['caller']>;
  /** Their session; null for who is not signed in. */
  readonly session: R['caller'] extends 'staff' | 'person' ? Session : Session | null;
  /** The `Idempotency-Key`, where the route asks for one; else empty. */
  readonly key: string;
  /** The version in `If-Match`, where the route asks for one; else 0. */
  readonly version: number;
  /** What the caller reads, by `Accept-Language`. */
  readonly language: Language;
  readonly request: Request;
  readonly response: Response;
}

type ViewerFor<C extends Caller> = C extends 'staff' | 'person' ? Viewer : Viewer | null;

/** What takes or gives no JSON answers by itself. */
type Handler<R extends Route> = R extends { readonly gives: 'bytes' | 'csv' | 'events' } | { readonly takes: 'bytes' }
  ? (call: Call<R>) => void | Promise<void>
  : (call: Call<R>) => Given<R> | Promise<Given<R>>;

type Given<R extends Route> = z.output<R['answer']> | Written<z.output<R['answer']>>;

/** What serves the routes of an area: one forgotten, or one too many, does not compile. */
export type Handlers<R extends Readonly<Record<string, Route>>> = { readonly [N in keyof R]: Handler<R[N]> };

type AnyHandler = (call: Call) => unknown;

/** Binds routes of the contract to their handlers. */
export function serve<R extends Readonly<Record<string, Route>>>(
  router: Router,
  { house, limits }: { readonly house: House; readonly limits: Limits },
  routes: R,
  handlers: Handlers<R>,
): void {
  for (const [name, route] of Object.entries(routes))
    bind(router, house, limits, route, handlers[name as keyof R] as unknown as AnyHandler);
}

/** Who may call, what is understood, and answers that the contract describes. */
function bind(router: Router, house: House, limits: Limits, route: Route, handler: AnyHandler): void {
  const answersItself = route.takes !== undefined || (route.gives !== undefined && route.gives !== 'json');
  const method = route.method.toLowerCase() as 'get' | 'post' | 'put' | 'patch';
  router[method](
    route.path,
    ...(route.takes === 'bytes' ? [] : JSON_BODY),
    async (request: Request, response: Response) => {
      const language = wishedBy(request);
      const session = spokenTo(await callerFor(route, limits, house, request, response), language);
      const call: Call = {
        params: route.params.parse(request.params),
        query: route.query.parse({ ...request.query }),
        body: route.body.parse(request.body ?? {}),
        viewer: session?.viewer ?? null,
        session,
        key: route.guard === 'Idempotency-Key' ? keyOf(request) : '',
        version: route.guard === 'If-Match' ? versionOf(request) : 0,
        language,
        request,
        response,
      };
      if (answersItself) return void (await answered(house, async () => handler(call)));
      const work = () => handler(call);
      const answer = await answered(house, async () => patiently(house, work));
      response.set('Cache-Control', 'no-store');
      response.once('close', answerLeaves());
      if (answer instanceof Written) answer.send(request, response);
      else response.json(answer);
    },
  );
}

const onlyJson: RequestHandler = (request, _response, next) => {
  const isSent = request.method !== 'GET' && Number(request.get('Content-Length') ?? '0') > 0;
  if (isSent && !request.is('application/json')) throw new Problem(415, 'not-json', refused('notJson'));
  next();
};

/** How bodies are read of all routes that take no bytes. */
const JSON_BODY: readonly RequestHandler[] = [onlyJson, express.json({ limit: '512kb', strict: true })];

/** What is answered before the desk is laid. */
const BEFORE: ReadonlySet<string> = new Set(['health', 'firstStart', 'layGround']);

/** Whoever is signed in reads what they are given in the language of the page they look at. */
const spokenTo = (session: Session | null, reads: Language): Session | null =>
  session && { ...session, viewer: { ...session.viewer, reads } };

/** The caller of a route, refused here when they may not call it at all. */
async function callerFor(
  route: Route,
  limits: Limits,
  house: House,
  request: Request,
  response: Response,
): Promise<Session | null> {
  await aTurn('caller');
  if (!house.isLaid() && !BEFORE.has(route.name)) throw new Problem(503, 'not-laid', refused('notLaid'));
  const isShown = request.headers.authorization !== undefined && !route.standsIn;
  const program = isShown ? await patiently(house, () => programOf(house.programBy, request)) : null;
  if (program === 'unknown') {
    // Counted by its address, so that nobody tries many; and taken for nobody else.
    await limits.take('sending', null, request, response);
    throw new Problem(401, 'key-unknown', refused('keyUnknown'));
  }
  const session = program ?? callerOf(house, request);
  await limits.take(paceOf(route), session?.viewer ?? null, request, response);
  if (session?.isProgram && !route.programs) throw notAllowed(refused('noProgram'));
  if (route.caller === 'anyone' || route.caller === 'link') return session;
  if (!session) throw notSignedIn();
  // Contacts reach what is theirs, and nothing of the desk.
  if (route.caller === 'staff' && session.viewer.kind !== 'staff') throw notAllowed(refused('onlyStaff'));
  if (route.right !== undefined && !maySeek(viewerAt(house, route, request, session.viewer), route.right))
    throw house.rightMissing(RIGHT_OF[route.right]);
  return session;
}

/** The right that is named as missing, where a route asks for any of some. */
const RIGHT_OF: Readonly<Record<RouteRight, Right>> = {
  ...{ configure: 'configure', groundwork: 'groundwork', people: 'people', rights: 'rights', audit: 'audit' },
  ...{ work: 'configure', build: 'configure', export: 'export:team' },
};

/** Who calls, with the rights that count where the route is about one register. */
function viewerAt(house: House, route: Route, { params }: Request, viewer: Viewer): Viewer {
  if (route.right !== 'configure' || viewer.otherwise === undefined) return viewer;
  const about = aboutRegister(route);
  const key = about && params[about.param];
  const register = typeof key === 'string' && about ? house.registerOf(about.by, key) : null;
  return register === null ? viewer : inRegister(viewer, register);
}

/** Whether somebody may call a route that asks for a right. */
function maySeek(viewer: Viewer, right: RouteRight): boolean {
  if (right === 'work') return worksInWorkshop(viewer);
  if (right === 'build') return configuresAnything(viewer);
  return right === 'export' ? mayAnywhere(viewer, 'export', 'own') : may(viewer, right);
}

function keyOf(request: Request): string {
  const key = request.get('Idempotency-Key')?.trim() ?? '';
  if (!/^[\w-]{8,100}$/.test(key)) throw new Problem(400, 'key-missing', refused('keyMissing'));
  return key;
}

function versionOf(request: Request): number {
  const match = /^"?(\d{1,9})"?$/.exec(request.get('If-Match')?.trim() ?? '');
  if (!match) throw new Problem(428, 'version-missing', refused('versionMissing'));
  return Number(match[1]);
}
