import type { AnswerOf } from '@tolvek/contract';
import { dateAt, dayBegins, nextChange } from '@tolvek/core/deadline';
import { belongs, NO_REQUEST, type Viewer } from '@tolvek/core/people';
import {
  type AroundReport,
  type Days,
  dayAfter,
  type ReportDesign,
  stretchBeside,
  stretchOf,
} from '@tolvek/core/report';
import { canDate } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { and, asc, desc, eq, isNull, sql } from 'drizzle-orm';
import { calendarByKey, calendarNames } from '../calendar/queries.ts';
import type { DesignRow } from '../design/queries.ts';
import { designs } from '../design/tables.ts';
import { personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { deskOf } from '../settings/queries.ts';
import { lookedAtBy } from '../view/nameable.ts';
import { calledIn, viewById } from '../view/savedViews.ts';
import type { KeptPart } from './kept.ts';
import { lookAt, type Reading } from './reading.ts';
import { reportCopies, reportCopyRows, reports } from './tables.ts';

export interface KeptReport {
  readonly id: string;
  readonly ownerId: string;
  readonly removedAt: number | null;
  readonly sentUntil: number;
  readonly design: DesignRow<ReportDesign>;
}

const COLUMNS = {
  ...{ id: reports.id, ownerId: reports.ownerId, removedAt: reports.removedAt, sentUntil: reports.sentUntil },
  ...{ key: designs.key, draft: designs.draft, version: designs.version, number: designs.number },
};
const all = prepared((db) =>
  db
    .select(COLUMNS)
    .from(reports)
    .innerJoin(designs, eq(designs.id, reports.id))
    .where(isNull(reports.removedAt))
    .orderBy(asc(reports.createdAt), asc(reports.id))
    .prepare(),
);
const withId = prepared((db) =>
  db
    .select(COLUMNS)
    .from(reports)
    .innerJoin(designs, eq(designs.id, reports.id))
    .where(eq(reports.id, sql.placeholder('id')))
    .prepare(),
);
type Row = ReturnType<ReturnType<typeof all>['all']>[number];

const kept = ({ id, ownerId, removedAt, sentUntil, ...design }: Row): KeptReport => ({
  ...{ id, ownerId, removedAt, sentUntil },
  design: { id, ...design } as DesignRow<ReportDesign>,
});

/** All reports that are there, the oldest first. */
export const allReports = (db: Reader): readonly KeptReport[] => all(db).all().map(kept);

/** A report, also one that was taken away. */
export function reportById(db: Reader, id: string): KeptReport | undefined {
  const row = withId(db).get({ id });
  return row && kept(row);
}

/** Whether a report is there still. */
export const isReportThere = (db: Reader, id: string): boolean => reportById(db, id)?.removedAt === null;

/** Whether somebody finds a report: it is theirs, for them, or sent to them. */
export const findsReport = ({ ownerId, design: { draft } }: KeptReport, viewer: Viewer): boolean =>
  ownerId === viewer.personId ||
  [draft.audience, ...draft.sends.map(({ to }) => to)].some(
    (audience) => audience !== null && belongs(audience, viewer, NO_REQUEST),
  );

/** Whether somebody may change a report: it is theirs, or others find it too and they set up the desk. */
const changes = (viewer: Viewer, { ownerId, design: { draft } }: KeptReport): boolean =>
  ownerId === viewer.personId ||
  ((draft.audience !== null || draft.sends.length > 0) && viewer.rights.includes('groundwork'));

export interface FoundReport extends KeptReport {
  readonly mayChange: boolean;
}

/** A report that somebody finds. @throws Problem 404 for every other */
export function foundReport(db: Reader, viewer: Viewer, id: string, removed = false): FoundReport {
  const report = reportById(db, id);
  const mayChange = report !== undefined && changes(viewer, report);
  if (!report || !(mayChange || findsReport(report, viewer)) || (report.removedAt !== null && !(removed && mayChange)))
    throw notFound('report');
  return { ...report, mayChange };
}

/** What findings of a report depend on, for whoever makes it. */
export function aroundReport(reading: Reading): AroundReport {
  const { db, looking } = reading;
  return {
    registers: lookedAtBy(looking).map(({ key }) => key),
    calendars: calendarNames(db).map(({ key }) => key),
    unseen: (id, shape, by): Words | null => {
      const view = viewById(db, id);
      if (!view) return said('reports:viewGone');
      const { look, findings } = lookAt(reading, view, shape);
      if (!look) return findings[0]?.message ?? said('reports:viewGone');
      const isDay =
        by === null || (canDate(by, look.given.fields) && !(look.given.closed as readonly string[]).includes(by));
      return isDay ? null : said('reports:noDay');
    },
  };
}

/** The reports of somebody and those that are for them, the oldest first. */
export const reportsOf = (db: Reader, viewer: Viewer): AnswerOf<'reports'> => ({
  reports: allReports(db)
    .filter((report) => findsReport(report, viewer))
    .map(({ id, ownerId, design: { draft } }) => ({
      ...{ id, name: draft.name, by: ownerId === viewer.personId ? '' : personNamed(db, ownerId) },
    })),
  calendars: calendarNames(db),
});

/** When a copy of some days goes out, epoch ms: as soon as a calendar is open after them. Null: it never is. */
export function goesOut(db: Reader, key: string, { to }: Days): number | null {
  const calendar = calendarByKey(db, key)?.draft;
  if (!calendar) return null;
  const over = dayBegins(dayAfter(to), deskOf(db).zone);
  const change = nextChange(calendar, over);
  return change === null ? null : change.open ? over : change.at;
}

/** The copy of a report that goes out next by one of its ways, after a moment. */
function nextOf(db: Reader, { over }: ReportDesign, calendar: string, now: number): AnswerOf<'report'>['next'][number] {
  const today = dateAt(now, deskOf(db).zone);
  const days = [stretchBeside(over, today, 'before'), stretchOf(over, today)];
  for (const each of days) {
    const at = goesOut(db, calendar, each);
    if (at === null) return null;
    if (at > now) return { at: iso(at), ...each };
  }
  return null;
}

export function reportOf(db: Reader, viewer: Viewer, id: string, now: number): AnswerOf<'report'> {
  const report = foundReport(db, viewer, id);
  const { draft, version } = report.design;
  const copies = db
    .select()
    .from(reportCopies)
    .where(and(eq(reportCopies.reportId, id), isNull(reportCopies.removedAt)))
    .orderBy(desc(reportCopies.frozenAt), desc(reportCopies.id))
    .all();
  return {
    ...{ id, version, report: draft, by: personNamed(db, report.ownerId) },
    ...{ mine: report.ownerId === viewer.personId, changes: report.mayChange },
    names: calledIn(db, [draft.audience, ...draft.sends.map(({ to }) => to)]),
    next: draft.sends.map(({ calendar }) => nextOf(db, draft, calendar, now)),
    copies: copies.map(({ id: copy, from, to, frozenAt, byId, sent }) => ({
      ...{ id: copy, from, to, frozenAt: iso(frozenAt), by: personNamed(db, byId), sent },
      mayRemove: report.mayChange || byId === viewer.personId,
    })),
  };
}

/** A copy of a report that somebody finds, with what was kept. @throws Problem 404 */
export function copyOf(
  db: Reader,
  viewer: Viewer,
  { id, copy }: { readonly id: string; readonly copy: string },
  removed = false,
) {
  const report = foundReport(db, viewer, id);
  const found = db
    .select()
    .from(reportCopies)
    .where(and(eq(reportCopies.id, copy), eq(reportCopies.reportId, id)))
    .get();
  if (!found || (found.removedAt !== null && !removed)) throw notFound('report');
  return { report, found };
}

/** What a copy keeps, with what is left of what it said of single requests. */
export function keptIn(
  db: Reader,
  { id, kept: parts }: Pick<typeof reportCopies.$inferSelect, 'id' | 'kept'>,
): readonly KeptPart[] {
  const rows = db.select().from(reportCopyRows).where(eq(reportCopyRows.copyId, id)).all();
  const cells = new Map(rows.map((row) => [`${row.part} ${row.place}`, row.cells]));
  return parts.map(
    (part, at): KeptPart =>
      part.is === 'table'
        ? {
            ...part,
            rows: part.rows.flatMap((row, place) => {
              const found = cells.get(`${at} ${place}`);
              return found ? [{ ...row, cells: found }] : [];
            }),
          }
        : part,
  );
}
