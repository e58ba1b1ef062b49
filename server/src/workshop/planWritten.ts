import { type AccessPlan, type PlanRules, placedByName, rulesOf } from '@tolvek/core/access';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { designOf } from './registerDraft.ts';

/** What would be in force: the rules as they are written, and what was allowed as it is. */
export function asWritten(
  { access: { noted: _, base: __, readers: ___, placed: stand, ...access } }: RegisterRow,
  { rules, placed = stand, readers = [], ...rest }: PlanRules,
): AccessPlan {
  const plan = {
    ...{ ...access, ...rest },
    ...(readers.length > 0 ? { readers: readers.map((each) => ({ ...each, name: each.name.trim() })) } : {}),
    rules: rules.map((rule) => ({ ...rule, name: rule.name.trim() })),
  };
  return placed ? placedByName({ ...plan, placed }) : plan;
}

/** The plan of a register as it is being written. */
export const planWritten = (db: Reader, register: RegisterRow): AccessPlan =>
  asWritten(register, rulesOf(designOf(db, register.key).draft.access));
