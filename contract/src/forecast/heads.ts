import type { Heads } from '../wire/route.ts';

/** What will probably be late. */
export const forecastHeads = {
  forecast: { method: 'GET', path: '/api/forecast', caller: 'staff' },
  forecastHelps: { method: 'GET', path: '/api/forecast/helps', caller: 'staff' },
  forecastTried: { method: 'GET', path: '/api/forecast/tried', caller: 'staff' },
  requestForecast: { method: 'GET', path: '/api/requests/:number/forecast', caller: 'staff' },
  forecastScore: { method: 'GET', path: '/api/forecast/score', caller: 'staff' },
} as const satisfies Heads;
