import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { FORM, formInto, questionsOf, REGISTER, type RegisterContent } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Problem as FieldProblem } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { eq, sql, sum } from 'drizzle-orm';
import { referringTo, stateOf, statesOf } from '../design/queries.ts';
import { doorsOf } from '../door/queries.ts';
import { type FormRow, formNamed, onShelf } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import { namesOf, spokenTo } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { contentOf, type RegisterRow, registerById, registerNamed } from '../register/queries.ts';
import { openAsReleased } from '../request/protection.ts';
import { tallies } from '../request/tables.ts';
import { freeKey, makeForm, wantedDoors } from './create.ts';
import { doorSettings } from './doors.ts';
import { draftOf } from './registerDraft.ts';
import { refuseWrong, settlingProblems, usesIn, whyItStays } from './registerProblems.ts';
import { putRegisterInForce } from './registers.ts';

/** A register, its forms with what each asks, and what was in force before. */
export function registerView(db: Reader, key: string, now: number): AnswerOf<'register'> {
  const register = registerNamed(db, key);
  const states = statesOf<RegisterContent>(db, { id: register.id });
  const names = namesOf(
    db,
    states.map((state) => state.by),
  );
  const counts = talliedBy(db, register, tallies.formId);
  const uses = usesIn(db, register);
  return {
    key,
    version: register.version,
    ...{ name: register.name, prefix: register.prefix, holds: register.holds, subject: register.subject },
    ...{ deskGroups: [...register.deskGroups], staysIn: register.staysIn },
    ...{ fields: register.fields, left: register.left },
    open: openAsReleased(db, register).map((field) => field.key),
    referredBy: referringTo(db, FORM, { kind: REGISTER.kind, key: register.key }).map((each) => ({
      ...{ form: each.key, title: each.title, field: each.at },
    })),
    stays: Object.fromEntries(
      register.fields.flatMap((field) => {
        const why = whyItStays(uses, field.key);
        return why === null ? [] : [[field.key, why]];
      }),
    ),
    stages: register.stages,
    at: Object.fromEntries(talliedBy(db, register, tallies.stage)),
    requests: [...counts.values()].reduce((all, n) => all + n, 0),
    ...draftOf(db, register),
    forms: onShelf(db, register.id).map((form) => ({
      ...{ key: form.key, title: form.draft.title, release: form.release, stopped: form.stoppedAt !== null },
      asks: questionsOf(form.draft.parts).map((part) => part.field),
      own: [...(form.draft.own ?? [])],
      doors: doorsOf(db, form.id).map((door) => doorSettings(db, door, now)),
      requests: counts.get(form.id) ?? 0,
    })),
    states: states
      .filter((state) => state.number > 0)
      .map(({ number, note, by, at }) => ({ number, note, by: names.get(by) ?? '', at: iso(at) })),
  };
}

/** How many requests of a register there are by what a column of the tallies says: their form, their stage. */
const talliedBy = (
  db: Reader,
  { id }: RegisterRow,
  column: typeof tallies.formId | typeof tallies.stage,
): ReadonlyMap<string, number> =>
  new Map(
    db
      .select({ key: sql<string>`${column}`, n: sum(tallies.n).mapWith(Number) })
      .from(tallies)
      .where(eq(tallies.registerId, id))
      .groupBy(column)
      .all()
      .map(({ key, n }) => [key, n]),
  );

/** Changes what is settled of a register itself, in force at once. */
export function settleRegister(
  house: House,
  viewer: Viewer,
  input: BodyOf<'changeRegister'> & { readonly key: string; readonly version: number },
): { version: number } {
  return write(house, (work) => {
    const { tx } = work;
    const register = registerNamed(tx, input.key);
    if (register.version !== input.version) throw staleVersion();
    refuseWrong(tx, register, input);
    const { name, prefix, deskGroups, staysIn, left } = input;
    const after = { ...contentOf(register), name, prefix, deskGroups, staysIn, left, stages: input.stages };
    putRegisterInForce(work, register, after, { note: input.note.trim(), by: viewer });
    return { version: registerById(tx, register.id).version };
  });
}

/**
 * Puts what was settled of a register itself in force again as an earlier state had it: names,
 * letters, desk, plan and stages. Fields and what forms put in force stay.
 */
