import type { AnswerOf } from '@tolvek/contract';
import { isSame } from '@tolvek/core/own';
import { type Audience, configuresAnything, inPlace, type Viewer } from '@tolvek/core/people';
import { type Days, REPORT, type ReportDesign } from '@tolvek/core/report';
import { refused, said } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { changeAtOnce, changeEach, type Done, makeInForce } from '../design/commands.ts';
import { personNamed } from '../people/queries.ts';
import { apart } from '../platform/apart.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { notAllowed, staleVersion, wrongFields } from '../platform/problem.ts';
import { type Work, write } from '../platform/work.ts';
import { audienceWrong } from '../view/savedViews.ts';
import type { KeptPart } from './kept.ts';
import { allReports, aroundReport, copyOf, type FoundReport, foundReport, type KeptReport } from './queries.ts';
import { readingOf } from './reading.ts';
import { reportCopies, reportCopyRows, reports } from './tables.ts';
import { REPORT_KEPT } from './tasks.ts';

/** @throws Problem 422 for a report that would tell nothing, or be found by whom its maker may not give it to */
function refuseUnsound(db: Reader, viewer: Viewer, report: ReportDesign, now: number): void {
  const isWide = configuresAnything(viewer);
  const whom = (at: string, audience: Audience | null) =>
    audience === null ? [] : audienceWrong(db, viewer, audience, isWide).map((message) => ({ at, message }));
  const wrong = [
    ...REPORT.findings(report, aroundReport(readingOf(db, viewer, now))),
    ...whom('audience', report.audience),
    ...report.sends.flatMap(({ to }, at) => whom(`sends ${at}`, to)),
  ];
  if (wrong.length > 0)
    throw wrongFields(wrong.map(({ at, message }) => ({ field: at, message, fix: said('views:correctIt') })));
}

/** Keeps a report of somebody. @throws Problem 422 */
export const makeReport = (
  house: House,
  viewer: Viewer,
  report: ReportDesign,
  sentKey: string,
): AnswerOf<'makeReport'> =>
  write(house, ({ tx, now }) =>
    once(tx, { key: sentKey, scope: `report ${viewer.personId}`, content: report, now }, () => {
      refuseUnsound(tx, viewer, report, now);
      const id = newId();
      makeInForce(tx, REPORT, { id, key: id, content: report, note: '' }, { viewer, now });
      const row = { id, ownerId: viewer.personId, createdAt: now, removedAt: null, sentUntil: now };
      tx.insert(reports).values(row).run();
      return { id };
    }),
  );

/** @throws Problem 403 for who may only read it */
function refuseOthers(db: Reader, { mayChange, ownerId }: FoundReport): void {
  if (!mayChange) throw notAllowed(refused('notYourReport', { name: personNamed(db, ownerId) }));
}

/** Changes a report, at once for everybody who finds it. @throws Problem 403, 404, 412, 422 */
export const changeReport = (
  house: House,
  viewer: Viewer,
  { id, version, report: content }: { readonly id: string; readonly version: number; readonly report: ReportDesign },
): AnswerOf<'changeReport'> =>
  write(house, ({ tx, now }) => {
    const report = foundReport(tx, viewer, id);
    refuseOthers(tx, report);
    if (report.design.version !== version) throw staleVersion();
    refuseUnsound(tx, viewer, content, now);
    // What is sent otherwise from now on sends nothing of before.
    if (!isSame([content.over, content.sends], [report.design.draft.over, report.design.draft.sends]))
      tx.update(reports).set({ sentUntil: now }).where(eq(reports.id, id)).run();
    return { version: changeAtOnce(tx, report.design, { version, content, note: '' }, { viewer, now }) };
  });

