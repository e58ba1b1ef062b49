import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { areas } from '@tolvek/contract';
import type { GroundChange } from '@tolvek/core/people';
import { LANGUAGES, type Language } from '@tolvek/words/speech';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import compressedStatic from 'express-static-gzip';
import helmet from 'helmet';
import { deskHandlers } from '../desk/handlers.ts';
import { directoryHandlers } from '../directory/handlers.ts';
import { scimRoutes } from '../directory/routes.ts';
import { mayBeFramed } from '../door/embedding.ts';
import { rosterHandlers } from '../duty/handlers.ts';
import { findHandlers } from '../find/handlers.ts';
import { forecastHandlers } from '../forecast/handlers.ts';
import { groundworkHandlers } from '../groundwork/handlers.ts';
import { programHandlers } from '../groundwork/programs.ts';
import { incomingHandlers } from '../incoming/handlers.ts';
import { intakeHandlers } from '../intake/handlers.ts';
import { noticeHandlers } from '../notice/handlers.ts';
import { noteGround } from '../people/history.ts';
import type { Auth } from '../platform/auth.ts';
import { alwaysSet, limitBodies, ownAddress } from '../platform/edge.ts';
import type { House } from '../platform/house.ts';
import { Limits } from '../platform/limits.ts';
import { answerErrors, notFound } from '../platform/problem.ts';
import { serve } from '../platform/serve.ts';
import { signInRoutes } from '../platform/signIn/routes.ts';
import { speakFor, wishedBy } from '../platform/words.ts';
import { by, write } from '../platform/work.ts';
import { reportHandlers } from '../report/handlers.ts';
import { serviceHandlers } from '../service/handlers.ts';
import { deskOf } from '../settings/queries.ts';
import { viewHandlers } from '../view/handlers.ts';
import { savedViewHandlers } from '../view/savedViewHandlers.ts';
import { sharedHandlers } from '../view/sharedHandlers.ts';
import { workshopHandlers } from '../workshop/handlers.ts';
import { houseHandlers } from './handlers.ts';

const WEB = fileURLToPath(new URL('../../../web/dist', import.meta.url));

/** The HTTP side of the house: the API of the contract, sign-in, and the built web pages. */
export function createApp(house: House, auth: Auth): Express {
  speakFor(deskOf(house.db).sender.address);
  const app = express();
  app.disable('x-powered-by');
  // What the API answers is kept by nobody; files say when they were changed.
  app.disable('etag');
  app.set('trust proxy', house.config.proxies);
  app.use(limitBodies, ownAddress(house.config));
  app.use(
    alwaysSet(
      helmet({
        contentSecurityPolicy: {
          directives: {
            'default-src': ["'self'"],
            'style-src': ["'self'", "'unsafe-inline'"],
            'img-src': ["'self'", 'data:', 'blob:'],
            'frame-src': ["'self'"],
            // Sheets are unpacked off the page, by a worker of our own.
            'worker-src': ["'self'"],
            'upgrade-insecure-requests': null,
          },
        },
        strictTransportSecurity: house.config.url.startsWith('https:'),
        referrerPolicy: { policy: 'no-referrer' },
      }),
    ),
  );
  app.get('/embed/:slug', mayBeFramed(house));
  app.use(
    compression({
      filter: (request, response) => !request.path.startsWith('/api/live') && compression.filter(request, response),
    }),
  );
  const limits = new Limits(house.config.pace);
  const noted = (id: string, change: GroundChange): void =>
    write(house, (work) => noteGround(by(work, id), 'person', id, change));
  const proofs = {
    linked: (id: string, provider: string) => noted(id, { kind: 'linked', provider }),
    coded: (id: string, on: boolean) => noted(id, { kind: 'code', on }),
    keyed: (id: string, name: string) => noted(id, { kind: 'passkey', name, on: true }),
  };
  app.use(signInRoutes(house, { auth, limits, ...proofs }));
  const router = express.Router();
  const bound = { house, limits };
  serve(router, bound, areas.house, houseHandlers(house));
  serve(router, bound, areas.intake, intakeHandlers(house));
  serve(router, bound, areas.view, viewHandlers(house));
  serve(router, bound, areas.shared, sharedHandlers(house));
  serve(router, bound, areas.views, savedViewHandlers(house));
  serve(router, bound, areas.report, reportHandlers(house));
  serve(router, bound, areas.desk, deskHandlers(house));
  serve(router, bound, areas.forecast, forecastHandlers(house));
  serve(router, bound, areas.service, serviceHandlers(house));
  serve(router, bound, areas.roster, rosterHandlers(house));
  serve(router, bound, areas.program, programHandlers(house));
  serve(router, bound, areas.find, findHandlers(house));
  serve(router, bound, areas.notice, noticeHandlers(house));
  serve(router, bound, areas.incoming, incomingHandlers(house));
  serve(router, bound, areas.workshop, workshopHandlers(house));
  serve(router, bound, areas.groundwork, groundworkHandlers(house));
  serve(router, bound, areas.directory, directoryHandlers(house));
  app.use(router);
  app.use('/scim/v2', scimRoutes(house, limits));
  app.use('/api', nothingHere);
  if (existsSync(WEB)) servePages(app);
  app.use(nothingHere);
  app.use(answerErrors(house.log));
  return app;
}

/** What a page asks for as soon as its program is here: a form at its door is asked for while that is on its way. */
function askedEarly(path: string): readonly string[] {
  const [, slug] = /^\/ask\/([\w-]{1,64})$/.exec(path) ?? [];
  return slug === undefined ? [] : [`/api/doors/${slug}`, '/api/me'];
}

/** The file with the words of the first page, by language, as the build named it. */
function wordsOfPages(): ReadonlyMap<Language, string> {
  const path = join(WEB, '.vite', 'manifest.json');
  if (!existsSync(path)) return new Map();
  const manifest = JSON.parse(readFileSync(path, 'utf8')) as Readonly<Record<string, { readonly file: string }>>;
  return new Map(
    LANGUAGES.flatMap((language) => {
      const file = manifest[`../words/src/${language}/front.ts`]?.file;
      return file ? [[language, file] as const] : [];
    }),
  );
}

const nothingHere: RequestHandler = () => {
  throw notFound('page');
};

function servePages(app: Express): void {
  // As the build compressed them.
  const serveStatic = { immutable: true, maxAge: '1y', fallthrough: false };
  app.use('/assets', compressedStatic(join(WEB, 'assets'), { enableBrotli: true, index: false, serveStatic }));
  app.use(express.static(WEB, { index: false, maxAge: '1h' }));
  const words = wordsOfPages();
  app.get('/{*rest}', (request, response) => {
    const early = askedEarly(request.path).map((path) => `<${path}>; rel=preload; as=fetch; crossorigin`);
    const said = words.get(wishedBy(request));
    response.set('Link', [...(said ? [`</${said}>; rel=modulepreload`] : []), ...early]);
    response.set('Cache-Control', 'no-cache').sendFile(join(WEB, 'index.html'));
  });
}