export function goBackToState(
  house: House,
  viewer: Viewer,
  input: { readonly key: string; readonly number: number; readonly version: number },
): { version: number } {
  return write(house, (work) => {
    const { tx } = work;
    const register = registerNamed(tx, input.key);
    const state = stateOf<RegisterContent>(tx, register, input.number);
    if (!state) throw notFound('state');
    if (register.version !== input.version) throw staleVersion();
    const now = contentOf(register);
    // The access plan goes a step back on its own page, where it is said first what that would open and close.
    const { name, prefix, deskGroups, staysIn, stages } = state.content;
    // Stages that came since may hold requests.
    const since = now.stages.filter((stage) => !stages.some((each) => each.key === stage.key));
    const after = { ...now, name, prefix, deskGroups, staysIn, stages: [...stages, ...since] };
    const problems = settlingProblems(tx, register, { ...after, stages: [] });
    if (problems.length > 0) throw wrongFields(problems);
    putRegisterInForce(work, register, after, {
      note: spokenTo(tx, viewer.personId).say('notes:asInState', { number: input.number }),
      by: viewer,
    });
    return { version: registerById(tx, register.id).version };
  });
}

const untitled: FieldProblem = {
  field: 'title',
  message: said('workshopErrors:noFormTitle'),
  fix: said('workshopErrors:enterTitle'),
};

/** Makes another form that asks into a register that is there. */
export function askInto(
  house: House,
  viewer: Viewer,
  { key, once: once_, ...input }: BodyOf<'askInto'> & { readonly key: string; readonly once: string },
): { key: string } {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `ask into ${viewer.personId}`, content: [key, input], now }, () => {
      const register = registerNamed(tx, key);
      const known = new Set(register.fields.flatMap((field) => (field.source === 'asked' ? [field.key] : [])));
      const problems: FieldProblem[] = [
        ...(input.title === '' ? [untitled] : []),
        ...(input.asks.length === 0
          ? [{ field: 'asks', message: said('workshopErrors:noQuestions'), fix: said('workshopErrors:chooseField') }]
          : []),
        ...(input.asks.every((each) => known.has(each) && !register.left.includes(each))
          ? []
          : [{ field: 'asks', message: said('workshopErrors:fieldGone'), fix: said('workshopErrors:chooseFields') }]),
        ...(input.doors.staff || input.doors.outside
          ? []
          : [{ field: 'doors', message: said('workshopErrors:noDoor'), fix: said('workshopErrors:chooseDoor') }]),
      ];
      if (problems.length > 0) throw wrongFields(problems);
      // In the words of the form that asks most of it.
      const asked = (form: FormRow): number =>
        questionsOf(form.draft.parts).filter((part) => input.asks.includes(part.field)).length;
      const [like] = [...onShelf(tx, register.id)].sort((a, b) => asked(b) - asked(a));
      const draft = formInto(contentOf(register), { title: input.title, asks: input.asks, like: like?.draft ?? null });
      const made = freeKey(tx, draft.title);
      makeForm(
        tx,
        { key: made, registerId: register.id, draft, doors: wantedDoors(input.doors, spokenTo(tx, viewer.personId)) },
        { viewer, now },
      );
      return { key: made };
    }),
  );
}

/** Makes another form of the same register from the draft of one, with doors like its own. */
export function duplicateForm(
  house: House,
  viewer: Viewer,
  { key, title, once: once_ }: { readonly key: string; readonly title: string; readonly once: string },
): { key: string } {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `duplicate ${viewer.personId}`, content: [key, title], now }, () => {
      const form = formNamed(tx, key);
      if (title === '') throw wrongFields([untitled]);
      const made = freeKey(tx, title);
      const doors = doorsOf(tx, form.id).map(({ design }) => design);
      const copy = { key: made, registerId: form.registerId, draft: { ...form.draft, title }, doors };
      makeForm(tx, copy, { viewer, now });
      return { key: made };
    }),
  );
}

/** Stops a form, takes it up again, or takes it off the shelf. Its requests stay. */
export function setFormState(house: House, key: string, state: BodyOf<'setFormState'>['state']): void {
  write(house, ({ tx, now }) => {
    const form = formNamed(tx, key);
    const set =
      state === 'in use'
        ? { stoppedAt: null }
        : state === 'stopped'
          ? { stoppedAt: form.stoppedAt ?? now }
          : { stoppedAt: form.stoppedAt ?? now, deletedAt: now };
    tx.update(forms).set(set).where(eq(forms.id, form.id)).run();
  });
}
