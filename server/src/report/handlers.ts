import type { reportRoutes } from '@tolvek/contract';
import { apart } from '../platform/apart.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { changeReport, freezeReport, makeReport, removeCopy, removeReport } from './commands.ts';
import { reportOf, reportsOf } from './queries.ts';
import { COPY_LOOK, REPORT_LOOK } from './tasks.ts';

/** Reports: what they tell is gathered off the thread that answers. */
export function reportHandlers(house: House): Handlers<typeof reportRoutes> {
  const { db, clock } = house;
  return {
    reports: ({ viewer }) => reportsOf(db, viewer),
    lookAtReport: ({ viewer, body }) => apart(house, REPORT_LOOK, [viewer, body]),
    makeReport: ({ viewer, body, key }) => makeReport(house, viewer, body.report, key),
    report: ({ viewer, params }) => reportOf(db, viewer, params.id, clock.now()),
    changeReport: ({ viewer, params, body, version }) =>
      changeReport(house, viewer, { ...params, version, report: body.report }),
    removeReport: ({ viewer, params, body }) => removeReport(house, viewer, { ...params, ...body }),
    freezeReport: ({ viewer, params, body, key }) => freezeReport(house, viewer, { ...params, ...body }, key),
    reportCopy: ({ viewer, params }) => apart(house, COPY_LOOK, [viewer, params]),
    removeReportCopy: ({ viewer, params, body }) => removeCopy(house, viewer, { ...params, ...body }),
  };
}
