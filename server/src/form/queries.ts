import type { AnswerOf } from '@tolvek/contract';
import {
  compareDesigns,
  type DesignChange,
  type Finding,
  type FormDesign,
  findingsOf,
  namedBy,
  prepareCompletion,
} from '@tolvek/core/form';
import { prepareIntake } from '@tolvek/core/intake';
import { and, asc, count, desc, eq, gt } from 'drizzle-orm';
import { doors } from '../door/tables.ts';
import { allGroups, namesOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { knownRegisters } from '../register/references.ts';
import { registers, requests } from '../register/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { draftStates, forms, releases } from './tables.ts';

export type FormRow = typeof forms.$inferSelect;
export type ReleaseRow = typeof releases.$inferSelect;

/** Releases never change, so each is read and prepared once. */
const prepared = new Map<
  string,
  { release: ReleaseRow; takeIn: ReturnType<typeof prepareIntake>; complete: ReturnType<typeof prepareCompletion> }
>();

export function releaseById(db: Reader, id: string) {
  let found = prepared.get(id);
  if (!found) {
    const release = db.select().from(releases).where(eq(releases.id, id)).get();
    if (!release) throw new Error(`No release ${id}.`);
    found = { release, takeIn: prepareIntake(release.design), complete: prepareCompletion(release.design) };
    prepared.set(id, found);
  }
  return found;
}

/** The release in force, or undefined when there is none. */
export function currentRelease(db: Reader, form: Pick<FormRow, 'id' | 'release'>): ReleaseRow | undefined {
  const row = db
    .select({ id: releases.id })
    .from(releases)
    .where(and(eq(releases.formId, form.id), eq(releases.number, form.release)))
    .get();
  return row ? releaseById(db, row.id).release : undefined;
}

export function formByKey(db: Reader, key: string): FormRow | undefined {
  return db.select().from(forms).where(eq(forms.key, key)).get();
}

export function findingsFor(db: Reader, formId: string, design: FormDesign): readonly Finding[] {
  const groups = new Set(allGroups(db).map((group) => group.key));
  return findingsOf(design, {
    groups,
    outside: doorsOf(db, formId).some((door) => door.kind === 'outside'),
    vocabularies: vocabulariesFor(db, design.fields),
    registers: knownRegisters(db, namedBy(design).registers),
  });
}

export function changesSince(db: Reader, form: FormRow, draft: FormDesign): readonly DesignChange[] {
  return compareDesigns(currentRelease(db, form)?.design ?? null, draft);
}

export function listForms(db: Reader) {
  const counts = new Map(
    db
      .select({ formId: requests.formId, n: count() })
      .from(requests)
      .where(eq(requests.trial, false))
      .groupBy(requests.formId)
      .all()
      .map((row) => [row.formId, row.n]),
  );
  return db
    .select({ form: forms, register: registers.name })
    .from(forms)
    .innerJoin(registers, eq(registers.id, forms.registerId))
    .orderBy(asc(forms.key))
    .all()
    .map(({ form, register }) => ({
      key: form.key,
      title: form.draft.title,
      register,
      release: form.release,
      changed: changesSince(db, form, form.draft).length > 0,
      findings: findingsFor(db, form.id, form.draft).length,
      requests: counts.get(form.id) ?? 0,
    }));
}

export function releasesOf(db: Reader, formId: string): readonly ReleaseRow[] {
  return db
    .select()
    .from(releases)
    .where(and(eq(releases.formId, formId), gt(releases.number, 0)))
    .orderBy(desc(releases.number))
    .all();
}

export function doorsOf(db: Reader, formId: string): readonly (typeof doors.$inferSelect)[] {
  return db.select().from(doors).where(eq(doors.formId, formId)).orderBy(desc(doors.kind)).all();
}

/** States of a draft that are shown. */
const STATES = 30;

/** What a draft was, the newest first; each against the state before it. */
export function draftHistoryOf(db: Reader, key: string): AnswerOf<'draftHistory'>['states'] {
  const form = formByKey(db, key);
  if (!form) throw notFound('This form');
  const states = db
    .select()
    .from(draftStates)
    .where(eq(draftStates.formId, form.id))
    .orderBy(desc(draftStates.changedAt), desc(draftStates.version))
    .limit(STATES + 1)
    .all();
  const names = namesOf(
    db,
    states.map((state) => state.changedBy),
  );
  return states.slice(0, STATES).map((state, index) => ({
    id: state.id,
    by: names.get(state.changedBy) ?? '',
    at: new Date(state.changedAt).toISOString(),
    design: state.draft,
    changes: [...compareDesigns(states[index + 1]?.draft ?? currentRelease(db, form)?.design ?? null, state.draft)],
  }));
}