/** Takes a report away, or puts it back. Nothing goes out meanwhile, nor afterwards for what was missed. @throws Problem 403, 404 */
export const removeReport = (
  house: House,
  viewer: Viewer,
  { id, removed }: { readonly id: string; readonly removed: boolean },
): AnswerOf<'removeReport'> =>
  write(house, ({ tx, now }) => {
    refuseOthers(tx, foundReport(tx, viewer, id, true));
    tx.update(reports)
      .set({ removedAt: removed ? now : null, sentUntil: now })
      .where(eq(reports.id, id))
      .run();
    return { id };
  });

/** Keeps what a report told of some days: what is said of single requests beside, as it goes with them. Returns the id. */
export function keepCopy(
  { tx, now }: Work,
  { id: reportId, design }: KeptReport,
  days: Days,
  { parts, byId, sent }: { readonly parts: readonly KeptPart[]; readonly byId: string; readonly sent: number },
): string {
  const id = newId();
  const without = parts.map(
    (part): KeptPart =>
      part.is === 'table' ? { ...part, rows: part.rows.map((row) => ({ id: row.id, cells: [] })) } : part,
  );
  const row = { id, reportId, ...days, frozenAt: now, byId, report: design.draft, kept: without, sent };
  tx.insert(reportCopies).values(row).run();
  const rows = parts.flatMap((part, at) =>
    part.is === 'table'
      ? part.rows.map(({ id: requestId, cells }, place) => ({ copyId: id, part: at, place, requestId, cells }))
      : [],
  );
  for (const each of rows) tx.insert(reportCopyRows).values(each).run();
  return id;
}

/** Freezes a report as somebody reads it now. @throws Problem 404 */
export async function freezeReport(
  house: House,
  viewer: Viewer,
  { id, ...days }: Days & { readonly id: string },
  sentKey: string,
): Promise<AnswerOf<'freezeReport'>> {
  const report = foundReport(house.db, viewer, id);
  const parts = await apart(house, REPORT_KEPT, [viewer, report.design.draft, days]);
  return write(house, (work) =>
    once(
      work.tx,
      { key: sentKey, scope: `freeze ${viewer.personId}`, content: { id, ...days }, now: work.now },
      () => ({
        id: keepCopy(work, report, days, { parts, byId: viewer.personId, sent: 0 }),
      }),
    ),
  );
}

/** Takes a copy away, or puts it back: whoever froze it, or may change the report. @throws Problem 403, 404 */
export const removeCopy = (
  house: House,
  viewer: Viewer,
  { id, copy, removed }: { readonly id: string; readonly copy: string; readonly removed: boolean },
): AnswerOf<'removeReportCopy'> =>
  write(house, ({ tx, now }) => {
    const { report, found } = copyOf(tx, viewer, { id, copy }, true);
    if (found.byId !== viewer.personId) refuseOthers(tx, report);
    tx.update(reportCopies)
      .set({ removedAt: removed ? now : null })
      .where(eq(reportCopies.id, copy))
      .run();
    return { id: copy };
  });

/** What one record of a person owns and froze is the other’s, and what was for one is for the other. */
export function reportsAsOther(tx: Transaction, from: string, to: string, note: string, done: Done): void {
  tx.update(reports).set({ ownerId: to }).where(eq(reports.ownerId, from)).run();
  tx.update(reportCopies).set({ byId: to }).where(eq(reportCopies.byId, from)).run();
  const words = { [`@${from}`]: `@${to}` };
  const asOther = (audience: Audience): Audience => inPlace(audience, words);
  changeEach(
    tx,
    REPORT,
    (report): ReportDesign => ({
      ...report,
      audience: report.audience && asOther(report.audience),
      sends: report.sends.map((send) => ({ ...send, to: asOther(send.to) })),
    }),
    note,
    done,
  );
}

/** The reports of somebody that others find too are whose takes over; nobody’s are theirs alone. */
export function handOnReports(tx: Transaction, from: string, to: string): void {
  for (const { id, ownerId, design } of allReports(tx))
    if (ownerId === from && (design.draft.audience !== null || design.draft.sends.length > 0))
      tx.update(reports).set({ ownerId: to }).where(eq(reports.id, id)).run();
}
