import type { AnswerOf } from '@tolvek/contract';
import type { UniqueRule } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { and, asc, count, desc, eq, gt } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, registerNamed } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS } from '../request/queries.ts';
import { claims, requests } from '../request/tables.ts';

/** So many answers that stand twice are listed, and so many requests of each. */
const LISTED = 100;
const OF_EACH = 20;

/**
 * Requests that share what no two of them may have: they came before the rule, or were brought to it
 * by something that changed. Of a rule over fields that this viewer may not have looked through
 * nothing is said, not even whether there are any.
 */
export function doublesOf(db: Reader, viewer: Viewer, key: string): AnswerOf<'doubles'> {
  const register = registerNamed(db, key);
  return { rules: register.unique.map((rule) => doublesBy(db, viewer, register, rule)) };
}

function doublesBy(
  db: Reader,
  viewer: Viewer,
  register: RegisterRow,
  rule: UniqueRule,
): AnswerOf<'doubles'>['rules'][number] {
  const label = (field: string): string => register.fields.find((each) => each.key === field)?.label ?? field;
  const about = { fields: rule.fields.map(label), among: rule.among };
  const askable = askableOf(db, viewer, register, rule.fields);
  if (askable.unknown.length > 0) return { ...about, told: false, groups: 0, doubles: [] };
  const held = and(eq(claims.registerId, register.id), eq(claims.ruleId, rule.id), askable.where);
  const twice = db
    .select({ value: claims.value, n: count() })
    .from(claims)
    .innerJoin(requests, eq(requests.id, claims.requestId))
    .where(held)
    .groupBy(claims.value)
    .having(({ n }) => gt(n, 1))
    .orderBy(desc(count()), asc(claims.value))
    .all();
  const found = twice.slice(0, LISTED).map(({ value, n }) => {
    const rows = db
      .select(SHOWN_COLUMNS)
      .from(claims)
      .innerJoin(requests, eq(requests.id, claims.requestId))
      .where(and(held, eq(claims.value, value)))
      .orderBy(asc(requests.createdAt))
      .limit(OF_EACH)
      .all();
    const open = rows.map((row) => openRequest(db, row, viewer, 'counting', { register }));
    return { n, requests: open.map(({ request: { number }, subject }) => ({ number, subject })) };
  });
  return { ...about, told: true, groups: twice.length, doubles: found };
}
