import { dataTask, type RestAfterNow } from '../platform/apart.ts';
import type { forecastFor, helpsFor, requestForecastFor, scoreFor, triedFor } from './view.ts';

/** What will probably be late. */
export const FORECAST = dataTask<RestAfterNow<typeof forecastFor>, ReturnType<typeof forecastFor>>('forecast');
/** What would help most. */
export const FORECAST_HELPS = dataTask<RestAfterNow<typeof helpsFor>, ReturnType<typeof helpsFor>>('forecastHelps');
/** What would be so with something changed. */
export const FORECAST_TRIED = dataTask<RestAfterNow<typeof triedFor>, ReturnType<typeof triedFor>>('forecastTried');
/** What is likely to become of one request. */
export const REQUEST_FORECAST = dataTask<
  RestAfterNow<typeof requestForecastFor>,
  ReturnType<typeof requestForecastFor>
>('requestForecast');
/** How right past forecasts were. */
export const FORECAST_SCORE = dataTask<RestAfterNow<typeof scoreFor>, ReturnType<typeof scoreFor>>('forecastScore');
