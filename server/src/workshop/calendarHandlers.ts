import type { calendarRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { calendarEffects, calendarsView, calendarView, createCalendar, settleCalendar } from './calendars.ts';
import { countriesIn, holidaysOf } from './holidays.ts';

export function calendarHandlers(house: House): Handlers<typeof calendarRoutes> {
  const { db, clock } = house;
  return {
    calendars: () => calendarsView(db),
    createCalendar: ({ viewer, body, key }) => createCalendar(house, viewer, body, key),
    countries: async ({ language }) => ({ countries: await countriesIn(language) }),
    holidays: async ({ params, query, language }) => ({
      holidays: await holidaysOf({ ...params, ...query, language }),
    }),
    calendar: ({ params }) => calendarView(db, params.key),
    tryCalendar: ({ viewer, params, body }) => calendarEffects(db, viewer, params.key, body, clock.now()),
    changeCalendar: ({ viewer, params, body, version }) =>
      settleCalendar(house, viewer, { key: params.key, version, ...body }),
  };
}
