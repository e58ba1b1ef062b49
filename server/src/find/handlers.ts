import type { findRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { findBy } from './find.ts';

/** Finding requests and people. */
export const findHandlers = ({ db, clock }: House): Handlers<typeof findRoutes> => ({
  find: ({ viewer, body }) => findBy(db, viewer, body.text, clock.now()),
});
