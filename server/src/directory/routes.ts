import { DirectoryRefusal, type Resource } from '@tolvek/core/directory';
import { type Said, said, type Words } from '@tolvek/words';
import express, { type ErrorRequestHandler, type Request, type RequestHandler, type Response, Router } from 'express';
import { DIRECTORY } from '../people/kept.ts';
import type { House } from '../platform/house.ts';
import type { Limits } from '../platform/limits.ts';
import { patiently } from '../platform/patience.ts';
import { Problem, toProblem } from '../platform/problem.ts';
import { aTurn } from '../platform/turns.ts';
import { speechFor, wishedBy } from '../platform/words.ts';
import { by, write } from '../platform/work.ts';
import { bulk } from './bulk.ts';
import { configuration, MOST_BYTES, resourceTypes, schemas } from './discovery.ts';
import { askedBy, LIST, list, one } from './list.ts';
import { type Change, isAmong, notThere, perform } from './perform.ts';
import { STORES, type Store, withVersion } from './stores.ts';
import { isToken } from './tokens.ts';

const ERROR = 'urn:ietf:params:scim:api:messages:2.0:Error';
const MEDIA = 'application/scim+json';

/** Where directories find this desk. */
export const scimBase = ({ config }: House): string => `${config.url}/scim/v2`;

const refusal = (status: number, reason: Said): DirectoryRefusal => new DirectoryRefusal(status, null, reason);

/** The statuses of refusals of the desk itself, as a directory is told of them. */
function statusFor({ status }: Problem): number {
  return status === 422 ? 400 : status;
}

/** The word of the standard for a refusal of the desk, where there is one. */
function scimTypeFor({ type }: Problem, status: number): string | null {
  if (status !== 400) return null;
  return type === 'malformed' ? 'invalidSyntax' : 'invalidValue';
}

/** An error in the words of the standard (RFC 7644 §3.12), its detail in a language. */
function toldTo(language: string, error: unknown): { readonly status: number; readonly body: Resource } {
  const { told } = speechFor({ language });
  if (error instanceof DirectoryRefusal) {
    const { status, scimType, reason } = error;
    return { status, body: errorBody(status, scimType, told(reason)) };
  }
  const problem = toProblem(error);
  const status = statusFor(problem);
  const parts: readonly Words[] = problem.problems?.map(({ message }) => message) ?? [
    problem.said.happened,
    problem.said.now,
  ];
  return { status, body: errorBody(status, scimTypeFor(problem, status), parts.map(told).join(' ')) };
}

const errorBody = (status: number, scimType: string | null, detail: string): Resource => ({
  ...{ schemas: [ERROR], status: String(status) },
  ...(scimType === null ? {} : { scimType }),
  detail,
});

const answerErrors =
  (house: House): ErrorRequestHandler =>
  (error, request, response, _next) => {
    if (response.headersSent) {
      request.socket.destroy();
      return;
    }
    const { status, body } = toldTo(wishedBy(request), error);
    const isMeant = error instanceof Problem || error instanceof DirectoryRefusal;
    if (status >= 500 && !isMeant) house.log.error({ err: error, path: request.path }, 'unexpected error');
    if (status === 401) response.set('WWW-Authenticate', 'Bearer realm="scim"');
    if (error instanceof Problem && error.retryAfter !== undefined)
      response.set('Retry-After', String(error.retryAfter));
    send(response, status, body);
  };

function send(response: Response, status: number, body: Resource): void {
  response.status(status).set('Cache-Control', 'no-store').type(MEDIA).send(JSON.stringify(body));
}

/** Lets in whoever has a token; others are counted by their address, so that nobody tries many. */
const onlyDirectories =
  (house: House, limits: Limits): RequestHandler =>
  async (request, response, next) => {
    await aTurn('caller');
    const [, token = ''] = /^Bearer\s+([\w-]{20,100})$/i.exec(request.get('Authorization') ?? '') ?? [];
    const isIn = token !== '' && (await patiently(house, () => isToken(house, token)));
    if (!isIn) {
      await limits.take('sending', null, request, response);
      throw refusal(401, said('scim:noToken'));
    }
    next();
  };

const notFoundHere: RequestHandler = (request) => {
  throw refusal(404, said('scim:noSuchPlace', { path: request.path }));
};

