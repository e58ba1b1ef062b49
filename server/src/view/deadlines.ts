import type { AnswerOf } from '@tolvek/contract';
import { pathName } from '@tolvek/core/approval';
import {
  calendarFor,
  type Deadline,
  type DeadlineRule,
  deadlineName,
  doesInWords,
  FINISH,
  fuseAt,
  isClosedDay,
  lengthInWords,
  lengthOf,
  type RingNames,
  ruleOf,
  type WorkingCalendar,
} from '@tolvek/core/deadline';
import { partName, sinksOf } from '@tolvek/core/form';
import { type Said, said, type Words } from '@tolvek/words';
import { calendarOf } from '../calendar/queries.ts';
import { ruleFor } from '../deadline/follow.ts';
import { deadlineIn, deadlinesOf } from '../deadline/queries.ts';
import { waitingOf } from '../deadline/timers.ts';
import { planningOf } from '../form/queries.ts';
import { personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { stageOf } from '../register/queries.ts';
import type { OpenRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { rosterNamed } from '../roster/queries.ts';
import type { RoutingTold } from './routing.ts';

type Told = AnswerOf<'sheet'>['deadlines'][number];

/** Whether somebody may know of a deadline: where it hangs on answers, it tells of them. */
export const mayKnowDeadline = (db: Reader, { request, fields, reading }: OpenRequest, rule: DeadlineRule): boolean => {
  const plan = planningOf(db, request).release.design.deadline;
  return sinksOf({ fields, deadline: { ...plan, deadlines: [ruleFor(db, request, rule).rule] } })
    .filter(({ kind }) => kind === 'deadline')
    .every((sink) => reading.mayHear(sink));
};

/** When a request is to be finished, for somebody who may know it; epoch ms. */
export function finishTold(db: Reader, open: OpenRequest): number | null {
  const finish = deadlinesOf(db, open.request.id).find(({ key }) => key === FINISH);
  const rule = ruleOf(planningOf(db, open.request).release.design.deadline, FINISH);
  return finish && (!rule || mayKnowDeadline(db, open, rule)) ? finish.due : null;
}

/** How the plan of a request names things, as they are called now. */
function namesFor(db: Reader, { request, register }: OpenRequest, groups: ReadonlyMap<string, string>): RingNames {
  const { design } = planningOf(db, request).release;
  return {
    group: (key) => groups.get(key) ?? key,
    person: (id) => personNamed(db, id),
    stage: (key) => stageOf(register, key).label,
    path: (id) => {
      const path = design.approval.paths.find((each) => each.id === id);
      return path ? pathName(path) : id;
    },
    field: (key) => partName(design, key),
    roster: (key) => rosterNamed(db, key),
  };
}

/**
 * All that a request is due by: how far each is, how its moment was reckoned, and what will ring for it. What is open comes
 * first, the nearest first. `routed`: null where its row may not be told.
 */
export function deadlinesView(
  db: Reader,
  open: OpenRequest<RequestRow>,
  about: { readonly routed: RoutingTold | null; readonly groups: ReadonlyMap<string, string>; readonly now: number },
): Told[] {
  const { request } = open;
  const plan = planningOf(db, request).release.design.deadline;
  const waiting = waitingOf(db, request.id);
  const names = namesFor(db, open, about.groups);
  const told = deadlinesOf(db, request.id).flatMap((row): (Told & { readonly at: number })[] => {
    const rule = ruleOf(plan, row.key);
    if (!rule || !mayKnowDeadline(db, open, rule)) return [];
    const calendar = calendarOf(db, calendarFor(plan, rule));
    const deadline = deadlineIn(row);
    const ended = row.state === 'open' ? null : (row.endedAt ?? request.finishedAt);
    const rings = waiting
      .filter(({ deadlineId }) => deadlineId === row.id)
      .flatMap(({ ring, at }) => ringTold(rule, ring, names).map((what) => ({ at: iso(at), what })));
    return [
      {
        ...{ key: row.key, name: deadlineName(rule), due: iso(row.due), state: row.state, at: row.due, rings },
        fuse: fuseAt(deadline, rule, calendar, about.now, ended),
        why: whyDue(deadline, ruleFor(db, request, rule), { ...about, calendar, names }),
      },
    ];
  });
  const isOpen = ({ state }: Told): number => Number(state !== 'open');
  return told.sort((a, b) => isOpen(a) - isOpen(b) || a.at - b.at).map(({ at: _, ...each }) => each);
}

/** What a ring of a deadline does, in words; nothing where its plan does not know it. */
function ringTold(rule: DeadlineRule, key: string, names: RingNames): readonly Said[] {
  const ring = rule.rings.find((each) => each.key === key);
  return ring ? [said('sheet:ringDoes', { all: [...doesInWords(ring, names)] })] : [];
}

/** What the deadlines of a request will have told, to whom and when, while nobody does anything; in its order. */
export function deadlinesComing(
  db: Reader,
  open: OpenRequest<RequestRow>,
  groups: ReadonlyMap<string, string>,
): readonly { readonly at: number; readonly about: Words; readonly what: Words }[] {
  const plan = planningOf(db, open.request).release.design.deadline;
  const names = namesFor(db, open, groups);
  const keys = new Map(deadlinesOf(db, open.request.id).map(({ id, key }) => [id, key]));
  return waitingOf(db, open.request.id).flatMap(({ deadlineId, ring, at }) => {
    const rule = ruleOf(plan, keys.get(deadlineId ?? '') ?? FINISH);
    if (!rule || !mayKnowDeadline(db, open, rule)) return [];
    return ringTold(rule, ring, names).map((what) => ({ at, about: deadlineName(rule), what }));
  });
}

interface Reckoned {
  readonly routed: RoutingTold | null;
  readonly calendar: WorkingCalendar;
  readonly names: RingNames;
}

/** How the moment of a deadline was reckoned, in sentences. */
function whyDue(
  deadline: Deadline,
  { rule, byRow }: ReturnType<typeof ruleFor>,
  { routed, calendar, names }: Reckoned,
): Said[] {
  const holidays = calendar.holidays.filter(
    (holiday) =>
      isClosedDay(holiday) &&
      holiday.date >= iso(deadline.start).slice(0, 10) &&
      holiday.date <= iso(deadline.due).slice(0, 10),
  );
  const count = deadline.workingDays;
  const isRouted =
    rule.length.by === 'routing' || (rule.key === FINISH && deadline.counted === 'days' && rule.length.by !== 'days');
  return [
    said(rule.begins.on === 'arrival' ? 'sheet:dueArrived' : 'sheet:dueBegan', { at: deadline.start }),
    !isRouted
      ? byRow && routed
        ? said('sheet:dueRowLength', {
            ...{ row: routed.by.deadlines ?? routed.row, length: lengthInWords(rule, names.field) },
          })
        : said('sheet:dueLength', { length: lengthInWords(rule, names.field) })
      : routed
        ? said('sheet:dueRow', { row: routed.by.workingDays ?? routed.row, count })
        : said('sheet:dueTable', { count }),
    ...(deadline.counted === 'date'
      ? []
      : [said('sheet:dueCalendar', { calendar: calendar.name, length: lengthOf(deadline.allowance, calendar) })]),
    ...(deadline.counted === 'date'
      ? []
      : holidays.map(({ name, date: day }) => said('sheet:dueHoliday', { name, day }))),
    ...deadline.pauses.map(({ from, to }) =>
      to === null ? said('sheet:duePaused', { from }) : said('sheet:duePausedTo', { from, to }),
    ),
    said('sheet:dueIs', { at: deadline.due }),
  ];
}
