import { type FormDesign, registerAfter } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import { keepDraft, putInForce } from '../design/commands.ts';
import { designOfForm, formNamed } from '../form/queries.ts';
import { spokenTo } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { Problem, staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { contentOf, registerById } from '../register/queries.ts';
import { draftContent, type Found } from './findings.ts';
import { kindProblems } from './kindProblems.ts';
import { changesSince } from './queries.ts';
import { recomputeLater } from './recompute.ts';
import { putRegisterInForce } from './registers.ts';
import { replanLater } from './replan.ts';

/** Keeps a draft made on a version, and the state before it in its history. */
export function saveDraft(house: House, viewer: Viewer, input: { key: string; version: number; draft: FormDesign }) {
  return write(house, ({ tx, now }) => {
    const form = formNamed(tx, input.key);
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
  input: { key: string; version: number; note: string; recompute?: boolean | undefined; replan?: boolean | undefined },
  found: Found,
): { number: number; version: number; job: string | null; replanning: string | null } {
  const released = write(house, (work) => {
    const { tx, now } = work;
    const form = formNamed(tx, input.key);
    if (form.version !== input.version) throw staleVersion();
    const register = registerById(tx, form.registerId);
    // What was looked through is what is released, and nothing around it changed meanwhile.
    if (draftContent(tx, form.id, form.draft) !== found.content) throw staleVersion();
    const errors = found.findings.filter((finding) => finding.severity === 'error');
    const clashes = kindProblems(tx, viewer, register, form.draft);
    if (errors.length + clashes.length > 0) {
      const problems = [
        ...errors.map((error) => ({
          field: error.at,
          message: error.message,
          fix: said('workshopErrors:correctOnPage', { page: said(`pages:${error.page}`) }),
        })),
        ...clashes,
      ];
      throw new Problem(422, 'draft-has-errors', refused('draftErrors'), problems);
    }
    const { number, version } = putInForce(
      tx,
      designOfForm(form),
      { note: input.note.trim(), found: found.findings },
      { viewer, now },
    );
    const note = spokenTo(tx, viewer.personId).say('notes:releaseOf', { number, title: form.draft.title });
    const after = registerAfter(contentOf(register), form.draft);
    putRegisterInForce(work, register, after, { note, by: viewer, released: form.id });
    const job = input.recompute ? recomputeLater(work, form, viewer) : null;
    return { number, version, job, replanning: input.replan ? replanLater(work, form, viewer) : null };
  });
  if (released.job !== null || released.replanning !== null) house.wakeJobs();
  return released;
}
