import { openFields, type Protection } from '@tolvek/core/access';
import { claimOf, type FormDesign, partName, type UniqueRule } from '@tolvek/core/form';
import type { Problem, Values } from '@tolvek/core/register';
import { and, eq, ne } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { claims, requests } from './tables.ts';

type Claiming = Pick<FormDesign, 'unique' | 'fields' | 'parts'>;

/** Who holds an answer already, when somebody else’s request does. */
function holderOf(db: Reader, formId: string, rule: UniqueRule, value: string, but: string | null) {
  return db
    .select({ number: requests.number, requesterId: requests.requesterId })
    .from(claims)
    .innerJoin(requests, eq(requests.id, claims.requestId))
    .where(
      and(
        eq(claims.formId, formId),
        eq(claims.ruleId, rule.id),
        eq(claims.value, value),
        but === null ? undefined : ne(claims.requestId, but),
      ),
    )
    .get();
}

interface Looking {
  readonly formId: string;
  readonly design: Claiming;
  readonly protection: Protection;
  readonly values: Values;
  /** Who asks: their own request may be named to them. */
  readonly asker: string | null;
  /** The request that is changed, whose own answers are no hindrance. */
  readonly but?: string;
}

/**
 * Answers that another request has. Whose it is is told only to whoever asked it: for anybody else
 * they are taken, and no more is said. Of a field that the plan hides from anybody of the desk not
 * even that is said, so that such a rule refuses nothing.
 */
export function takenAnswers(
  db: Reader,
  { formId, design, protection, values, asker, but }: Looking,
): readonly Problem[] {
  const open = new Set(openFields(protection).map((field) => field.key));
  return design.unique.flatMap((rule): Problem[] => {
    if (!rule.fields.every((key) => open.has(key))) return [];
    const value = claimOf(rule, design.fields, values);
    const holder = value === null ? undefined : holderOf(db, formId, rule, value, but ?? null);
    if (!holder) return [];
    const field = rule.fields[0] ?? 'form';
    const names = rule.fields.map((key) => `“${partName(design, key)}”`).join(' and ');
    if (asker !== null && holder.requesterId === asker)
      return [
        {
          field,
          message: `You already asked with this: ${holder.number}.`,
          fix: `Open ${holder.number} among your requests, or change ${names}.`,
        },
      ];
    return [
      {
        field,
        message: rule.fields.length > 1 ? `${names} together are taken.` : 'This is taken.',
        fix: `Give another ${names}.`,
      },
    ];
  });
}

/**
 * Stores what a request holds, in place of what it held. The key of the table refuses what came a
 * moment too late.
 */
export function claim(
  tx: Transaction,
  request: { id: string; formId: string; phase: string },
  design: Claiming,
  values: Values,
): void {
  tx.delete(claims).where(eq(claims.requestId, request.id)).run();
  for (const rule of design.unique) {
    const value = claimOf(rule, design.fields, values);
    if (value === null || (rule.among === 'unfinished' && request.phase === 'finished')) continue;
    tx.insert(claims)
      .values({ formId: request.formId, ruleId: rule.id, value, requestId: request.id })
      .onConflictDoNothing()
      .run();
  }
}

/**
 * Claims anew for all requests of a form, after its rules changed: where several have the same
 * already, the oldest keeps it.
 */
export function claimAnew(tx: Transaction, formId: string, design: Claiming): void {
  tx.delete(claims).where(eq(claims.formId, formId)).run();
  if (design.unique.length === 0) return;
  const rows = tx
    .select({ id: requests.id, phase: requests.phase, values: requests.values })
    .from(requests)
    .where(and(eq(requests.formId, formId), eq(requests.trial, false)))
    .orderBy(requests.createdAt)
    .all();
  for (const row of rows) claim(tx, { ...row, formId }, design, row.values);
}
