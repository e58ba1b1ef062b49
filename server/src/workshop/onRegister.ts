import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { type FormDesign, formInto, namesUsed, questionsOf, type RegisterContent } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { askedByMoves, type Problem as FieldProblem, moveFindings, type Stage } from '@tolvek/core/register';
import { and, eq, like, ne, sql, sum } from 'drizzle-orm';
import { stateOf, statesOf } from '../design/queries.ts';
import { doorsOf } from '../door/queries.ts';
import { currentRelease, type FormRow, formByKey, formsOf } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { contentOf, type RegisterRow, registerById, registerByKey } from '../register/queries.ts';
import { openAsReleased } from '../request/protection.ts';
import { requests, tallies } from '../request/tables.ts';
import { freeKey, makeForm, prefixTaken, wantedDoors } from './create.ts';
import { doorSettings } from './doors.ts';
import { putRegisterInForce } from './registers.ts';

const onShelf = (db: Reader, registerId: string): readonly FormRow[] =>
  formsOf(db, registerId).filter((form) => form.deletedAt === null);

/** A register, its forms with what each asks, and what was in force before. */
export function registerView(db: Reader, key: string, now: number): AnswerOf<'register'> {
  const register = registerByKey(db, key);
  if (!register) throw notFound('This register');
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
    stays: Object.fromEntries(
      register.fields.flatMap((field) => {
        const why = whyItStays(uses, field.key);
        return why === null ? [] : [[field.key, why]];
      }),
    ),
    stages: register.stages,
    at: Object.fromEntries(talliedBy(db, register, tallies.stage)),
    requests: [...counts.values()].reduce((all, n) => all + n, 0),
    forms: onShelf(db, register.id).map((form) => ({
      ...{ key: form.key, title: form.draft.title, release: form.release, stopped: form.stoppedAt !== null },
      asks: questionsOf(form.draft.parts).map((part) => part.field),
      own: [...(form.draft.own ?? [])],
      doors: doorsOf(db, form.id).map((door) => doorSettings(door, now)),
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

/** What uses fields of a register, and which: the drafts of its forms, and their releases in force. */
interface Use {
  readonly words: string;
  readonly keys: ReadonlySet<string>;
}

/** The fields that a form asks for, reads or computes. */
const usedIn = (design: FormDesign): ReadonlySet<string> =>
  new Set([
    ...questionsOf(design.parts).map((part) => part.field),
    ...namesUsed(design),
    ...design.fields.flatMap(({ key, source }) => (source === 'computed' || source === 'carried' ? [key] : [])),
  ]);

/** All that keeps fields from leaving a register. */
const usesIn = (db: Reader, register: RegisterRow): readonly Use[] => [
  ...askedByMoves(register).map(({ field, stage }) => ({
    words: `A move from “${stage.label}” asks for it.`,
    keys: new Set([field]),
  })),
  ...onShelf(db, register.id).flatMap((form): Use[] => {
    const { title } = form.draft;
    const release = form.stoppedAt === null ? currentRelease(db, form) : undefined;
    return [
      { words: `The form “${title}” uses it.`, keys: usedIn(form.draft) },
      ...(release
        ? [
            {
              words: `Release ${release.number} of “${title}” uses it, and is in force.`,
              keys: usedIn(release.design),
            },
          ]
        : []),
    ];
  }),
];

/** Why a field can’t leave; null when it can. */
const whyItStays = (uses: readonly Use[], key: string): string | null =>
  uses.find((use) => use.keys.has(key))?.words ?? null;

/** Changes what is settled of a register itself, in force at once. */
export function settleRegister(
  house: House,
  viewer: Viewer,
  input: BodyOf<'changeRegister'> & { readonly key: string; readonly version: number },
): { version: number } {
  return write(house, (work) => {
    const { tx } = work;
    const register = registerByKey(tx, input.key);
    if (!register) throw notFound('This register');
    if (register.version !== input.version) throw staleVersion();
    const problems = [...settlingProblems(tx, register, input), ...stageProblems(tx, register, input.stages)];
    if (problems.length > 0) throw wrongFields(problems);
    const { name, prefix, deskGroups, staysIn, left } = input;
    const after = { ...contentOf(register), name, prefix, deskGroups, staysIn, left, stages: input.stages };
    putRegisterInForce(work, register, after, { note: input.note.trim(), by: viewer });
    return { version: registerById(tx, register.id).version };
  });
}

function settlingProblems(
  tx: Transaction,
  register: RegisterRow,
  { name, prefix, deskGroups, left, stages }: BodyOf<'changeRegister'>,
): readonly FieldProblem[] {
  const groups = groupNames(tx);
  const uses = usesIn(tx, register);
  const isNumbered = (letters: string): boolean =>
    tx
      .select({ id: requests.id })
      .from(requests)
      .where(and(like(requests.number, `${letters}-%`), ne(requests.registerId, register.id)))
      .limit(1)
      .get() !== undefined;
  const isOthers = prefix !== register.prefix && (prefixTaken(tx, prefix) || isNumbered(prefix));
  return [
    ...(name === '' ? [{ field: 'name', message: 'The register has no name.', fix: 'Give it one.' }] : []),
    ...(isOthers
      ? [
          {
            field: 'prefix',
            message: `Other requests are numbered ${prefix}-….`,
            fix: 'Choose other letters. Numbers that were given out stay as they are.',
          },
        ]
      : []),
    ...(deskGroups.length === 0
      ? [{ field: 'deskGroups', message: 'Nobody would work at its desk.', fix: 'Choose at least one group.' }]
      : []),
    ...(deskGroups.every((group) => groups.has(group))
      ? []
      : [{ field: 'deskGroups', message: 'A group does not exist.', fix: 'Choose one of the list.' }]),
    ...stages.flatMap((stage) =>
      stage.label === '' || stage.publicLabel === ''
        ? [
            {
              field: `stage ${stage.key}`,
              message: 'A stage has no name.',
              fix: 'Give it one for the desk and one for requesters.',
            },
          ]
        : [],
    ),
    ...left.flatMap((key): FieldProblem[] => {
      if (register.left.includes(key)) return [];
      const label = register.fields.find((field) => field.key === key)?.label;
      if (label === undefined)
        return [{ field: 'left', message: `There is no field “${key}” here.`, fix: 'Leave it out.' }];
      const why = whyItStays(uses, key);
      return why === null
        ? []
        : [
            {
              field: 'left',
              message: `“${label}” can’t leave. ${why}`,
              fix: 'Take it off there first, and release that.',
            },
          ];
    }),
  ];
}

/** What keeps stages from being put in force: those that are there stay, and what they are. */
function stageProblems(tx: Transaction, register: RegisterRow, stages: readonly Stage[]): readonly FieldProblem[] {
  const open = new Set(openAsReleased(tx, register).map(({ key }) => key));
  const groups = groupNames(tx);
  const asked = askedByMoves({ stages, fields: register.fields }).filter(({ field }) => !open.has(field));
  return [
    ...register.stages.flatMap((was) => {
      const is = stages.find((each) => each.key === was.key);
      return is && is.phase === was.phase && is.role === was.role
        ? []
        : [
            {
              field: `stage ${was.key}`,
              message: `“${was.label}” can’t go, nor become something else: requests may be there, and histories name it.`,
              fix: 'Retire it: no request comes there any more.',
            },
          ];
    }),
    ...stages.flatMap((stage, place): FieldProblem[] => {
      const field = `stage ${stage.key}`;
      const isNew = !register.stages.some((each) => each.key === stage.key);
      if (stages.findIndex((each) => each.key === stage.key) !== place)
        return [{ field, message: 'Two stages have the same key.', fix: 'Give one of them another name.' }];
      if (isNew && (!/^[a-z][a-z0-9_]*$/.test(stage.key) || stage.role))
        return [{ field, message: 'A new stage has a key of small letters, and no role.', fix: 'Add it once more.' }];
      const unknown = (stage.moves ?? []).flatMap((move) => move.groups.filter((group) => !groups.has(group)));
      return unknown.length === 0
        ? []
        : [{ field, message: 'A move names a group that does not exist.', fix: 'Choose one of the list.' }];
    }),
    ...asked.map(({ field, stage }) => ({
      field: `stage ${stage.key}`,
      message: `A move from “${stage.label}” asks for “${register.fields.find(({ key }) => key === field)?.label ?? field}”, which somebody who works on requests may not read. Whether it can be done would tell them.`,
      fix: 'Ask for a field that is closed to nobody, or change the access plan first.',
    })),
    ...moveFindings({ stages, fields: register.fields }).map(({ at, message }) => ({
      field: `stage ${at}`,
      message,
      fix: 'Mend the move, or take it away.',
    })),
  ];
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
    const register = registerByKey(tx, input.key);
    const state = register && stateOf<RegisterContent>(tx, register, input.number);
    if (!register || !state) throw notFound('This state');
    if (register.version !== input.version) throw staleVersion();
    const now = contentOf(register);
    const { name, prefix, deskGroups, staysIn, access, stages } = state.content;
    // Stages that came since may hold requests.
    const since = now.stages.filter((stage) => !stages.some((each) => each.key === stage.key));
    const after = { ...now, name, prefix, deskGroups, staysIn, access, stages: [...stages, ...since] };
    const problems = settlingProblems(tx, register, {
      ...after,
      deskGroups: [...deskGroups],
      left: [...now.left],
      stages: [],
      note: '',
    });
    if (problems.length > 0) throw wrongFields(problems);
    putRegisterInForce(work, register, after, { note: `As it was in state ${input.number}`, by: viewer });
    return { version: registerById(tx, register.id).version };
  });
}

const untitled: FieldProblem = { field: 'title', message: 'The form has no title.', fix: 'Give it one.' };

/** Makes another form that asks into a register that is there. */
export function askInto(
  house: House,
  viewer: Viewer,
  { key, once: once_, ...input }: BodyOf<'askInto'> & { readonly key: string; readonly once: string },
): { key: string } {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `ask into ${viewer.personId}`, content: [key, input], now }, () => {
      const register = registerByKey(tx, key);
      if (!register) throw notFound('This register');
      const known = new Set(register.fields.flatMap((field) => (field.source === 'asked' ? [field.key] : [])));
      const problems: FieldProblem[] = [
        ...(input.title === '' ? [untitled] : []),
        ...(input.asks.length === 0
          ? [{ field: 'asks', message: 'The form asks nothing.', fix: 'Choose at least one field.' }]
          : []),
        ...(input.asks.every((each) => known.has(each) && !register.left.includes(each))
          ? []
          : [{ field: 'asks', message: 'A field is not there to be asked for.', fix: 'Choose from the list.' }]),
        ...(input.doors.staff || input.doors.outside
          ? []
          : [{ field: 'doors', message: 'The form has no door.', fix: 'Choose who may ask.' }]),
      ];
      if (problems.length > 0) throw wrongFields(problems);
      // In the words of the form that asks most of it.
      const asked = (form: FormRow): number =>
        questionsOf(form.draft.parts).filter((part) => input.asks.includes(part.field)).length;
      const [like] = [...onShelf(tx, register.id)].sort((a, b) => asked(b) - asked(a));
      const draft = formInto(contentOf(register), { title: input.title, asks: input.asks, like: like?.draft ?? null });
      const made = freeKey(tx, draft.title);
      makeForm(tx, { key: made, registerId: register.id, draft, doors: wantedDoors(input.doors) }, { viewer, now });
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
      const form = formByKey(tx, key);
      if (!form) throw notFound('This form');
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
    const form = formByKey(tx, key);
    if (!form) throw notFound('This form');
    const set =
      state === 'in use'
        ? { stoppedAt: null }
        : state === 'stopped'
          ? { stoppedAt: form.stoppedAt ?? now }
          : { stoppedAt: form.stoppedAt ?? now, deletedAt: now };
    tx.update(forms).set(set).where(eq(forms.id, form.id)).run();
  });
}
