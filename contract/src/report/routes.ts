import { MOST_OF_REPORT, REPORTS_OVER, type ReportDesign, TIMES_SHOWN } from '@tolvek/core/report';
import { SERVED_BY } from '@tolvek/core/service';
import { z } from 'zod';
import { sharedAudience } from '../people/shapes.ts';
import { field } from '../register/shapes.ts';
import { timesTold } from '../service/routes.ts';
import { charted, chartMeasure, chartShape, subject, tableShape } from '../view/views.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { day, key, moment, named, versioned, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { reportHeads } from './heads.ts';

const title = z.string().trim().max(200);
const ofView = { view: z.string().max(64), by: subject.nullable() };
const part = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('words'), title, text: z.string().trim().max(8_000) }),
  z.strictObject({
    ...{ is: z.literal('view'), title, ...ofView },
    shape: z.discriminatedUnion('is', [tableShape, chartShape]),
    rows: z.int().min(1).max(MOST_OF_REPORT.rows),
  }),
  z.strictObject({
    ...{ is: z.literal('figures'), title },
    figures: z
      .array(z.strictObject({ ...ofView, label: title, measure: chartMeasure }))
      .max(MOST_OF_REPORT.figures)
      .readonly(),
  }),
  z.strictObject({
    ...{ is: z.literal('times'), title, of: z.union([key, z.literal('')]) },
    ...{ by: z.enum(SERVED_BY), shown: z.enum(TIMES_SHOWN) },
  }),
]);
export const reportDesign = exactly<ReportDesign>()(
  z.strictObject({
    name: z.string().trim().max(120),
    over: z.enum(REPORTS_OVER),
    parts: z.array(part).max(MOST_OF_REPORT.parts).readonly(),
    sends: z
      .array(z.strictObject({ calendar: key, to: sharedAudience }))
      .max(MOST_OF_REPORT.sends)
      .readonly(),
    audience: sharedAudience.nullable(),
  }),
);

/** Of how many rows a part tells; `more`: of more than that, and `isAll`: whether all were looked at. */
const ofRows = { total: z.int(), more: z.boolean(), isAll: z.boolean() };
/** A part as it is told; `missing`: why nothing of it is. */
const partTold = z.discriminatedUnion('is', [
  z.object({ is: z.literal('words'), title: z.string(), text: z.string() }),
  z.object({ is: z.literal('missing'), title: z.string(), why: words }),
  z.object({
    ...{ is: z.literal('table'), title: z.string(), view: named, says: words, columns: z.array(words), ...ofRows },
    rows: z.array(z.object({ number: z.string(), subject: visibleSubject, cells: z.array(words) })),
  }),
  z.object({
    ...{ is: z.literal('chart'), title: z.string(), view: named, says: words, shape: chartShape },
    /** Those that it is made by. */
    fields: z.array(field).readonly(),
    ...charted,
    ...ofRows,
  }),
  z.object({
    ...{ is: z.literal('figures'), title: z.string() },
    /** Of what nothing can be told, nothing is said. */
    figures: z.array(z.object({ label: z.string(), said: words, count: z.int() })),
  }),
  z.object({
    ...{ is: z.literal('times'), title: z.string(), of: z.string(), by: z.enum(SERVED_BY), shown: z.enum(TIMES_SHOWN) },
    ...timesTold,
  }),
]);
const told = z.array(partTold);
const days = { from: day, to: day };
const identified = z.strictObject({ id: z.string().max(64) });
const ofCopy = identified.extend({ copy: z.string().max(64) });

/** Reports: views, figures, service times and words on one page, for some days; frozen, and sent. */
export const reportRoutes = routesOf(reportHeads, {
  reports: {
    says: 'The reports of the caller and those that are for them.',
    answer: z.object({
      /** `by`: whose it is; empty: the caller’s own. */
      reports: z.array(z.object({ id: z.string(), name: z.string(), by: z.string() })),
      calendars: z.array(named),
    }),
  },
  lookAtReport: {
    says: 'What the caller reads in a report, kept or not, of some days, as things stand now.',
    body: z.strictObject({ report: reportDesign, ...days }),
    answer: z.object({ parts: told, findings: z.array(z.object({ at: z.string(), message: words })) }),
  },
  makeReport: {
    says: 'Keeps a report.',
    body: z.strictObject({ report: reportDesign }),
    answer: z.object({ id: z.string() }),
  },
  report: {
    says: 'A report that the caller finds, with its frozen copies, the latest first.',
    params: identified,
    answer: z.object({
      ...{ id: z.string(), version: z.int(), report: reportDesign },
      /** Whose it is, and whether the caller may change it. */
      ...{ by: z.string(), mine: z.boolean(), changes: z.boolean() },
      /** What the groups and people that it names are called. */
      names: z.record(z.string(), z.string()),
      /** When each of its ways to be sent is next, and of which days it tells then; null where its calendar never opens. */
      next: z.array(z.object({ at: moment, ...days }).nullable()),
      copies: z.array(
        z.object({ id: z.string(), ...days, frozenAt: moment, by: z.string(), sent: z.int(), mayRemove: z.boolean() }),
      ),
    }),
  },
  changeReport: {
    says: 'Changes a report, at once for everybody who finds it.',
    params: identified,
    body: z.strictObject({ report: reportDesign }),
    answer: versioned,
  },
  removeReport: {
    says: 'Takes a report away with its copies, or puts it back.',
    params: identified,
    body: z.strictObject({ removed: z.boolean() }),
    answer: z.object({ id: z.string() }),
  },
  freezeReport: {
    says: 'Keeps what a report tells of some days, as the caller reads it now. Each reader sees of it what they may read.',
    params: identified,
    body: z.strictObject(days),
    answer: z.object({ id: z.string() }),
  },
  reportCopy: {
    says: 'A frozen copy of a report, as far as the caller may read it now.',
    params: ofCopy,
    answer: z.object({
      name: z.string(),
      over: z.enum(REPORTS_OVER),
      ...days,
      frozenAt: moment,
      by: z.string(),
      parts: told,
    }),
  },
  removeReportCopy: {
    says: 'Takes a frozen copy away, or puts it back.',
    params: ofCopy,
    body: z.strictObject({ removed: z.boolean() }),
    answer: z.object({ id: z.string() }),
  },
});
