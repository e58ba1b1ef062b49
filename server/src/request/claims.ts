import { openFields, type Protection } from '@tolvek/core/access';
import { claimOf, type FormDesign, partName, type UniqueRule } from '@tolvek/core/form';
import type { Problem, Values } from '@tolvek/core/register';
import { and, eq, ne } from 'drizzle-orm';
import { allForms, currentRelease, releaseById, releaseInForce } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { settings } from '../platform/tables.ts';
import type { ShownRow } from './queries.ts';
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

/**
 * What no two requests of a form may have, by the release in force: uniqueness protects, so it is of
 * now, whichever release a request came by.
 */
export function claimingIn(db: Reader, { formId, releaseId }: { formId: string; releaseId: string }): Claiming {
  return (releaseInForce(db, formId) ?? releaseById(db, releaseId).release).design;
}

interface Looking {
  readonly formId: string;
  readonly design: Claiming;
  readonly protection: Protection;
  readonly values: Values;
  /** Who asks: their own request may be named to them. */
  readonly asker: string | null;
  /** The request that is changed, whose own answers are no hindrance. */
  readonly but?: Pick<ShownRow, 'id' | 'phase'>;
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
    if (rule.among === 'unfinished' && but?.phase === 'finished') return [];
    const value = claimOf(rule, design.fields, values);
    const holder = value === null ? undefined : holderOf(db, formId, rule, value, but?.id ?? null);
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

/** Stores what a request holds, in place of what it held. */
export function claim(
  tx: Transaction,
  request: Pick<ShownRow, 'id' | 'formId' | 'phase'>,
  design: Claiming,
  values: Values,
): void {
  tx.delete(claims).where(eq(claims.requestId, request.id)).run();
  const rows = design.unique.flatMap((rule) => {
    const value = claimOf(rule, design.fields, values);
    if (value === null || (rule.among === 'unfinished' && request.phase === 'finished')) return [];
    return [{ formId: request.formId, ruleId: rule.id, value, requestId: request.id }];
  });
  if (rows.length > 0) tx.insert(claims).values(rows).run();
}

/** Claims anew for all requests of a form, after its rules changed. */
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

/** Written down once all requests hold what they have, doubles too. */
const DONE = 'claims-of-all';

/**
 * Claims anew for all forms, once: before, where several requests had the same, only one of them
 * held it.
 */
export function claimOnce(tx: Transaction): void {
  if (tx.select().from(settings).where(eq(settings.key, DONE)).get()) return;
  for (const form of allForms(tx)) {
    const release = currentRelease(tx, form);
    if (release) claimAnew(tx, form.id, release.design);
  }
  tx.insert(settings).values({ key: DONE, value: 'yes' }).run();
}
