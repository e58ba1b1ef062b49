import { dataTask } from '../platform/apart.ts';
import type { forecastFor, helpsFor, requestForecastFor, scoreFor, triedFor } from './view.ts';

/** What a view takes besides the data and the moment. */
type Rest<View> = View extends (on: never, now: number, ...rest: infer Taken) => unknown ? Taken : never;

/** What will probably be late. */
export const FORECAST = dataTask<Rest<typeof forecastFor>, ReturnType<typeof forecastFor>>('forecast');
/** What would help most. */
export const FORECAST_HELPS = dataTask<Rest<typeof helpsFor>, ReturnType<typeof helpsFor>>('forecastHelps');
/** What would be so with something changed. */
export const FORECAST_TRIED = dataTask<Rest<typeof triedFor>, ReturnType<typeof triedFor>>('forecastTried');
/** What is likely to become of one request. */
export const REQUEST_FORECAST = dataTask<Rest<typeof requestForecastFor>, ReturnType<typeof requestForecastFor>>(
  'requestForecast',
);
/** How right past forecasts were. */
export const FORECAST_SCORE = dataTask<Rest<typeof scoreFor>, ReturnType<typeof scoreFor>>('forecastScore');
