import type { z } from 'zod';
import { deskRoutes } from './desk/routes.ts';
import { directoryRoutes } from './directory/routes.ts';
import { findRoutes } from './find/routes.ts';
import { forecastRoutes } from './forecast/routes.ts';
import { groundworkRoutes } from './groundwork/routes.ts';
import { houseRoutes } from './house/routes.ts';
import { incomingRoutes } from './incoming/routes.ts';
import { intakeRoutes } from './intake/routes.ts';
import { noticeRoutes } from './notice/routes.ts';
import { programRoutes } from './program/routes.ts';
import { reportRoutes } from './report/routes.ts';
import { rosterRoutes } from './roster/routes.ts';
import { serviceRoutes } from './service/routes.ts';
import { viewRoutes } from './view/routes.ts';
import { sharedRoutes } from './view/shared.ts';
import { savedViewRoutes } from './view/views.ts';
import { workshopRoutes } from './workshop/routes.ts';

/** The routes of each area. */
export const areas = {
  house: houseRoutes,
  intake: intakeRoutes,
  view: viewRoutes,
  shared: sharedRoutes,
  views: savedViewRoutes,
  desk: deskRoutes,
  find: findRoutes,
  forecast: forecastRoutes,
  service: serviceRoutes,
  report: reportRoutes,
  roster: rosterRoutes,
  program: programRoutes,
  notice: noticeRoutes,
  incoming: incomingRoutes,
  workshop: workshopRoutes,
  groundwork: groundworkRoutes,
  directory: directoryRoutes,
} as const;

/** Every route of the application, by name. */
export const routes = {
  ...houseRoutes,
  ...intakeRoutes,
  ...viewRoutes,
  ...sharedRoutes,
  ...savedViewRoutes,
  ...deskRoutes,
  ...findRoutes,
  ...forecastRoutes,
  ...serviceRoutes,
  ...reportRoutes,
  ...rosterRoutes,
  ...programRoutes,
  ...noticeRoutes,
  ...incomingRoutes,
  ...workshopRoutes,
  ...groundworkRoutes,
  ...directoryRoutes,
} as const;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
export type AnswerOf<N extends RouteName> = z.output<Routes[N]['answer']>;
export type BodyOf<N extends RouteName> = z.input<Routes[N]['body']>;
export type ParamsOf<N extends RouteName> = z.input<Routes[N]['params']>;
export type QueryOf<N extends RouteName> = z.input<Routes[N]['query']>;
