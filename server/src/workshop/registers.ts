import { isSame } from '@tolvek/core/design';
import { draftAfter, type RegisterContent } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { keepDraft } from '../design/commands.ts';
import { designOfForm, formsOf } from '../form/queries.ts';
import type { Work } from '../platform/work.ts';
import { changeRegister } from '../register/commands.ts';
import { contentOf, type RegisterRow, registerById } from '../register/queries.ts';
import { claimAnew } from '../request/claims.ts';
import { readAll } from '../request/readings.ts';
import { numberLater } from './numbering.ts';

interface How {
  /** Why, in words. */
  readonly note: string;
  readonly by: Viewer;
  /** The form whose release it was: its draft is what was put in force. */
  readonly released?: string;
}

/**
 * Puts another state of a register in force, with what follows from it: the drafts of its forms
 * have what changed, requests that are there claim by its rules, and get the numbers that it gives.
 *
 * @throws Problem 422 when the register could not hold requests any more.
 */
export function putRegisterInForce(work: Work, register: RegisterRow, after: RegisterContent, how: How): void {
  const { tx, now } = work;
  const before = contentOf(register);
  if (isSame(before, after)) return;
  const done = { viewer: how.by, now };
  changeRegister(tx, register, after, how.note, done);
  for (const form of formsOf(tx, register.id)) {
    if (form.deletedAt !== null) continue;
    const draft = form.id === how.released ? form.draft : draftAfter(form.draft, before, after);
    if (!isSame(draft, form.draft)) keepDraft(tx, designOfForm(form), { version: form.version, content: draft }, done);
  }
  const fresh = after.fields.filter((field) => !before.fields.some((each) => each.key === field.key));
  numberLater(work, register.id, fresh, how.by);
  if (!isSame(before.unique, after.unique)) claimAnew(tx, registerById(tx, register.id), before.unique);
  // Conditions on whole requests are over its fields.
  if (register.access.readers && !isSame(before.fields, after.fields)) readAll(tx, registerById(tx, register.id));
}
