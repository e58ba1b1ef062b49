import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { deskRoutes } from '../desk/routes.ts';
import { intakeRoutes } from '../intake/routes.ts';
import { noticeRoutes } from '../notice/routes.ts';
import type { Auth } from '../platform/auth.ts';
import { limitBodies, ownAddress } from '../platform/edge.ts';
import type { House } from '../platform/house.ts';
import { Limits } from '../platform/limits.ts';
import { answerErrors, notFound, Problem } from '../platform/problem.ts';
import { serving } from '../platform/serve.ts';
import { signInRoutes } from '../platform/signIn/routes.ts';
import { fileRoutes } from '../view/files.ts';
import { requesterRoutes } from '../view/requesterRoutes.ts';
import { liveRoute, viewRoutes } from '../view/routes.ts';
import { calendarRoutes } from '../workshop/calendarRoutes.ts';
import { workshopRoutes } from '../workshop/routes.ts';
import { vocabularyRoutes } from '../workshop/vocabularyRoutes.ts';
import { houseRoutes } from './routes.ts';

const WEB = fileURLToPath(new URL('../../../web/dist', import.meta.url));

/** The HTTP side of the house: the API of the contract, sign-in, and the built web pages. */
export function createApp(house: House, auth: Auth): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', house.config.proxies);
  app.use(limitBodies, ownAddress(house.config));
  app.use(
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
  );
  app.use(
    compression({
      filter: (request, response) => !request.path.startsWith('/api/live') && compression.filter(request, response),
    }),
  );
  const limits = new Limits(house.config.pace);
  app.use(signInRoutes(house, auth));
  const bytes = express.Router();
  fileRoutes(bytes, house, limits);
  app.use(bytes);
  app.use('/api', onlyJson, express.json({ limit: '512kb', strict: true }));

  const router = express.Router();
  const serve = serving(router, house, limits);
  houseRoutes(serve, house);
  intakeRoutes(serve, house);
  deskRoutes(serve, house);
  requesterRoutes(serve, house);
  viewRoutes(serve, house);
  workshopRoutes(serve, house);
  vocabularyRoutes(serve, house);
  calendarRoutes(serve, house);
  noticeRoutes(serve, house);
  liveRoute(router, house, limits);
  app.use(router);
  const nothingHere: RequestHandler = () => {
    throw notFound('This address');
  };
  app.use('/api', nothingHere);
  if (existsSync(WEB)) servePages(app);
  app.use(nothingHere);
  app.use(answerErrors(house.log));
  return app;
}

function servePages(app: Express): void {
  app.use('/assets', express.static(join(WEB, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(WEB, { index: false, maxAge: '1h' }));
  app.get('/{*rest}', (_request, response) =>
    response.set('Cache-Control', 'no-cache').sendFile(join(WEB, 'index.html')),
  );
}

const onlyJson: RequestHandler = (request, _response, next) => {
  if (
    ['POST', 'PUT', 'PATCH'].includes(request.method) &&
    Number(request.get('Content-Length') ?? '0') > 0 &&
    !request.is('application/json')
  ) {
    throw new Problem(415, 'not-json', 'Not JSON', 'Send JSON with the content type application/json.');
  }
  next();
};
