import type { Change, DesignKind, Reference } from '@tolvek/core/design';
import type { Words } from '@tolvek/words';
import { and, asc, desc, eq, gt, lt, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { inTurns } from '../platform/turns.ts';
import { designStates, designs, draftStates } from './tables.ts';

/** A kind, as far as it is looked for. */
export type Of<Content extends object> = Pick<DesignKind<Content>, 'kind' | 'titleOf'>;

/** A design as it is kept. */
export interface DesignRow<Content extends object> {
  readonly id: string;
  readonly kind: string;
  readonly key: string;
  readonly draft: Content;
  readonly version: number;
  /** The state in force; 0 when there is none yet. */
  readonly number: number;
}

/** A state that was in force, or is. `at`: epoch ms. */
export interface StateRow<Content extends object> {
  readonly id: string;
  readonly designId: string;
  readonly number: number;
  readonly content: Content;
  readonly note: string;
  readonly by: string;
  readonly at: number;
}

const keyed = prepared((db) =>
  db
    .select()
    .from(designs)
    .where(and(eq(designs.kind, sql.placeholder('kind')), eq(designs.key, sql.placeholder('key'))))
    .prepare(),
);
const numbered = prepared((db) =>
  db
    .select()
    .from(designStates)
    .where(
      and(eq(designStates.designId, sql.placeholder('design')), eq(designStates.number, sql.placeholder('number'))),
    )
    .prepare(),
);

export const designByKey = <Content extends object>(
  db: Reader,
  { kind }: Of<Content>,
  key: string,
): DesignRow<Content> | undefined => keyed(db).get({ kind, key }) as DesignRow<Content> | undefined;

const withId = prepared((db) =>
  db
    .select({ draft: designs.draft })
    .from(designs)
    .where(and(eq(designs.kind, sql.placeholder('kind')), eq(designs.id, sql.placeholder('id'))))
    .prepare(),
);

/** What a design is called now, by its id. */
export function titleWithId<Content extends object>(
  db: Reader,
  { kind, titleOf }: Of<Content>,
  id: string,
): string | undefined {
  const found = withId(db).get({ kind, id });
  return found && titleOf(found.draft as Content);
}

/** All designs of a kind, by their keys. */
export const designsOf = <Content extends object>(db: Reader, { kind }: Of<Content>): readonly DesignRow<Content>[] =>
  db
    .select()
    .from(designs)
    .where(eq(designs.kind, kind))
    .orderBy(asc(designs.key))
    .all() as unknown as DesignRow<Content>[];

/** A state of a design by its number. */
export const stateOf = <Content extends object>(
  db: Reader,
  design: Pick<DesignRow<Content>, 'id'>,
  number: number,
): StateRow<Content> | undefined => numbered(db).get({ design: design.id, number }) as StateRow<Content> | undefined;

/** The states that were in force, the newest first. */
export const statesOf = <Content extends object>(
  db: Reader,
  design: Pick<DesignRow<Content>, 'id'>,
): readonly StateRow<Content>[] =>
  db
    .select()
    .from(designStates)
    .where(and(eq(designStates.designId, design.id), gt(designStates.number, 0)))
    .orderBy(desc(designStates.number))
    .all() as unknown as StateRow<Content>[];

/** One state of a draft: by whom, when, and what it changed against the one before. */
interface DraftState<Content extends object> {
  readonly id: string;
  readonly by: string;
  readonly at: number;
  readonly content: Content;
  readonly changes: readonly Change[];
}

/** States of a draft that are shown. */
const SHOWN = 30;

/**
 * What a draft was, the newest first; each against the state before it. Drafts can be large: they
 * are read and compared one by one, with turns for others between.
 */
export async function draftHistoryOf<Content extends object, C extends Change>(
  db: Reader,
  { compare }: { readonly compare: (before: Content | null, after: Content) => readonly C[] },
  design: DesignRow<Content>,
): Promise<readonly (DraftState<Content> & { readonly changes: readonly C[] })[]> {
  const kept = db
    .select({ id: draftStates.id, by: draftStates.changedBy, at: draftStates.changedAt })
    .from(draftStates)
    .where(eq(draftStates.designId, design.id))
    .orderBy(desc(draftStates.changedAt), desc(draftStates.version))
    .limit(SHOWN + 1)
    .all();
  const contentOf = (id: string): Content | null =>
    (db.select({ draft: draftStates.draft }).from(draftStates).where(eq(draftStates.id, id)).get()?.draft ??
      null) as Content | null;
  /** What the oldest state changed is told against what was in force when it was made. */
  const inForceBefore = (at: number): Content | null =>
    (db
      .select({ content: designStates.content })
      .from(designStates)
      .where(and(eq(designStates.designId, design.id), gt(designStates.number, 0), lt(designStates.at, at)))
      .orderBy(desc(designStates.number))
      .limit(1)
      .get()?.content ?? null) as Content | null;
  const states: (DraftState<Content> & { readonly changes: readonly C[] })[] = [];
  let content = kept[0] ? contentOf(kept[0].id) : null;
  for await (const [index, state] of inTurns(kept.slice(0, SHOWN).entries())) {
    const next = kept[index + 1];
    const before = next ? contentOf(next.id) : inForceBefore(state.at);
    // A state that gave way to a newer one meanwhile is not shown.
    if (content) states.push({ ...state, content, changes: compare(before, content) });
    content = before;
  }
  return states;
}

/** Where something is named: by which design, in which place of it. */
interface Referring {
  readonly kind: string;
  readonly key: string;
  readonly title: string;
  readonly at: Words;
}

const named = new WeakMap<object, readonly Reference[]>();

/** What refers to a design: the drafts of these kinds that name it, and where. */
export function referringTo<Content extends object>(
  db: Reader,
  kind: Pick<DesignKind<Content>, 'kind' | 'titleOf' | 'refersTo'>,
  to: { readonly kind: string; readonly key: string },
): readonly Referring[] {
  return designsOf(db, kind).flatMap(({ key, draft }) => {
    const references = named.get(draft) ?? kind.refersTo(draft);
    named.set(draft, references);
    return references
      .filter((reference) => reference.kind === to.kind && reference.key === to.key)
      .map(({ at }) => ({ kind: kind.kind, key, title: kind.titleOf(draft), at }));
  });
}
