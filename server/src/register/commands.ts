import type { AccessPlan, AccessRule } from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import { REGISTER, type RegisterContent } from '@tolvek/core/form';
import { inPlace, profileConditionsIn } from '@tolvek/core/people';
import { changeAtOnce, type Done, keepDraft, makeInForce } from '../design/commands.ts';
import { designByKey, stateOf } from '../design/queries.ts';
import { nameConditions } from '../people/conditions.ts';
import type { Transaction } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { allRegisters, type RegisterRow } from './queries.ts';
import { registers } from './tables.ts';

/** The conditions on profiles that a plan names. */
export const conditionsOf = ({ rules, resting = [], readers = [] }: AccessPlan): readonly string[] =>
  [...rules, ...resting, ...readers].flatMap(({ audience }) => profileConditionsIn(audience));

/** Makes a register that is in force at once. Returns its id. */
export function makeRegister(tx: Transaction, key: string, content: RegisterContent, done: Done): string {
  const id = makeInForce(tx, REGISTER, { key, content, note: '' }, done);
  tx.insert(registers).values({ id }).run();
  nameConditions(tx, { register: key, isDraft: false }, conditionsOf(content.access));
  return id;
}

/**
 * Changes some settings of a register, in force at once under its next number. `note`: why. What is
 * being settled in its draft meanwhile stays there: where both say something, the draft keeps its own.
 *
 * @throws Problem 422 when the register could not hold requests any more.
 */
export function changeRegister(
  tx: Transaction,
  { key }: Pick<RegisterRow, 'key'>,
  change: Partial<RegisterContent>,
  note: string,
  done: Done,
): void {
  const design = designByKey(tx, REGISTER, key);
  if (!design) throw notFound('register');
  const before = stateOf<RegisterContent>(tx, design, design.number)?.content ?? design.draft;
  const content: RegisterContent = { ...before, ...change };
  const draft = REGISTER.merge(before, design.draft, content).content;
  const found = REGISTER.findings(content, null);
  const version = changeAtOnce(tx, design, { version: design.version, content, note, found }, done);
  nameConditions(tx, { register: key, isDraft: false }, conditionsOf(content.access));
  if (!isSame(draft, content)) keepDraft(tx, { ...design, draft: content, version }, { version, content: draft }, done);
}

/** Puts other words in the place of some, whom the rules of access plans are for: in force and as they are being written. */
export function renameInPlans(
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void {
  const renamed = <Rule extends Pick<AccessRule, 'audience'>>(rules: readonly Rule[]): readonly Rule[] =>
    rules.map((rule) => ({ ...rule, audience: inPlace(rule.audience, words) }));
  const planOf = (access: AccessPlan): AccessPlan => ({
    ...access,
    rules: renamed(access.rules),
    ...(access.resting ? { resting: renamed(access.resting) } : {}),
    ...(access.readers ? { readers: renamed(access.readers) } : {}),
  });
  for (const register of allRegisters(tx)) {
    const access = planOf(register.access);
    if (!isSame(access, register.access)) changeRegister(tx, register, { access }, note, done);
    const design = designByKey<RegisterContent>(tx, REGISTER, register.key);
    const draft = design && { ...design.draft, access: planOf(design.draft.access) };
    if (draft && !isSame(draft, design.draft)) keepDraft(tx, design, { version: design.version, content: draft }, done);
  }
}
