import type { forecastRoutes } from '@tolvek/contract';
import { apart } from '../platform/apart.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { FORECAST, FORECAST_HELPS, FORECAST_SCORE, FORECAST_TRIED, REQUEST_FORECAST } from './tasks.ts';

/** What will probably be late: reckoned off the thread that answers. */
export function forecastHandlers(house: House): Handlers<typeof forecastRoutes> {
  return {
    forecast: ({ viewer }) => apart(house, FORECAST, [viewer]),
    forecastHelps: ({ viewer }) => apart(house, FORECAST_HELPS, [viewer]),
    forecastTried: ({ viewer, query }) => apart(house, FORECAST_TRIED, [viewer, query]),
    requestForecast: ({ viewer, params }) => apart(house, REQUEST_FORECAST, [viewer, params.number]),
    forecastScore: ({ viewer }) => apart(house, FORECAST_SCORE, [viewer]),
  };
}
