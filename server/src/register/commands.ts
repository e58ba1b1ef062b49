import { REGISTER, type RegisterContent } from '@tolvek/core/form';
import { changeAtOnce, type Done, makeInForce } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import type { Transaction } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import type { RegisterRow } from './queries.ts';
import { registers } from './tables.ts';

/** Makes a register that is in force at once. Returns its id. */
export function makeRegister(tx: Transaction, key: string, content: RegisterContent, done: Done): string {
  const id = makeInForce(tx, REGISTER, { key, content, note: '' }, done);
  tx.insert(registers).values({ id }).run();
  return id;
}

/**
 * Changes some settings of a register, in force at once under its next number. `note`: why.
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
  if (!design) throw notFound('This register');
  const content = { ...design.draft, ...change };
  changeAtOnce(tx, design, { version: design.version, content, note, found: REGISTER.findings(content, null) }, done);
}
