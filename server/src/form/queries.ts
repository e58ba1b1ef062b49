import type { AnswerOf } from '@tolvek/contract';
import { compareDesigns, type DesignChange, type FormDesign, prepareCompletion } from '@tolvek/core/form';
import { prepareIntake } from '@tolvek/core/intake';
import { and, asc, desc, eq, gt, sql, sum } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { doors } from '../door/tables.ts';
import { namesOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { registers, tallies } from '../register/tables.ts';
import { countOfFindings } from './findings.ts';
import { draftStates, forms, releases } from './tables.ts';

export type FormRow = typeof forms.$inferSelect;
export type ReleaseRow = typeof releases.$inferSelect;

interface Prepared {
  readonly release: ReleaseRow;
  readonly takeIn: ReturnType<typeof prepareIntake>;
  readonly complete: ReturnType<typeof prepareCompletion>;
}

/**
 * A compiled form takes about this many bytes for each sign of its design (measured on the demo’s
 * forms).
 */
const BYTES_A_SIGN = 12;

/**
 * Releases never change, so each is read and prepared once, as long as there is room: for 200 of
 * them or 64 MB. They hold what a form is, and nothing of what anybody answered.
 */
const kept = new LRUCache<string, Prepared>({
  max: 200,
  maxSize: 64 * 1024 * 1024,
  sizeCalculation: ({ release }) => Math.max(1, JSON.stringify(release.design).length * BYTES_A_SIGN),
});

export function releaseById(db: Reader, id: string): Prepared {
  let found = kept.get(id);
  if (!found) {
    const release = db.select().from(releases).where(eq(releases.id, id)).get();
    if (!release) throw new Error(`No release ${id}.`);
    found = { release, takeIn: prepareIntake(release.design), complete: prepareCompletion(release.design) };
    kept.set(id, found);
  }
  return found;
}

/** The release in force, or undefined when there is none. */
export function currentRelease(db: Reader, form: Pick<FormRow, 'id' | 'release'>): ReleaseRow | undefined {
  const row = releaseNumbered(db).get({ form: form.id, number: form.release });
  return row ? releaseById(db, row.id).release : undefined;
}

const releaseNumbered = prepared((db) =>
  db
    .select({ id: releases.id })
    .from(releases)
    .where(and(eq(releases.formId, sql.placeholder('form')), eq(releases.number, sql.placeholder('number'))))
    .prepare(),
);

const formKeyed = prepared((db) =>
  db
    .select()
    .from(forms)
    .where(eq(forms.key, sql.placeholder('key')))
    .prepare(),
);

export const formByKey = (db: Reader, key: string): FormRow | undefined => formKeyed(db).get({ key });

/** What was compared last with each draft. */
const compared = new WeakMap<
  FormDesign,
  { readonly against: FormDesign | null; readonly changes: readonly DesignChange[] }
>();

export function changesSince(db: Reader, form: FormRow, draft: FormDesign): readonly DesignChange[] {
  const against = currentRelease(db, form)?.design ?? null;
  const known = compared.get(draft);
  if (known?.against === against) return known.changes;
  const changes = compareDesigns(against, draft);
  compared.set(draft, { against, changes });
  return changes;
}

export async function listForms(db: Reader): Promise<AnswerOf<'forms'>['forms']> {
  const counts = new Map(
    db
      .select({ formId: tallies.formId, n: sum(tallies.n).mapWith(Number) })
      .from(tallies)
      .groupBy(tallies.formId)
      .all()
      .map((row) => [row.formId, row.n]),
  );
  const all = db
    .select({ form: forms, register: registers.name })
    .from(forms)
    .innerJoin(registers, eq(registers.id, forms.registerId))
    .orderBy(asc(forms.key))
    .all();
  const listed: AnswerOf<'forms'>['forms'] = [];
  for await (const { form, register } of inTurns(all))
    listed.push({
      key: form.key,
      title: form.draft.title,
      register,
      release: form.release,
      changed: changesSince(db, form, form.draft).length > 0,
      findings: countOfFindings(db, form),
      requests: counts.get(form.id) ?? 0,
    });
  return listed;
}

export function releasesOf(db: Reader, formId: string): readonly ReleaseRow[] {
  return db
    .select()
    .from(releases)
    .where(and(eq(releases.formId, formId), gt(releases.number, 0)))
    .orderBy(desc(releases.number))
    .all();
}

const doorsInto = prepared((db) =>
  db
    .select()
    .from(doors)
    .where(eq(doors.formId, sql.placeholder('form')))
    .orderBy(desc(doors.kind))
    .prepare(),
);

export const doorsOf = (db: Reader, formId: string): readonly (typeof doors.$inferSelect)[] =>
  doorsInto(db).all({ form: formId });

/** States of a draft that are shown. */
const STATES = 30;

/**
 * What a draft was, the newest first; each against the state before it. Drafts can be large: they
 * are read and compared one by one.
 */
export async function draftHistoryOf(db: Reader, key: string): Promise<AnswerOf<'draftHistory'>['states']> {
  const form = formByKey(db, key);
  if (!form) throw notFound('This form');
  const kept = db
    .select({ id: draftStates.id, by: draftStates.changedBy, at: draftStates.changedAt })
    .from(draftStates)
    .where(eq(draftStates.formId, form.id))
    .orderBy(desc(draftStates.changedAt), desc(draftStates.version))
    .limit(STATES + 1)
    .all();
  const names = namesOf(
    db,
    kept.map((state) => state.by),
  );
  const draftOf = (id: string | undefined): FormDesign | null =>
    id === undefined
      ? (currentRelease(db, form)?.design ?? null)
      : (db.select({ draft: draftStates.draft }).from(draftStates).where(eq(draftStates.id, id)).get()?.draft ?? null);
  const states: AnswerOf<'draftHistory'>['states'] = [];
  let design = draftOf(kept[0]?.id);
  for await (const [index, { id, by, at }] of inTurns(kept.slice(0, STATES).entries())) {
    const before = draftOf(kept[index + 1]?.id);
    // A state that gave way to a newer one meanwhile is not shown.
    if (design)
      states.push({
        id,
        by: names.get(by) ?? '',
        at: new Date(at).toISOString(),
        design,
        changes: [...compareDesigns(before, design)],
      });
    design = before;
  }
  return states;
}
