import type { BodyOf } from '@tolvek/contract';
import { type DoorDesign, newDoor } from '@tolvek/core/door';
import { FORM, type FormDesign } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Stage } from '@tolvek/core/register';
import { type Done, makeDesign } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import { freeSlug, isSlugTaken, makeDoor } from '../door/commands.ts';
import { forms } from '../form/tables.ts';
import { groupNames } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { makeRegister } from '../register/commands.ts';
import { allRegisters, registerByKey } from '../register/queries.ts';
import { planProblems, rememberPlan } from './plan.ts';
import { bringVocabularies } from './vocabularies.ts';

/** Where a request of a new form can be, until its coordinator says otherwise. */
const STAGES: readonly Stage[] = [
  { key: 'arrived', label: 'Arrived', publicLabel: 'We have it', phase: 'arrived' },
  { key: 'deciding', label: 'To be decided', publicLabel: 'Being decided', phase: 'arrived', role: 'deciding' },
  { key: 'in_hand', label: 'In hand', publicLabel: 'In hand', phase: 'working' },
  { key: 'waiting', label: 'Waiting for the requester', publicLabel: 'Waiting for you', phase: 'paused' },
  { key: 'done', label: 'Done', publicLabel: 'Done', phase: 'finished', role: 'done' },
  { key: 'refused', label: 'Not approved', publicLabel: 'Not approved', phase: 'finished', role: 'refused' },
];

/** Things have no way to go: they are in use from the start, until they are not. */
const THING_STAGES: readonly Stage[] = [
  { key: 'in_use', label: 'In use', publicLabel: 'In use', phase: 'finished', role: 'done' },
  { key: 'resting', label: 'Not in use just now', publicLabel: 'Not in use just now', phase: 'finished' },
  { key: 'deciding', label: 'To be decided', publicLabel: 'Being decided', phase: 'arrived', role: 'deciding' },
  { key: 'refused', label: 'Not taken in', publicLabel: 'Not taken in', phase: 'finished', role: 'refused' },
  { key: 'gone', label: 'Out of use', publicLabel: 'Out of use', phase: 'finished' },
];

/** What a register has from its first form until a release says more. */
const usualFrom = ({ subject, routing, approval, deadline }: FormDesign) => ({
  ...{ subject, unique: [], usual: { routing, approval, deadline } },
});

/**
 * Makes a form and its register. Its doors are there from the start, and lead nowhere until its
 * first release.
 */
export function createForm(
  house: House,
  viewer: Viewer,
  input: BodyOf<'createForm'> & { idempotencyKey: string },
): { key: string } {
  return write(house, ({ tx, now }) => {
    const { idempotencyKey, ...content } = input;
    return once(tx, { key: idempotencyKey, scope: `create form ${viewer.personId}`, content, now }, () => {
      const problems = [
        ...(input.draft.title.trim() === ''
          ? [{ field: 'title', message: 'The form has no title.', fix: 'Give it one.' }]
          : []),
        ...(prefixTaken(tx, input.prefix)
          ? [
              {
                field: 'prefix',
                message: `Another form’s requests are numbered ${input.prefix}-….`,
                fix: 'Choose other letters.',
              },
            ]
          : []),
        ...(groupNames(tx).has(input.desk)
          ? []
          : [{ field: 'desk', message: 'This group does not exist.', fix: 'Choose one of the list.' }]),
        ...planProblems(tx, input.access?.rules ?? []),
        ...(input.doors.staff || input.doors.outside
          ? []
          : [{ field: 'doors', message: 'The form has no door.', fix: 'Choose who may ask.' }]),
      ];
      if (problems.length > 0) throw wrongFields(problems);
      bringVocabularies(tx, input.vocabularies ?? [], { viewer, now });
      const rules = input.access?.rules ?? [];
      const key = freeKey(tx, input.draft.title);
      const registerId = makeRegister(
        tx,
        key,
        {
          name: input.draft.title,
          prefix: input.prefix,
          fields: [],
          holds: input.holds ?? 'requests',
          left: [],
          stages: input.holds === 'things' ? THING_STAGES : STAGES,
          access: { rules },
          staysIn: input.staysIn ?? false,
          deskGroups: [input.desk],
          ...usualFrom(input.draft),
        },
        { viewer, now },
      );
      makeForm(tx, { key, registerId, draft: input.draft, doors: wantedDoors(input.doors) }, { viewer, now });
      if (rules.length > 0)
        rememberPlan(tx, viewer, now, registerId, { kind: 'brought', rules: rules.map((rule) => rule.name) });
      return { key };
    });
  });
}

interface Made {
  readonly key: string;
  readonly registerId: string;
  readonly draft: FormDesign;
  readonly doors: readonly DoorDesign[];
}

/** The doors that are wanted of a new form, open to everybody of their kind. */
export const wantedDoors = ({ staff, outside }: { readonly staff: boolean; readonly outside: boolean }) => [
  ...(staff ? [newDoor('sign-in')] : []),
  ...(outside ? [newDoor('confirmed-address')] : []),
];

/** Makes a form of a register, with doors that lead nowhere until its first release. */
export function makeForm(tx: Transaction, { key, registerId, draft, doors: wanted }: Made, done: Done): void {
  const formId = newId();
  makeDesign(tx, FORM, { id: formId, key, content: draft });
  tx.insert(forms).values({ id: formId, registerId }).run();
  wanted.forEach((design, place) => {
    const stem = place === 0 ? key : design.proof === 'sign-in' ? `${key}-for-staff` : `${key}-from-outside`;
    makeDoor(tx, { formId, slug: freeSlug(tx, stem), design }, done);
  });
}

export const prefixTaken = (db: Reader, prefix: string): boolean =>
  allRegisters(db).some((register) => register.prefix === prefix);

const slugOf = (title: string): string =>
  title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[-0-9]+|-+$/g, '')
    .slice(0, 40) || 'form';

/** An address for the form that no form, register or door has. */
export function freeKey(db: Reader, title: string): string {
  const stem = slugOf(title);
  const taken = (key: string): boolean =>
    key === 'new' ||
    key === 'vocabularies' ||
    key === 'registers' ||
    designByKey(db, FORM, key) !== undefined ||
    registerByKey(db, key) !== undefined ||
    isSlugTaken(db, key);
  for (let n = 1; ; n += 1) {
    const key = n === 1 ? stem : `${stem}-${n}`;
    if (!taken(key)) return key;
  }
}
