import type { z } from 'zod';
import type { person } from './people/shapes.ts';

export type { deskRoutes } from './desk/routes.ts';
export type { directoryRoutes } from './directory/routes.ts';
export type { findRoutes } from './find/routes.ts';
export type { forecastRoutes } from './forecast/routes.ts';
export {
  followerPlans,
  formDesign,
  formFileJsonSchema,
  formFileSchema,
  handlerRule,
  rowLengths,
} from './form/shapes.ts';
export type { groundworkRoutes } from './groundwork/routes.ts';
export type { houseRoutes } from './house/routes.ts';
export type { incomingRoutes } from './incoming/routes.ts';
export type { intakeRoutes } from './intake/routes.ts';
export type { noticeRoutes } from './notice/routes.ts';
export type { programRoutes } from './program/routes.ts';
export type { reportRoutes } from './report/routes.ts';
export type { rosterRoutes } from './roster/routes.ts';
export {
  type AnswerOf,
  areas,
  type BodyOf,
  type ParamsOf,
  type QueryOf,
  type RouteName,
  type Routes,
  routes,
} from './routes.ts';
export type { serviceRoutes } from './service/routes.ts';
export type { viewRoutes } from './view/routes.ts';
export { type TrayKey, trayKeys } from './view/shapes.ts';
export type { sharedRoutes } from './view/shared.ts';
export type { savedViewRoutes } from './view/views.ts';
export type { ProblemDocument } from './wire/problem.ts';
export {
  type AboutRegister,
  aboutRegister,
  type Caller,
  type Head,
  type Method,
  type Route,
  type RouteRight,
} from './wire/route.ts';
export type { calendarRoutes } from './workshop/calendars.ts';
export type { doorRoutes } from './workshop/doors.ts';
export type { mailingRoutes } from './workshop/mailings.ts';
export { MOST_IMPORTED } from './workshop/many.ts';
export type { workshopRoutes } from './workshop/routes.ts';
export type { vocabularyRoutes } from './workshop/vocabularies.ts';
export type Person = z.infer<typeof person>;
