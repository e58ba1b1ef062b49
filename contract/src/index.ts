export type { Caller, Method, Route } from './route.ts';
export {
  type AnswerOf,
  type BodyOf,
  MOST_IMPORTED,
  type ParamsOf,
  type Person,
  type QueryOf,
  type RouteName,
  type Routes,
  routes,
  type TrayKey,
  trayKeys,
} from './routes/index.ts';
export { formDesign, formFileJsonSchema, formFileSchema, type ProblemDocument } from './schemas.ts';
