import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { type Days, REPORT, type ReportDesign } from '@tolvek/core/report';
import { personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { gathered } from './gather.ts';
import { aroundReport, copyOf, keptIn } from './queries.ts';
import { readingOf } from './reading.ts';
import { toldTo } from './tell.ts';

/** What somebody reads in a report of some days, as things stand now. */
export function lookAtReport(
  db: Reader,
  now: number,
  viewer: Viewer,
  { report, from, to }: BodyOf<'lookAtReport'>,
): AnswerOf<'lookAtReport'> {
  const reading = readingOf(db, viewer, now);
  const parts = gathered(reading, report, { from, to });
  return {
    parts: [...toldTo({ ...reading, isOwn: true }, parts)],
    findings: REPORT.findings(report, aroundReport(reading)).map(({ at, message }) => ({ at, message })),
  };
}

/** Everything that is kept of a report of some days. */
export const keptNow = (db: Reader, now: number, viewer: Viewer, report: ReportDesign, days: Days) =>
  gathered(readingOf(db, viewer, now), report, days);

/** Everything that is kept of a report that goes out, and what the email to each of its readers tells of it. */
export function sentNow(
  db: Reader,
  now: number,
  viewer: Viewer,
  report: ReportDesign,
  days: Days,
  readers: readonly Viewer[],
) {
  const parts = keptNow(db, now, viewer, report, days);
  // A table, and what goes by something, is read on the page.
  const told = parts.filter(({ is }) => is === 'figures' || is === 'times');
  return {
    parts,
    letters: readers.map((reader) => letterOf(toldTo({ ...readingOf(db, reader, now), isOwn: false }, told), reader)),
  };
}

function letterOf(parts: ReturnType<typeof toldTo>, { personId }: Viewer) {
  const times = parts.find((part) => part.is === 'times');
  const all = times?.is === 'times' ? times.all : null;
  return {
    personId,
    facts: parts.flatMap((part) =>
      part.is === 'figures' ? part.figures.map(({ label, said: shown }) => ({ label, shown })) : [],
    ),
    times: all && { came: all.came, went: all.went, open: all.open, late: all.late },
  };
}

/** A frozen copy, as far as somebody may read it now. @throws Problem 404 */
export function lookAtCopy(
  db: Reader,
  now: number,
  viewer: Viewer,
  of: { readonly id: string; readonly copy: string },
): AnswerOf<'reportCopy'> {
  const { found } = copyOf(db, viewer, of);
  const { report, from, to, frozenAt, byId } = found;
  return {
    ...{ name: report.name, over: report.over, from, to, frozenAt: iso(frozenAt), by: personNamed(db, byId) },
    parts: [...toldTo({ ...readingOf(db, viewer, now), isOwn: false }, keptIn(db, found))],
  };
}
