import type { serviceRoutes } from '@tolvek/contract';
import { apart } from '../platform/apart.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { SERVED_ROWS, SERVICE_TIMES } from './tasks.ts';

/** How long requests took: reckoned off the thread that answers. */
export const serviceHandlers = (house: House): Handlers<typeof serviceRoutes> => ({
  serviceTimes: ({ viewer, query }) => apart(house, SERVICE_TIMES, [viewer, query]),
  servedRows: ({ viewer, query }) => apart(house, SERVED_ROWS, [viewer, query]),
});
