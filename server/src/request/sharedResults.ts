import { deskRelation, prepareAccess, readerScope, SHARED_READER, type SharedResult } from '@tolvek/core/access';
import { type Node, namesIn, parseExpression } from '@tolvek/core/expression';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import { partsOf } from '@tolvek/core/register';
import { and, asc, eq, isNull, type SQL } from 'drizzle-orm';
import { currentRelease, formsOf } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { splitCondition } from './conditionSql.ts';
import { openAsReleased, protectionFor } from './protection.ts';
import { sharedResults } from './tables.ts';

export type SharedRow = typeof sharedResults.$inferSelect;

export const sharedById = (db: Reader, id: string): SharedRow | undefined =>
  db.select().from(sharedResults).where(eq(sharedResults.id, id)).get();

/** What is shared and was not ended, the oldest first. `by`: whose; everybody’s where it is not said. */
export const sharedNow = (db: Reader, by?: string): readonly SharedRow[] =>
  db
    .select()
    .from(sharedResults)
    .where(and(isNull(sharedResults.endedAt), by === undefined ? undefined : eq(sharedResults.by, by)))
    .orderBy(asc(sharedResults.at), asc(sharedResults.id))
    .all();

export const addShared = (tx: Transaction, row: SharedRow): void => void tx.insert(sharedResults).values(row).run();

export const changeSharedRow = (tx: Transaction, id: string, change: Partial<SharedRow>): void =>
  void tx.update(sharedResults).set(change).where(eq(sharedResults.id, id)).run();

/** What was shared by one record of a person is by the other, and what was for one is for the other. */
export function shareAsOther(tx: Transaction, from: string, to: string): void {
  tx.update(sharedResults).set({ by: to }).where(eq(sharedResults.by, from)).run();
  const [was, is] = [`@${from}`, `@${to}`];
  for (const { id, audience } of sharedNow(tx)) {
    if (!audience || !('anyOf' in audience.in) || !audience.in.anyOf.includes(was)) continue;
    const anyOf = [...new Set(audience.in.anyOf.map((word) => (word === was ? is : word)))];
    changeSharedRow(tx, id, { audience: { ...audience, in: { anyOf } } });
  }
}

/** Which requests a shared result is of: what the database decides of it, and what is asked of each besides. */
export function requestsMeant(
  { fields }: RegisterRow,
  { when }: Pick<SharedResult, 'when'>,
): { readonly where: SQL | undefined; readonly rest: Node | null } {
  const parsed = when === '' ? null : parseExpression(when);
  return parsed?.ok ? splitCondition(parsed.value, fields, readerScope(fields)) : { where: undefined, rest: null };
}

/** The keys of the fields that a condition on what is shared may ask for: that a request is there tells of them. */
export const askable = (db: Reader, register: RegisterRow): readonly string[] =>
  openAsReleased(db, register).map(({ key }) => key);

/** The labels of fields that a condition asks for and that are hidden from anybody of the desk. */
export function asksHidden(db: Reader, register: RegisterRow, when: string): readonly string[] {
  if (when === '') return [];
  const [names, open] = [namesIn(when), askable(db, register)];
  return register.fields.flatMap(({ key, label }) => (names.includes(key) && !open.includes(key) ? [label] : []));
}

/** Whether somebody may share any request of a register. */
export const maySharesOf = (viewer: Viewer, register: Pick<RegisterRow, 'id'>): boolean =>
  viewer.kind === 'staff' && rightsAt(viewer, register.id).some((right) => right.startsWith('share:'));

/** The fields, and columns of lines, that somebody may share: what they read in lists of every request they work on. */
export function sharableBy(db: Reader, viewer: Viewer, register: RegisterRow) {
  const readings = formsOf(db, register.id).flatMap((form) => {
    const release = currentRelease(db, form);
    if (!release) return [];
    const protection = protectionFor(db, register, { releaseId: release.id, computedBy: null, trial: false });
    const relation = deskRelation(viewer, register.id);
    return [prepareAccess(protection)({ viewer, relation, purpose: 'list', at: null })];
  });
  return partsOf(register.fields).filter(({ key }) =>
    readings.every((reading) => reading.levelOf(key).level !== 'hidden'),
  );
}

/** The labels of fields that are hidden from some of those something is for, and one from whom the most are. */
export function hiddenFromSome(
  db: Reader,
  register: RegisterRow,
  keys: readonly string[],
  readers: readonly Viewer[],
): { readonly labels: ReadonlySet<string>; readonly worst: Viewer | undefined } {
  const labels = new Set<string>();
  let [worst, most]: [Viewer | undefined, number] = [undefined, 0];
  const parts = partsOf(register.fields).filter(({ key }) => keys.includes(key));
  const protections = formsOf(db, register.id).flatMap((form) => {
    const release = currentRelease(db, form);
    return release ? [protectionFor(db, register, { releaseId: release.id, computedBy: null, trial: false })] : [];
  });
  for (const viewer of readers) {
    const hidden = parts.filter(({ key }) =>
      protections.some(
        (protection) =>
          prepareAccess(protection)({ viewer, relation: SHARED_READER, purpose: 'list', at: null }).levelOf(key)
            .level === 'hidden',
      ),
    );
    for (const { label } of hidden) labels.add(label);
    if (hidden.length > most) [worst, most] = [viewer, hidden.length];
  }
  return { labels, worst };
}
