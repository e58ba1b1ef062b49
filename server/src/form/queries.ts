import { prepareCompletion } from '@tolvek/core/form';
import { prepareIntake } from '@tolvek/core/intake';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { registerById } from '../register/queries.ts';
import { forms, releases } from './tables.ts';

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
export const kept = new LRUCache<string, Prepared>({
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

export function releasesOf(db: Reader, formId: string): readonly ReleaseRow[] {
  return db
    .select()
    .from(releases)
    .where(and(eq(releases.formId, formId), gt(releases.number, 0)))
    .orderBy(desc(releases.number))
    .all();
}

/** The register that a form’s requests go into. */
export const registerOfForm = (db: Reader, formId: string) =>
  registerById(db, db.select({ id: forms.registerId }).from(forms).where(eq(forms.id, formId)).get()?.id ?? '');
