import type { BodyOf } from '@tolvek/contract';
import { rulesAmong } from '@tolvek/core/access';
import { type DoorDesign, newDoor } from '@tolvek/core/door';
import { FORM, type FormDesign } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Stage } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import type { Speech } from '@tolvek/words/speech';
import { type Done, makeDesign } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import { freeSlug, isSlugTaken, makeDoor } from '../door/commands.ts';
import { forms } from '../form/tables.ts';
import { groupNames, spokenTo } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { freeName } from '../platform/freeName.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { makeRegister } from '../register/commands.ts';
import { allRegisters, registerByKey } from '../register/queries.ts';
import { planProblems, rememberPlan } from './plan.ts';
import { bringVocabularies } from './vocabularies.ts';

type Say = Speech['say'];

/** Where a request of a new form can be, until its coordinator says otherwise; called in their language. */
const stagesIn = (say: Say): readonly Stage[] => [
  { key: 'arrived', label: say('stages:arrived'), publicLabel: say('stages:arrivedPublic'), phase: 'arrived' },
  {
    ...{ key: 'deciding', label: say('stages:deciding'), publicLabel: say('stages:decidingPublic') },
    ...{ phase: 'arrived', role: 'deciding' },
  },
  { key: 'in_hand', label: say('stages:inHand'), publicLabel: say('stages:inHand'), phase: 'working' },
  { key: 'waiting', label: say('stages:waiting'), publicLabel: say('stages:waitingPublic'), phase: 'paused' },
  { key: 'done', label: say('stages:done'), publicLabel: say('stages:done'), phase: 'finished', role: 'done' },
  {
    ...{ key: 'refused', label: say('stages:refused'), publicLabel: say('stages:refused') },
    ...{ phase: 'finished', role: 'refused' },
  },
];

/** Things have no way to go: they are in use from the start, until they are not. */
const thingStagesIn = (say: Say): readonly Stage[] => [
  { key: 'in_use', label: say('stages:inUse'), publicLabel: say('stages:inUse'), phase: 'finished', role: 'done' },
  { key: 'resting', label: say('stages:resting'), publicLabel: say('stages:resting'), phase: 'finished' },
  {
    ...{ key: 'deciding', label: say('stages:deciding'), publicLabel: say('stages:decidingPublic') },
    ...{ phase: 'arrived', role: 'deciding' },
  },
  {
    ...{ key: 'refused', label: say('stages:notAdded'), publicLabel: say('stages:notAdded') },
    ...{ phase: 'finished', role: 'refused' },
  },
  { key: 'gone', label: say('stages:gone'), publicLabel: say('stages:gone'), phase: 'finished' },
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
          ? [{ field: 'title', message: said('workshopErrors:noFormTitle'), fix: said('workshopErrors:enterTitle') }]
          : []),
        ...(prefixTaken(tx, input.prefix)
          ? [
              {
                field: 'prefix',
                message: said('workshopErrors:prefixTaken', { prefix: input.prefix }),
                fix: said('workshopErrors:otherLetters'),
              },
            ]
          : []),
        ...(groupNames(tx).has(input.desk)
          ? []
          : [{ field: 'desk', message: said('workshopErrors:noGroup'), fix: said('workshopErrors:chooseGroup') }]),
        ...planProblems(tx, input.access?.rules ?? []),
        ...(input.doors.staff || input.doors.outside
          ? []
          : [{ field: 'doors', message: said('workshopErrors:noDoor'), fix: said('workshopErrors:chooseDoor') }]),
      ];
      if (problems.length > 0) throw wrongFields(problems);
      bringVocabularies(tx, input.vocabularies ?? [], { viewer, now });
      const speech = spokenTo(tx, viewer.personId);
      const stages = (input.holds === 'things' ? thingStagesIn : stagesIn)(speech.say);
      const rules = rulesAmong(
        input.access?.rules ?? [],
        stages.map((stage) => stage.key),
      );
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
          stages,
          access: { rules, placed: input.draft.fields.map((field) => field.key) },
          staysIn: input.staysIn ?? false,
          deskGroups: [input.desk],
          ...usualFrom(input.draft),
        },
        { viewer, now },
      );
      makeForm(tx, { key, registerId, draft: input.draft, doors: wantedDoors(input.doors, speech) }, { viewer, now });
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
export const wantedDoors = (
  { staff, outside }: { readonly staff: boolean; readonly outside: boolean },
  { say }: Speech,
) => [
  ...(staff ? [newDoor('sign-in', say('doors:staffDoor'))] : []),
  ...(outside ? [newDoor('confirmed-address', say('doors:outsideDoor'))] : []),
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
    key === 'groundwork' ||
    designByKey(db, FORM, key) !== undefined ||
    registerByKey(db, key) !== undefined ||
    isSlugTaken(db, key);
  return freeName(stem, taken);
}
