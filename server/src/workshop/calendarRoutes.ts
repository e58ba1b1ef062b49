import type { House } from '../platform/house.ts';
import type { Serve } from '../platform/serve.ts';
import { calendarEffects, calendarView, settleCalendar } from './calendars.ts';

export function calendarRoutes(serve: Serve, house: House): void {
  const { db, clock } = house;
  serve('calendar', ({ params }) => calendarView(db, params.key));
  serve('tryCalendar', ({ viewer, params, body }) => calendarEffects(db, viewer, params.key, body, clock.now()));
  serve('changeCalendar', ({ viewer, params, body, version }) =>
    settleCalendar(house, viewer, { key: params.key, version, ...body }),
  );
}
