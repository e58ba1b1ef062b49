import type { AnswerOf } from '@tolvek/contract';
import { compareDesigns, type DesignChange, type FormDesign } from '@tolvek/core/form';
import { asc, desc, eq, sum } from 'drizzle-orm';
import { currentRelease, type FormRow, formByKey } from '../form/queries.ts';
import { draftStates, forms } from '../form/tables.ts';
import { namesOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { registers } from '../register/tables.ts';
import { tallies } from '../request/tables.ts';
import { countOfFindings } from './findings.ts';

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
