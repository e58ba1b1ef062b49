import type { AnswerOf } from '@tolvek/contract';
import { calendarFor, dueOf, prepareCourse, type Running, ruleOf } from '@tolvek/core/deadline';
import { isSame } from '@tolvek/core/design';
import type { Viewer } from '@tolvek/core/people';
import { requestScope } from '@tolvek/core/register';
import { and, count, eq } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { type Planning, plannedAnew } from '../deadline/follow.ts';
import { deadlinesOf } from '../deadline/queries.ts';
import { ringAtOnce } from '../deadline/timers.ts';
import { currentRelease, type FormRow, formByKey, formNamed, releaseById, releaseInForce } from '../form/queries.ts';
import { viewerOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { addJob, type Doing } from '../platform/longJobs.ts';
import { inGroups, inTurns } from '../platform/turns.ts';
import { by, type Work } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { openRequest } from '../request/open.ts';
import { requestById, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

/** Requests that are listed one by one; all of them are counted. */
const LISTED = 20;

const openOf = (form: FormRow) => and(countedIn(form.registerId, 'unfinished'), eq(requests.formId, form.id));

/** What other deadlines would change of a request: what it would be due by next, and what would ring at once. */
interface Replanned {
  readonly to: number | null;
  readonly changes: boolean;
  readonly rings: number;
}

function looked(db: Reader, request: ShownRow, planning: Planning, now: number): Replanned {
  const rows = deadlinesOf(db, request.id);
  const is = plannedAnew(db, request, planning, now);
  const wasThere = new Map(rows.map((row) => [row.key, row]));
  const changes =
    rows.some(({ key }) => !is.has(key)) ||
    [...is].some(([key, { deadline, state }]) => {
      const row = wasThere.get(key);
      return row?.due !== deadline.due || row.state !== state;
    });
  const rings = [...is].reduce((sum, [key, running]) => {
    const rule = ruleOf(planning.plan, key);
    if (!rule || running.state !== 'open') return sum;
    const owner = { id: wasThere.get(key)?.id ?? '', requestId: request.id };
    const calendar = calendarOf(db, calendarFor(planning.plan, rule));
    return sum + ringAtOnce(db, owner, running.deadline, { rule, calendar, now });
  }, 0);
  return { to: dueOf(is as ReadonlyMap<string, Running>), changes, rings };
}

/** What the deadlines of a draft would change of the open requests that came by the form. Keeps nothing. */
export async function replanning({ db, clock }: House, viewer: Viewer, key: string): Promise<AnswerOf<'replanning'>> {
  const form = formNamed(db, key);
  const now = clock.now();
  const before = currentRelease(db, form)?.design.deadline;
  const { draft } = form;
  const found: AnswerOf<'replanning'> = { differs: false, looked: 0, changed: 0, late: 0, held: 0, requests: [] };
  if (!before || isSame(before, draft.deadline)) return found;
  const planning: Planning = {
    ...{ plan: draft.deadline, fields: draft.fields },
    course: prepareCourse(draft.deadline, requestScope(draft.fields)),
  };
  const counted = { looked: 0, changed: 0, late: 0, held: 0 };
  for await (const request of inTurns(eachRequest(db, openOf(form)))) {
    counted.looked += 1;
    const { to, changes, rings } = looked(db, request, planning, now);
    counted.held += rings;
    if (!changes) continue;
    counted.changed += 1;
    if (to !== null && to < now && (request.due ?? now) >= now) counted.late += 1;
    if (found.requests.length >= LISTED) continue;
    const { subject } = openRequest(db, request, viewer, 'counting');
    const from = request.due === null ? null : iso(request.due);
    found.requests.push({ number: request.number, subject, from, to: to === null ? null : iso(to) });
  }
  return { ...found, ...counted, differs: true };
}

/** Gives the open requests of a form the deadlines of its release in force, as a job. Returns its id. */
export function replanLater({ tx, now }: Work, form: FormRow, viewer: Viewer): string {
  const [counted] = tx.select({ n: count() }).from(requests).where(openOf(form)).all();
  const about = { form: form.key, release: releaseInForce(tx, form.id)?.id ?? '' };
  return addJob(tx, { kind: 'replan', about, by: viewer.personId, of: counted?.n ?? 0, now });
}

/** What it has come to: how many requests have other deadlines now. */
export interface Planned {
  readonly changed: number;
}

/**
 * Gives the open requests of a form the deadlines of a release, a few at a time. Those that have them already, or came by
 * it, are passed over.
 */
export async function replanAll(house: House, doing: Doing<{ form: string; release: string }>): Promise<void> {
  const { db } = house;
  const form = formByKey(db, doing.about.form);
  const viewer = viewerOf(db, doing.by);
  if (!form || !viewer) return;
  const { release } = releaseById(db, doing.about.release);
  let total = (doing.before as Planned | null)?.changed ?? 0;
  for await (const group of inGroups(eachRequest(db, openOf(form)))) {
    let changed = 0;
    await doing.step(group.length, (work) => {
      changed = 0;
      for (const { id } of group) {
        const request = requestById(work.tx, id);
        if (!request || request.phase === 'finished' || (request.plannedBy ?? request.releaseId) === release.id)
          continue;
        const change = { kind: 'replanned', release: release.number, by: release.id } as const;
        changeRequest(by(work, viewer.personId), request, change);
        changed += 1;
      }
      return { changed: total + changed } satisfies Planned;
    });
    total += changed;
  }
}
