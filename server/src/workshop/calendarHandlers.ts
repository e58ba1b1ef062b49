import type { calendarRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { calendarEffects, calendarView, settleCalendar } from './calendars.ts';

export function calendarHandlers(house: House): Handlers<typeof calendarRoutes> {
  const { db, clock } = house;
  return {
    calendar: ({ params }) => calendarView(db, params.key),
    tryCalendar: ({ viewer, params, body }) => calendarEffects(db, viewer, params.key, body, clock.now()),
    changeCalendar: ({ viewer, params, body, version }) =>
      settleCalendar(house, viewer, { key: params.key, version, ...body }),
  };
}
