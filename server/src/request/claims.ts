import { openFields, type Protection } from '@tolvek/core/access';
import { claimOf, type FormDesign, partName, type UniqueRule } from '@tolvek/core/form';
import { isSame } from '@tolvek/core/own';
import type { Problem, Values } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { and, eq, ne, notInArray, sql } from 'drizzle-orm';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { settings } from '../platform/tables.ts';
import { allRegisters, type RegisterRow } from '../register/queries.ts';
import { countedIn, eachRequest } from './eachRequest.ts';
import type { ShownRow } from './queries.ts';
import { claims, requests } from './tables.ts';

/** What no two requests of a register may have: uniqueness protects, so it is of the rules in force. */
type Claiming = Pick<RegisterRow, 'id' | 'unique' | 'fields'>;

const holding = prepared((db) =>
  db
    .select({ number: requests.number, requesterId: requests.requesterId })
    .from(claims)
    .innerJoin(requests, eq(requests.id, claims.requestId))
    .where(
      and(
        eq(claims.registerId, sql.placeholder('register')),
        eq(claims.ruleId, sql.placeholder('rule')),
        eq(claims.value, sql.placeholder('value')),
        ne(claims.requestId, sql.placeholder('but')),
      ),
    )
    .prepare(),
);

/** Who holds an answer already, when somebody else’s request does. */
function holderOf(db: Reader, register: string, rule: UniqueRule, value: string, but: string | null) {
  return holding(db).get({ register, rule: rule.id, value, but: but ?? '' });
}

interface Holding {
  readonly number: string;
  readonly requesterId: string | null;
}

/** Who would hold the answers of a rule, as they are compared. */
export type Beside = (rule: string, value: string) => Holding | undefined;

interface Looking {
  readonly register: Claiming;
  /** The form that is filled in, where one is: its questions are named as it asks them. */
  readonly design?: Pick<FormDesign, 'fields' | 'parts'>;
  readonly protection: Protection;
  readonly values: Values;
  /** Who asks: their own request may be named to them. */
  readonly asker: string | null;
  /** What else is held, beside what is stored: by rows that would come in before. */
  readonly beside?: Beside;
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
  { register, design, protection, values, asker, beside, but }: Looking,
): readonly Problem[] {
  const open = new Set(openFields(protection, ['working']).map((field) => field.key));
  const named = design ?? { fields: register.fields, parts: [] };
  return register.unique.flatMap((rule): Problem[] => {
    if (!rule.fields.every((key) => open.has(key))) return [];
    if (rule.among === 'unfinished' && but?.phase === 'finished') return [];
    const value = claimOf(rule, register.fields, values);
    const holder =
      value === null
        ? undefined
        : (beside?.(rule.id, value) ?? holderOf(db, register.id, rule, value, but?.id ?? null));
    if (!holder) return [];
    const field = rule.fields[0] ?? 'form';
    const fields = rule.fields.map((key) => partName(named, key));
    if (asker !== null && holder.requesterId === asker)
      return [
        {
          field,
          message: said('answers:takenByYou', { number: holder.number, fields }),
          fix: said('answers:openOrChange', { number: holder.number, fields }),
        },
      ];
    return [
      {
        field,
        message: said(rule.fields.length > 1 ? 'answers:takenTogether' : 'answers:taken', { fields }),
        fix: said('answers:chooseAnotherOf', { fields }),
      },
    ];
  });
}

/** What a request holds by the rules of its register, or would. */
export const claimed = (
  { unique, fields }: Claiming,
  { phase }: Pick<ShownRow, 'phase'>,
  values: Values,
): readonly { readonly ruleId: string; readonly value: string }[] =>
  unique.flatMap((rule) => {
    const value = claimOf(rule, fields, values);
    return value === null || (rule.among === 'unfinished' && phase === 'finished') ? [] : [{ ruleId: rule.id, value }];
  });

const addClaim = adding(claims);
const freeing = prepared((db) =>
  db
    .delete(claims)
    .where(eq(claims.requestId, sql.placeholder('request')))
    .prepare(),
);

/** Stores what a request holds, in place of what it held. */
export function claim(
  tx: Transaction,
  request: Pick<ShownRow, 'id' | 'phase'>,
  register: Claiming,
  values: Values,
): void {
  freeing(tx).run({ request: request.id });
  const rows = claimed(register, request, values).map((each) => ({
    ...each,
    registerId: register.id,
    requestId: request.id,
  }));
  for (const row of rows) addClaim(tx, row);
}

/**
 * Claims anew for all requests of a register, after its rules changed. `before`: the rules they claim by; by those
 * that are the same they go on claiming.
 */
export function claimAnew(tx: Transaction, register: Claiming, before: readonly UniqueRule[] = []): void {
  const unique = register.unique.filter((rule) => !before.some((was) => isSame(was, rule)));
  const same = register.unique.filter((rule) => !unique.includes(rule)).map(({ id }) => id);
  tx.delete(claims)
    .where(and(eq(claims.registerId, register.id), notInArray(claims.ruleId, same)))
    .run();
  if (unique.length === 0) return;
  for (const { id: requestId, ...row } of eachRequest(tx, countedIn(register.id, 'all')))
    for (const each of claimed({ ...register, unique }, row, row.values))
      addClaim(tx, { ...each, registerId: register.id, requestId });
}

/** Written down once all requests hold what they have, doubles too. */
const DONE = 'claims-of-all';

/**
 * Claims anew for all registers, once: before, where several requests had the same, only one of
 * them held it.
 */
export function claimOnce(tx: Transaction): void {
  if (tx.select().from(settings).where(eq(settings.key, DONE)).get()) return;
  for (const register of allRegisters(tx)) claimAnew(tx, register);
  tx.insert(settings).values({ key: DONE, value: 'yes' }).run();
}