const ifMatchOf = (request: Request): string | null => request.get('If-Match') ?? null;

/** What directories speak to: SCIM 2.0 (RFC 7644), under `/scim/v2`. */
export function scimRoutes(house: House, limits: Limits): Router {
  const router = Router({ caseSensitive: true });
  const base = scimBase(house);
  router.use(onlyDirectories(house, limits));
  router.use(express.json({ type: [MEDIA, 'application/json'], limit: MOST_BYTES, strict: true }));
  router.get('/ServiceProviderConfig', (_request, response) => send(response, 200, configuration(base)));
  serveKnown(router, '/ResourceTypes', resourceTypes(base));
  serveKnown(router, '/Schemas', schemas(base));
  router.all('/Me', () => {
    throw refusal(501, said('scim:noMe'));
  });
  router.post('/Bulk', async (request, response) => {
    const language = wishedBy(request);
    send(response, 200, await bulk(house, base, request.body, (error) => toldTo(language, error)));
  });
  for (const store of STORES) serveStore(router, house, base, store);
  router.use(notFoundHere);
  router.use(answerErrors(house));
  return router;
}

/** Serves what never changes: all of it, and each by its id. */
function serveKnown(router: Router, path: string, known: readonly Resource[]): void {
  router.get(path, (request, response) => {
    if (request.query.filter !== undefined) throw refusal(403, said('scim:noFilterHere'));
    send(response, 200, {
      schemas: [LIST],
      ...{ totalResults: known.length, startIndex: 1, itemsPerPage: known.length, Resources: known },
    });
  });
  router.get(`${path}/:id`, (request, response) => {
    const { id } = request.params;
    const found = known.find((each) => each.id === id);
    if (!found) throw notThere(id);
    send(response, 200, found);
  });
}

function serveStore(router: Router, house: House, base: string, store: Store): void {
  const { endpoint } = store.type;
  const answerOne = (request: Request, response: Response, status: number, resource: Resource): void => {
    const { version, location } = resource.meta as Resource;
    response.set('ETag', String(version));
    if (status === 201) response.set('Location', String(location));
    send(response, status, one(store, resource, request.query));
  };
  const change = async (request: Request, response: Response, method: Change['method']): Promise<void> => {
    const given = { method, store, id: String(request.params.id ?? ''), sent: request.body as unknown };
    const { resource, keptOut } = await patiently(house, () =>
      write(house, (work) => perform(by(work, DIRECTORY), base, { ...given, ifMatch: ifMatchOf(request) })),
    );
    if (keptOut !== null) house.live.endOf(keptOut);
    if (resource === null) response.status(204).end();
    else answerOne(request, response, method === 'POST' ? 201 : 200, resource);
  };
  router.get(endpoint, async (request, response) => {
    send(response, 200, await list(house.db, base, store, askedBy(request.query)));
  });
  router.post(`${endpoint}/.search`, async (request, response) => {
    send(response, 200, await list(house.db, base, store, askedBy(searchIn(request.body))));
  });
  router.get(`${endpoint}/:id`, (request, response) => {
    const found = store.byId(house.db, base, request.params.id);
    if (!found) throw notThere(request.params.id);
    const resource = withVersion(found);
    const known = request.get('If-None-Match');
    if (known !== undefined && isAmong(known, found))
      response
        .set('ETag', String((resource.meta as Resource).version))
        .status(304)
        .end();
    else answerOne(request, response, 200, resource);
  });
  router.post(endpoint, (request, response) => change(request, response, 'POST'));
  router.put(`${endpoint}/:id`, (request, response) => change(request, response, 'PUT'));
  router.patch(`${endpoint}/:id`, (request, response) => change(request, response, 'PATCH'));
  router.delete(`${endpoint}/:id`, (request, response) => change(request, response, 'DELETE'));
}

/** @throws DirectoryRefusal 400 for what is no search */
function searchIn(body: unknown): Readonly<Record<string, unknown>> {
  const given = (typeof body === 'object' && body !== null ? body : {}) as Readonly<Record<string, unknown>>;
  const { schemas: named } = given;
  if (!Array.isArray(named) || !named.includes('urn:ietf:params:scim:api:messages:2.0:SearchRequest'))
    throw new DirectoryRefusal(400, 'invalidSyntax', said('scim:notASearch'));
  return given;
}
