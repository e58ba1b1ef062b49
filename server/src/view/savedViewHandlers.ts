import type { savedViewRoutes } from '@tolvek/contract';
import { apart } from '../platform/apart.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { lookAtBoard } from './board.ts';
import { lookAtCalendar } from './calendarLook.ts';
import { lookAtChart } from './chartLook.ts';
import { lookAgain } from './lookAgain.ts';
import { lookAtMatrix } from './matrixLook.ts';
import { changeView, makeView, nameableOf, removeView, viewOf, viewsOf } from './savedViews.ts';
import { takeOutView } from './takeOutView.ts';
import { ADD_UP_VIEW, LOOK_AT_BOARD, LOOK_AT_CHART, LOOK_AT_MATRIX, LOOK_AT_TOTALS } from './tasks.ts';
import { lookAtTotals } from './totalsLook.ts';
import { lookThrough } from './viewed.ts';
import { noteLook } from './viewIndexes.ts';

/** Views: what is looked at, how it is put together and in order, for whom. */
export function savedViewHandlers(house: House): Handlers<typeof savedViewRoutes> {
  const { db, clock } = house;
  // What is too much to be gone through while others wait is done off the thread that answers.
  const here = <Told extends { readonly more: boolean }>(told: Told, elsewhere: () => Promise<Told>) =>
    told.more ? elsewhere() : told;
  return {
    views: ({ viewer }) => viewsOf(db, viewer),
    nameable: ({ viewer, query }) => nameableOf(db, viewer, query.of, query.find),
    addUpView: ({ viewer, body }) => apart(house, ADD_UP_VIEW, [viewer, body]),
    lookAgain: ({ viewer, body }) => lookAgain(db, viewer, body, clock.now()),
    lookAtBoard: ({ viewer, body }) =>
      here(lookAtBoard(db, viewer, body, clock.now()), () => apart(house, LOOK_AT_BOARD, [viewer, body])),
    lookAtCalendar: ({ viewer, body }) => lookAtCalendar(db, viewer, body, clock.now()),
    lookAtChart: ({ viewer, body }) =>
      here(lookAtChart(db, viewer, body, clock.now()), () => apart(house, LOOK_AT_CHART, [viewer, body])),
    lookAtMatrix: ({ viewer, body }) =>
      here(lookAtMatrix(db, viewer, body, clock.now()), () => apart(house, LOOK_AT_MATRIX, [viewer, body])),
    lookAtTotals: ({ viewer, body }) =>
      here(lookAtTotals(db, viewer, body, clock.now()), () => apart(house, LOOK_AT_TOTALS, [viewer, body])),
    takeOutView: ({ viewer, body, response }) => takeOutView(house, viewer, body, response),
    lookThrough: ({ viewer, body }) => lookThrough(db, viewer, body, clock.now(), (index) => noteLook(house, index)),
    makeView: ({ viewer, body, key }) => makeView(house, viewer, body.view, key),
    view: ({ viewer, params }) => viewOf(db, viewer, params.id),
    changeView: ({ viewer, params, body, version }) =>
      changeView(house, viewer, { ...params, version, view: body.view }),
    removeView: ({ viewer, params, body }) => removeView(house, viewer, { ...params, ...body }),
  };
}
