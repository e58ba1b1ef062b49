import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { toNodeHandler } from 'better-auth/node';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { fileRoutes } from '../files/routes.ts';
import { formRoutes } from '../form/routes.ts';
import { intakeRoutes } from '../intake/routes.ts';
import { noticeRoutes } from '../notice/routes.ts';
import { liveRoute, registerRoutes } from '../register/routes.ts';
import { vocabularyRoutes } from '../vocabulary/routes.ts';
import type { Auth } from './auth.ts';
import type { House } from './house.ts';
import { answerErrors, notAllowed, notFound, Problem } from './problem.ts';
import { platformRoutes } from './routes.ts';
import { serving } from './serve.ts';

const WEB = fileURLToPath(new URL('../../../web/dist', import.meta.url));

/** The HTTP side of the house: the API of the contract, sign-in, and the built web pages. */
export function createApp(house: House, auth: Auth): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'default-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'frame-src': ["'self'"],
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
  app.all('/api/auth/{*rest}', toNodeHandler(auth));
  app.use('/api', sameOrigin);
  if (house.config.mode === 'production')
    app.use(['/api/doors', '/api/kept', '/api/confirmations', '/api/follow', '/api/decisions'], outsideLimit);
  const bytes = express.Router();
  fileRoutes(bytes, house, auth);
  app.use(bytes);
  app.use('/api', onlyJson, express.json({ limit: '512kb', strict: true }));

  const router = express.Router();
  const serve = serving(router, house, auth);
  platformRoutes(serve, house);
  intakeRoutes(serve, house);
  registerRoutes(serve, house);
  formRoutes(serve, house);
  vocabularyRoutes(serve, house);
  noticeRoutes(serve, house);
  liveRoute(router, house, auth);
  app.use(router);
  app.use('/api', () => {
    throw notFound('This address');
  });
  if (existsSync(WEB)) servePages(app);
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

/** Writes must come from our own pages: a browser says where a request comes from. */
const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.get('Origin');
  const from = origin && URL.canParse(origin) ? new URL(origin).host : '';
  if (request.method !== 'GET' && request.method !== 'HEAD' && origin && from !== request.get('Host'))
    throw notAllowed('This came from another site.');
  next();
};

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

const outsideLimit = rateLimit({
  windowMs: 60_000,
  limit: 60,
  standardHeaders: 'draft-8',
  legacyHeaders: false,
  handler: () => {
    throw new Problem(
      429,
      'too-many',
      'Too many at once',
      'There were many calls from your address in the last minute. Wait a minute, then try again; what you typed is kept.',
    );
  },
});
