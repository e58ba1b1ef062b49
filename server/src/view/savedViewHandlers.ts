import type { savedViewRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { lookAtBoard } from './board.ts';
import { lookAtCalendar } from './calendarLook.ts';
import { lookAtChart } from './chartLook.ts';
import { lookAgain } from './lookAgain.ts';
import { lookAtMatrix } from './matrixLook.ts';
import { changeView, makeView, nameableOf, removeView, viewOf, viewsOf } from './savedViews.ts';
import { takeOutView } from './takeOutView.ts';
import { lookAtTotals } from './totalsLook.ts';
import { lookThrough } from './viewed.ts';

/** Views: what is looked at, how it is put together and in order, for whom. */
export function savedViewHandlers(house: House): Handlers<typeof savedViewRoutes> {
  const { db, clock } = house;
  return {
    views: ({ viewer }) => viewsOf(db, viewer),
    nameable: ({ viewer, query }) => nameableOf(db, viewer, query.of, query.find),
    lookAgain: ({ viewer, body }) => lookAgain(db, viewer, body, clock.now()),
    lookAtBoard: ({ viewer, body }) => lookAtBoard(db, viewer, body, clock.now()),
    lookAtCalendar: ({ viewer, body }) => lookAtCalendar(db, viewer, body, clock.now()),
    lookAtChart: ({ viewer, body }) => lookAtChart(db, viewer, body, clock.now()),
    lookAtMatrix: ({ viewer, body }) => lookAtMatrix(db, viewer, body, clock.now()),
    lookAtTotals: ({ viewer, body }) => lookAtTotals(db, viewer, body, clock.now()),
    takeOutView: ({ viewer, body, response }) => takeOutView(house, viewer, body, response),
    lookThrough: ({ viewer, body }) => lookThrough(db, viewer, body, clock.now()),
    makeView: ({ viewer, body, key }) => makeView(house, viewer, body.view, key),
    view: ({ viewer, params }) => viewOf(db, viewer, params.id),
    changeView: ({ viewer, params, body, version }) =>
      changeView(house, viewer, { ...params, version, view: body.view }),
    removeView: ({ viewer, params, body }) => removeView(house, viewer, { ...params, ...body }),
  };
}
