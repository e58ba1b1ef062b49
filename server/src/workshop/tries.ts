import type { AnswerOf, BodyOf } from '@tolvek/contract';
import {
  checkExpression,
  compile,
  explain,
  type Node,
  namesRead,
  parseExpression,
  type Scope,
  type Ternary,
} from '@tolvek/core/expression';
import { factsAt } from '@tolvek/core/intake';
import type { Viewer } from '@tolvek/core/people';
import { type Field, requestScope, requestSlots } from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';
import { and, count, desc, eq, type SQL, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { doors } from '../door/tables.ts';
import { formNamed } from '../form/queries.ts';
import { knownNames, knownOf } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import { registerById } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { splitCondition } from '../request/conditionSql.ts';
import { countedIn, stretchesOf } from '../request/eachRequest.ts';
import { openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';

/** How many of the last requests a condition is tried on. */
const TRIED = 200;

/**
 * Tries a condition of a draft on the register’s last requests that may be looked at, each on
 * the day it arrived. A condition on a field the viewer may not read is refused in the words for a
 * field that does not exist: the count alone would tell what is in it.
 */
export function tryCondition(
  db: Reader,
  viewer: Viewer,
  formKey: string,
  input: BodyOf<'tryCondition'>,
): AnswerOf<'tryCondition'> {
  const form = formNamed(db, formKey);
  const register = registerById(db, form.registerId);
  const { fields, deadline } = form.draft;
  const vocabularies = vocabulariesFor(db, fields);
  const parsed = parseExpression(input.condition);
  const asked = askableOf(db, viewer, register, parsed.ok ? namesRead([parsed.value]) : []);
  const visible = requestScope(
    fields.filter((field) => !asked.unknown.includes(field.key)),
    { vocabularies, profile: profileDesignOf(db).fields },
  );
  const findings = parsed.ok ? checkExpression(parsed.value, visible, 'yes-no') : parsed.findings;
  if (!parsed.ok || findings.length > 0) return refused(findings[0]?.message ?? said('workshopErrors:cannotBeRead'));
  if (asked.unknown.length > 0) return refused(said('workshopErrors:readsLostField'));

  const found = db
    .select({ request: SHOWN_COLUMNS, kind: people.kind, door: doors.kind })
    .from(requests)
    .leftJoin(people, eq(people.id, requests.requesterId))
    .leftJoin(doors, eq(doors.id, requests.doorId))
    .where(and(eq(requests.registerId, register.id), eq(requests.trial, false), asked.where))
    .orderBy(desc(requests.createdAt))
    .limit(TRIED)
    .all()
    .map((row) => {
      return { ...row, open: openRequest(db, row.request, viewer, 'counting', { register }) };
    });
  const working = calendarOf(db, deadline.calendar);
  const scope = requestScope(fields, { ...knownNames(db), vocabularies });
  const holds = compile(parsed.value, scope);
  const askers = new Map<string, ReturnType<typeof knownOf>>();
  const whoAsked = (id: string): ReturnType<typeof knownOf> => {
    const known = askers.get(id) ?? knownOf(db, id);
    askers.set(id, known);
    return known;
  };
  const tried = found.map(({ request, kind, door, open }) => {
    const facts = factsAt(
      request.createdAt,
      working,
      door ?? 'staff',
      request.requesterId === null || kind === null
        ? null
        : { id: request.requesterId, kind, ...whoAsked(request.requesterId) },
      { people: [], vocabularies },
    );
    const slots = requestSlots(fields, request.values, facts);
    const value = holds(slots, null);
    const result: Ternary = typeof value === 'boolean' ? value : null;
    return { request, slots, result, open };
  });
  const chosen = tried.find(({ request }) => request.number === input.number) ?? tried[0];
  return {
    refused: null,
    holds: tried.filter((each) => each.result === true).length,
    fails: tried.filter((each) => each.result === false).length,
    unsaid: tried.filter((each) => each.result === null).length,
    ever: ever(db, and(countedIn(register.id, 'all'), asked.where), parsed.value, fields, scope),
    tried: tried.slice(0, 30).map(({ request, result, open }) => ({
      number: request.number,
      subject: open.subject,
      result,
    })),
    explained: chosen
      ? {
          number: chosen.request.number,
          reason: chosen.open.reading.reason(explain(parsed.value, scope, chosen.slots)),
        }
      : null,
  };
}

const refused = (why: Words): AnswerOf<'tryCondition'> => ({
  refused: why,
  holds: 0,
  fails: 0,
  unsaid: 0,
  ever: null,
  tried: [],
  explained: null,
});

/**
 * How many of all requests that may be looked at a condition holds for, counted by the database;
 * null when it can’t decide the condition.
 */
function ever(
  db: Reader,
  among: SQL | undefined,
  condition: Node,
  fields: readonly Field[],
  scope: Scope,
): AnswerOf<'tryCondition'>['ever'] {
  const { where, rest } = splitCondition(condition, fields, scope, {
    requesterIsOutside: sql`(${people.kind} is not 'staff')`,
    door: sql`coalesce(${doors.kind}, 'staff')`,
  });
  if (rest) return null;
  const counted = (which: SQL | undefined): number =>
    db
      .select({ n: count() })
      .from(requests)
      .leftJoin(people, eq(people.id, requests.requesterId))
      .leftJoin(doors, eq(doors.id, requests.doorId))
      .where(which)
      .get()?.n ?? 0;
  const found = { holds: 0, of: 0 };
  for (const stretch of stretchesOf(db, among)) {
    found.holds += counted(and(stretch, where));
    found.of += counted(stretch);
  }
  return found;
}
