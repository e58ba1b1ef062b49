import { dateAt } from '@tolvek/core/deadline';
import { isSame } from '@tolvek/core/design';
import type { FormDesign } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { calendarOf } from '../calendar/queries.ts';
import { keepDraft, putInForce } from '../design/commands.ts';
import { currentRelease, designOfForm, formByKey } from '../form/queries.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem, staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { changeRegister } from '../register/commands.ts';
import { registerById } from '../register/queries.ts';
import { numberExisting } from '../request/change.ts';
import { claimAnew } from '../request/claims.ts';
import { draftContent, type Found } from './findings.ts';
import { changesSince } from './queries.ts';

/** Keeps a draft made on a version, and the state before it in its history. */
export function saveDraft(house: House, viewer: Viewer, input: { key: string; version: number; draft: FormDesign }) {
  return write(house, ({ tx, now }) => {
    const form = formByKey(tx, input.key);
    if (!form) throw notFound('This form');
    const kept = { version: input.version, content: input.draft };
    const version = keepDraft(tx, designOfForm(form), kept, { viewer, now });
    return { formId: form.id, version, changes: [...changesSince(tx, form, input.draft)] };
  });
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
  return write(house, (work) => {
    const { tx, now } = work;
    const form = formByKey(tx, input.key);
    if (!form) throw notFound('This form');
    if (form.version !== input.version) throw staleVersion();
    const register = registerById(tx, form.registerId);
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
    const before = currentRelease(tx, form)?.design.unique ?? [];
    const { number, version } = putInForce(
      tx,
      designOfForm(form),
      { note: input.note.trim(), found: found.findings },
      { viewer, now },
    );
    const fields = mergeFields(register.fields, form.draft.fields);
    if (!isSame(fields, register.fields))
      changeRegister(tx, register, { fields }, `Release ${number} of “${form.draft.title}”`, { viewer, now });
    const fresh = form.draft.fields.filter((field) => !register.fields.some((each) => each.key === field.key));
    const { zone } = calendarOf(tx, form.draft.deadline.calendar);
    numberExisting(work, register.id, fresh, (at) => dateAt(at, zone));
    if (JSON.stringify(form.draft.unique) !== JSON.stringify(before)) claimAnew(tx, form.id, form.draft);
    return { number, version };
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
