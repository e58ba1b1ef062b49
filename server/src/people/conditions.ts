import { conditionFindings } from '@tolvek/core/expression';
import { type Audience, profileConditionsIn } from '@tolvek/core/people';
import { type Problem as FieldProblem, personScope } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { knownNames } from './queries.ts';
import { profileConditions } from './tables.ts';

/** Remembers the conditions on profiles that the access plan of a register names, in force or as it is being written. */
export function nameConditions(
  tx: Transaction,
  { register, isDraft }: Pick<typeof profileConditions.$inferSelect, 'register' | 'isDraft'>,
  conditions: readonly string[],
): void {
  tx.delete(profileConditions)
    .where(and(eq(profileConditions.register, register), eq(profileConditions.isDraft, isDraft)))
    .run();
  for (const condition of new Set(conditions))
    tx.insert(profileConditions).values({ register, isDraft, condition }).run();
}

/** What is wrong with the conditions of an audience: one that can’t be read, or asks what profiles do not have. */
export function wrongConditions(db: Reader, audience: Audience, field: string): readonly FieldProblem[] {
  const conditions = profileConditionsIn(audience);
  if (conditions.length === 0) return [];
  const scope = personScope(profileDesignOf(db).fields, knownNames(db));
  const [wrong] = conditions.flatMap((when) => conditionFindings(when, scope));
  return wrong
    ? [{ field, message: said('shared:unreadable', { message: wrong.message }), fix: said('ground:otherCondition') }]
    : [];
}
