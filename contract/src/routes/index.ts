import type { z } from 'zod';
import type { person } from '../schemas.ts';
import { calendarRoutes } from './calendars.ts';
import { floorRoutes } from './floor.ts';
import { frontDeskRoutes } from './frontDesk.ts';
import { houseRoutes } from './house.ts';
import { mailroomRoutes } from './mailroom.ts';
import { registerRoutes } from './registers.ts';
import { workshopRoutes } from './workshop.ts';

/** Every route of the application, by name. */
export const routes = {
  ...houseRoutes,
  ...frontDeskRoutes,
  ...floorRoutes,
  ...mailroomRoutes,
  ...calendarRoutes,
  ...registerRoutes,
  ...workshopRoutes,
} as const;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
export type AnswerOf<N extends RouteName> = z.output<Routes[N]['answer']>;
export type BodyOf<N extends RouteName> = z.input<Routes[N]['body']>;
export type ParamsOf<N extends RouteName> = z.input<Routes[N]['params']>;
export type QueryOf<N extends RouteName> = z.input<Routes[N]['query']>;
export type Person = z.infer<typeof person>;

export { type TrayKey, trayKeys } from './params.ts';
export { MOST_IMPORTED } from './workshop.ts';
