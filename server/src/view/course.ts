import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { calendarOf } from '../calendar/queries.ts';
import { type DeadlineRow, deadlinesOf } from '../deadline/queries.ts';
import { planningOf } from '../form/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { stageOf } from '../register/queries.ts';
import { historyOfRequest } from '../request/history.ts';
import { type OpenRequest, openAtDesk } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { stagesReached } from '../request/stagesReached.ts';
import { sheetOf } from './sheet.ts';

type Course = AnswerOf<'requestCourse'>;
type Sheet = AnswerOf<'sheet'>;
type History = ReturnType<typeof historyOfRequest>;

/**
 * The life of a request as somebody of its desk may know it: what its sheet tells them, each with its moments.
 *
 * @throws Problem 404 for whoever does not work on it.
 */
export function courseView(db: Reader, viewer: Viewer, number: string, now: number): Course {
  const open = openAtDesk(db, viewer, number, 'sheet');
  const { request } = open;
  const sheet = sheetOf(db, viewer, number, now);
  const deadlines = deadlinesDrawn(sheet, deadlinesOf(db, request.id), now);
  const happened = historyOfRequest(db, request.id);
  const steps = stepsDrawn(sheet, decidedLast(happened));
  const stages = open.may('history') ? stagesDrawn(open, happened) : stagesKnown(open);
  const end = request.finishedAt ?? now;
  // What is over is drawn to its end; what is open, to what is still to come.
  const moments = [
    ...[end, ...stages.map(({ at }) => Date.parse(at))],
    ...deadlines.flatMap(({ ended, due, rings }) =>
      (ended === null ? [due, ...rings.map(({ at }) => at)] : [ended]).map((at) => Date.parse(at)),
    ),
    ...steps.flatMap(({ until, ended }) => (ended === null && until !== null ? [Date.parse(until)] : [])),
  ];
  return {
    calendar: calendarOf(db, planningOf(db, request).release.design.deadline.calendar),
    ...{ now: iso(now), from: iso(request.createdAt), to: iso(Math.max(...moments)) },
    ...{ stages, steps, deadlines },
  };
}

/** The stages a request came to, in their order, from the one it arrived in. */
const stagesDrawn = ({ request, register }: OpenRequest<RequestRow>, happened: History): Course['stages'] =>
  stagesReached(request, register, happened).map(({ at, stage }) => ({
    ...{ label: stageOf(register, stage).label, at: iso(at) },
  }));

/** For who may not see what happened: where it is now, since it arrived. */
const stagesKnown = ({ request, register }: OpenRequest<RequestRow>): Course['stages'] => [
  { label: stageOf(register, request.stage).label, at: iso(request.createdAt) },
];

/** The steps of its decision. One that somebody decided was over with the last verdict; one that silence decided, with its time. */
function stepsDrawn({ approval }: Sheet, decidedAt: string | null): Course['steps'] {
  const steps = approval?.steps ?? [];
  return steps.map(({ label, needed, since, until, silently, seats }, index) => {
    const after = steps[index + 1]?.since ?? (approval?.state === 'waiting' ? null : decidedAt);
    const said = seats.flatMap(({ at }) => at ?? []).sort();
    const over = silently === null ? (said.at(-1) ?? after) : (until ?? after);
    const ended = since === null || after === null ? null : over;
    return { label, needed, of: seats.length, since, until, ended };
  });
}

/** When a decision was made last; null where none was. */
function decidedLast(happened: History): string | null {
  const last = happened.findLast(({ data }) => data?.kind === 'decided');
  return last ? iso(last.at) : null;
}

function deadlinesDrawn(sheet: Sheet, rows: readonly DeadlineRow[], now: number): Course['deadlines'] {
  const byKey = new Map(rows.map((row) => [row.key, row]));
  return sheet.deadlines.flatMap(({ key, name, due, rings }) => {
    const row = byKey.get(key);
    if (!row) return [];
    return [
      {
        ...{ key, name, due, rings, from: iso(row.start), ended: row.endedAt === null ? null : iso(row.endedAt) },
        late: (row.endedAt ?? now) > row.due,
        still: row.pauses.map(({ from, to }) => ({ from: iso(from), to: to === null ? null : iso(to) })),
      },
    ];
  });
}
