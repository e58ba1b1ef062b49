import { dateAt } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { desc, eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { calendarOf } from '../calendar/queries.ts';
import { currentRelease, type FormRow, formByKey } from '../form/queries.ts';
import { draftStates, forms, releases } from '../form/tables.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { write } from '../platform/house.ts';
import { notFound, Problem, staleVersion } from '../platform/problem.ts';
import { registers } from '../register/tables.ts';
import { claimAnew } from '../request/claims.ts';
import { numberExisting } from '../request/numbers.ts';
import { draftContent, type Found } from './findings.ts';
import { changesSince } from './queries.ts';

/**
 * Changes of one person so close together are one stretch of work, kept as one state of the draft’s
 * history.
 */
const STRETCH = 10 * 60_000;

/**
 * Keeps a draft made on a version, and the state before it in the history when a new stretch of
 * work begins.
 */
export function saveDraft(house: House, viewer: Viewer, input: { key: string; version: number; draft: FormDesign }) {
  return write(house, (tx, _, now) => {
    const form = formByKey(tx, input.key);
    if (!form) throw notFound('This form');
    if (form.version !== input.version) throw staleVersion();
    const version = form.version + 1;
    tx.update(forms).set({ draft: input.draft, version }).where(eq(forms.id, form.id)).run();
    rememberDraft(tx, form, viewer, input.draft, version, now);
    return { formId: form.id, version, changes: [...changesSince(tx, form, input.draft)] };
  });
}

/** Adds the draft to its history, in place of an earlier state of the same stretch of work. */
function rememberDraft(
  tx: Transaction,
  form: FormRow,
  viewer: Viewer,
  draft: FormDesign,
  version: number,
  now: number,
): void {
  const last = tx
    .select({ id: draftStates.id, changedBy: draftStates.changedBy, changedAt: draftStates.changedAt })
    .from(draftStates)
    .where(eq(draftStates.formId, form.id))
    .orderBy(desc(draftStates.changedAt), desc(draftStates.version))
    .limit(1)
    .get();
  const state = { draft, version, changedBy: viewer.personId, changedAt: now };
  if (last && last.changedBy === viewer.personId && now - last.changedAt < STRETCH)
    tx.update(draftStates).set(state).where(eq(draftStates.id, last.id)).run();
  else
    tx.insert(draftStates)
      .values({ id: uuid(), formId: form.id, ...state })
      .run();
}

/**
 * Releases the draft with the next number: from now on the doors lead to it. Errors among the
 * findings refuse it.
 */
export function releaseForm(
  house: House,
  viewer: Viewer,
  input: { key: string; version: number; note: string },
  found: Found,
) {
  return write(house, (tx, _, now) => {
    const form = formByKey(tx, input.key);
    if (!form) throw notFound('This form');
    if (form.version !== input.version) throw staleVersion();
    const register = tx.select().from(registers).where(eq(registers.id, form.registerId)).get();
    if (!register) throw notFound('This form’s register');
    // What was looked through is what is released, and nothing around it changed meanwhile.
    if (draftContent(tx, form.id, form.draft) !== found.content) throw staleVersion();
    const errors = found.findings.filter((finding) => finding.severity === 'error');
    const clashes = kindClashes(register.fields, form.draft.fields);
    if (errors.length + clashes.length > 0) {
      const problems = [
        ...errors.map((error) => ({
          field: error.at,
          message: error.message,
          fix: `Mend it on the page “${error.page}”.`,
        })),
        ...clashes,
      ];
      throw new Problem(
        422,
        'draft-has-errors',
        'The draft has errors',
        'A form with errors can’t be released. Mend them first; the release in force stays as it is.',
        problems,
      );
    }
    const number = form.release + 1;
    tx.insert(releases)
      .values({
        id: uuid(),
        formId: form.id,
        number,
        design: form.draft,
        note: input.note.trim(),
        releasedBy: viewer.personId,
        releasedAt: now,
      })
      .run();
    tx.update(forms)
      .set({ release: number, version: form.version + 1 })
      .where(eq(forms.id, form.id))
      .run();
    tx.update(registers)
      .set({ fields: mergeFields(register.fields, form.draft.fields) })
      .where(eq(registers.id, register.id))
      .run();
    const fresh = form.draft.fields.filter((field) => !register.fields.some((each) => each.key === field.key));
    const { zone } = calendarOf(tx, form.draft.deadline.calendar);
    numberExisting(tx, register.id, fresh, (at) => dateAt(at, zone));
    if (JSON.stringify(form.draft.unique) !== JSON.stringify(currentRelease(tx, form)?.design.unique ?? []))
      claimAnew(tx, form.id, form.draft);
    return { number, version: form.version + 1 };
  });
}

/**
 * The register keeps every field it ever had; labels and options follow the newest release, options
 * are never lost.
 */
function mergeFields(old: readonly Field[], added: readonly Field[]): readonly Field[] {
  const merged = old.map((field) => {
    const fresh = added.find((each) => each.key === field.key);
    if (!fresh) return field;
    const [now, was] = [fresh.type, field.type];
    if (
      now.kind !== was.kind ||
      (now.kind !== 'choice' && now.kind !== 'choices') ||
      (was.kind !== 'choice' && was.kind !== 'choices')
    )
      return fresh;
    const dropped = was.options.filter((option) => !now.options.some((each) => each.key === option.key));
    return {
      ...fresh,
      type: { ...now, options: [...now.options, ...dropped.map((option) => ({ ...option, retired: true }))] },
    };
  });
  return [...merged, ...added.filter((field) => !old.some((each) => each.key === field.key))];
}

function kindClashes(old: readonly Field[], added: readonly Field[]) {
  return added.flatMap((field) => {
    const before = old.find((each) => each.key === field.key);
    if (!before || before.type.kind === field.type.kind) return [];
    return [
      {
        field: field.key,
        message: `“${field.label}” was ${before.type.kind} and holds answers of that kind.`,
        fix: 'Keep its kind, or add a new question for the new kind.',
      },
    ];
  });
}
