import { type DesignFinding, isSame } from '@tolvek/core/design';
import type { Viewer } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import { and, desc, eq, lt } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { notFound, Problem, staleVersion } from '../platform/problem.ts';
import { type DesignRow, designsOf, type Of, stateOf } from './queries.ts';
import { designStates, designs, draftStates } from './tables.ts';

/** Who does something, and when, epoch ms. */
export interface Done {
  readonly viewer: Pick<Viewer, 'personId'>;
  readonly now: number;
}

/**
 * Changes of one person so close together are one stretch of work, kept as one state of the draft’s
 * history.
 */
const STRETCH = 10 * 60_000;

/** Makes a design with its first draft; nothing of it is in force yet. Returns its id. */
export function makeDesign<Content extends object>(
  tx: Transaction,
  { kind }: Of<Content>,
  { id = newId(), key, content }: { readonly id?: string; readonly key: string; readonly content: Content },
): string {
  tx.insert(designs).values({ id, kind, key, draft: content }).run();
  return id;
}

/** Makes a design that is in force at once. Returns its id. */
export function makeInForce<Content extends object>(
  tx: Transaction,
  kind: Of<Content>,
  {
    id: wanted,
    key,
    content,
    note,
  }: { readonly id?: string; readonly key: string; readonly content: Content; readonly note: string },
  { viewer, now }: Done,
): string {
  const id = makeDesign(tx, kind, { ...(wanted === undefined ? {} : { id: wanted }), key, content });
  tx.update(designs).set({ number: 1 }).where(eq(designs.id, id)).run();
  tx.insert(designStates)
    .values({ id: newId(), designId: id, number: 1, content, note, by: viewer.personId, at: now })
    .run();
  return id;
}

/**
 * Keeps a draft made on a version; returns the next version.
 *
 * @throws Problem 412 when somebody was faster.
 */
export function keepDraft<Content extends object>(
  tx: Transaction,
  design: DesignRow<Content>,
  { version, content }: { readonly version: number; readonly content: Content },
  done: Done,
): number {
  if (design.version !== version) throw staleVersion();
  const next = version + 1;
  tx.update(designs).set({ draft: content, version: next }).where(eq(designs.id, design.id)).run();
  rememberDraft(tx, design.id, content, next, done);
  return next;
}

/** Adds the draft to its history, in place of an earlier state of the same stretch of work. */
function rememberDraft(tx: Transaction, designId: string, draft: object, version: number, { viewer, now }: Done): void {
  const last = tx
    .select({ id: draftStates.id, changedBy: draftStates.changedBy, changedAt: draftStates.changedAt })
    .from(draftStates)
    .where(eq(draftStates.designId, designId))
    .orderBy(desc(draftStates.changedAt), desc(draftStates.version))
    .limit(1)
    .get();
  const state = { draft, version, changedBy: viewer.personId, changedAt: now };
  if (last && last.changedBy === viewer.personId && now - last.changedAt < STRETCH)
    tx.update(draftStates).set(state).where(eq(draftStates.id, last.id)).run();
  else
    tx.insert(draftStates)
      .values({ id: newId(), designId, ...state })
      .run();
}

/**
 * Puts the draft of a design in force under the next number; its version rises. `found`: what was
 * found in just this draft.
 *
 * @throws Problem 422 when there are errors among the findings.
 */
export function putInForce<Content extends object>(
  tx: Transaction,
  design: DesignRow<Content>,
  { note, found = [] }: { readonly note: string; readonly found?: readonly DesignFinding[] },
  { viewer, now }: Done,
): { readonly id: string; readonly number: number; readonly version: number } {
  const errors = found.filter((finding) => finding.severity === 'error');
  if (errors.length > 0)
    throw new Problem(
      422,
      'draft-has-errors',
      refused('draftErrors'),
      errors.map(({ at, message }) => ({ field: at, message, fix: said('work:correctDraft') })),
    );
  const id = newId();
  const [number, version] = [design.number + 1, design.version + 1];
  const state = { id, designId: design.id, number, content: design.draft, note, by: viewer.personId, at: now };
  tx.insert(designStates).values(state).run();
  tx.update(designs).set({ number, version }).where(eq(designs.id, design.id)).run();
  return { id, number, version };
}

/**
 * Changes a design that is in force at once: one state more, and the draft with it. Returns the next
 * version.
 *
 * @throws Problem 412 when somebody was faster.
 */
export function changeAtOnce<Content extends object>(
  tx: Transaction,
  design: DesignRow<Content>,
  change: {
    readonly version: number;
    readonly content: Content;
    readonly note: string;
    readonly found?: readonly DesignFinding[];
  },
  done: Done,
): number {
  const version = keepDraft(tx, design, change, done);
  const kept = { ...design, draft: change.content, version: version - 1 };
  return putInForce(tx, kept, change, done).version;
}

/**
 * Makes a state that was in force the draft again, as a change like any other; it can be undone by
 * going back to the one after it. Returns the next version.
 *
 * @throws Problem 404 for a number that never was, 412 when somebody was faster.
 */
export function goBackTo<Content extends object>(
  tx: Transaction,
  design: DesignRow<Content>,
  { version, number }: { readonly version: number; readonly number: number },
  done: Done,
): number {
  const state = stateOf<Content>(tx, design, number);
  if (!state || number < 1) throw notFound('state');
  return keepDraft(tx, design, { version, content: state.content }, done);
}

/** The draft as it is now, frozen under a number below zero, for what is tried with it. Returns its id. */
export function freezeDraft<Content extends object>(
  tx: Transaction,
  design: DesignRow<Content>,
  note: string,
  { viewer, now }: Done,
): string {
  const number = -design.version;
  const found = stateOf<Content>(tx, design, number);
  if (found) return found.id;
  const id = newId();
  tx.insert(designStates)
    .values({ id, designId: design.id, number, content: design.draft, note, by: viewer.personId, at: now })
    .run();
  return id;
}

/** Takes away what was frozen for trying. */
export function dropFrozen(tx: Transaction, designId: string): void {
  tx.delete(designStates)
    .where(and(eq(designStates.designId, designId), lt(designStates.number, 0)))
    .run();
}

/** Deletes a design that nothing names, with all it was. */
export function deleteDesign(tx: Transaction, designId: string): void {
  tx.delete(draftStates).where(eq(draftStates.designId, designId)).run();
  tx.delete(designStates).where(eq(designStates.designId, designId)).run();
  tx.delete(designs).where(eq(designs.id, designId)).run();
}

/** Gives a design another key; whoever names it by the one it had says so as well. */
export const renameDesign = (tx: Transaction, id: string, key: string): void =>
  void tx.update(designs).set({ key }).where(eq(designs.id, id)).run();

/** Changes all designs of a kind that a change makes otherwise; each is in force at once. */
export function changeEach<Content extends object>(
  tx: Transaction,
  kind: Of<Content>,
  change: (content: Content) => Content,
  note: string,
  done: Done,
): void {
  for (const design of designsOf(tx, kind)) {
    const content = change(design.draft);
    if (!isSame(content, design.draft)) changeAtOnce(tx, design, { version: design.version, content, note }, done);
  }
}
