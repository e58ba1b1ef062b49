import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { DOOR, type DoorDesign, doorAt, kindOfProof, newDoor } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { calendarOf } from '../calendar/queries.ts';
import { changeAtOnce } from '../design/commands.ts';
import { statesOf } from '../design/queries.ts';
import { freeSlug, makeDoor } from '../door/commands.ts';
import { type DoorRow, doorDesign } from '../door/queries.ts';
import { formById, formNamed } from '../form/queries.ts';
import { usedOf } from '../intake/admission.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';

/** A door as it is listed with its form. */
export const doorSettings = ({ slug, kind, design }: DoorRow, now: number): AnswerOf<'setDoor'> => ({
  ...{ slug, kind, name: design.name, open: design.open, closedMessage: design.closedMessage },
  state: doorAt(design, now),
  door: design,
});

/** A door as it is in force, what counts against its limits, and what was in force before. */
export function doorView(db: Reader, slug: string, now: number): AnswerOf<'doorDesign'> {
  const { door } = doorDesign(db, slug);
  const form = formById(db, door.formId);
  if (!form) throw notFound('formOfDoor');
  const states = statesOf<DoorDesign>(db, { id: door.id });
  const names = namesOf(
    db,
    states.map(({ by }) => by),
  );
  const used = usedOf(db, door, { personId: null, now, zone: calendarOf(db, form.draft.deadline.calendar).zone });
  return {
    ...{ slug, form: form.key, version: door.version, door: door.design },
    used: door.design.limits.flatMap((limit) => (limit.of === 'all' ? [{ limit: limit.id, n: used(limit) }] : [])),
    states: states.map(({ number, note, by, at, content }) => ({
      ...{ number, note, by: names.get(by) ?? '', at: iso(at), door: content },
    })),
  };
}

/**
 * Changes a door, in force at once.
 *
 * @throws Problem 412 when somebody was faster; 422 when nobody could come in by it, when it names a group that
 *   there is not, or when it would prove people in a way of another kind: conditions about what came by it know that.
 */
export function settleDoor(
  house: House,
  viewer: Viewer,
  { slug, version, door: content, note }: BodyOf<'changeDoor'> & { readonly slug: string; readonly version: number },
): AnswerOf<'changeDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    if (design.version !== version) throw staleVersion();
    const groups = groupNames(tx);
    const wrong = [
      ...DOOR.findings(content, null).map(({ at, message }) => ({
        field: at,
        message,
        fix: said('workshopErrors:correctIt'),
      })),
      ...DOOR.refersTo(content).flatMap(({ key }) =>
        groups.has(key)
          ? []
          : [
              {
                field: 'audience',
                message: said('workshopErrors:noGroupKey', { group: key }),
                fix: said('workshopErrors:chooseGroups'),
              },
            ],
      ),
      ...(kindOfProof(content.proof) === door.kind
        ? []
        : [
            {
              ...{
                field: 'proof',
                message: said('workshopErrors:doorKindStays'),
              },
              fix: said('workshopErrors:addOtherDoor'),
            },
          ]),
    ];
    if (wrong.length > 0) throw wrongFields(wrong);
    return { version: changeAtOnce(tx, design, { version, content, note: note.trim() }, { viewer, now }) };
  });
}

/** Opens or closes a door, and says what people read when it is closed. */
export function setDoor(
  house: House,
  viewer: Viewer,
  { slug, ...set }: BodyOf<'setDoor'> & { readonly slug: string },
): AnswerOf<'setDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    const content = { ...design.draft, ...set };
    changeAtOnce(tx, design, { version: design.version, content, note: '' }, { viewer, now });
    return doorSettings({ ...door, design: content }, now);
  });
}

/** Adds a door to a form. */
export function addDoor(
  house: House,
  viewer: Viewer,
  { form: key, once: once_, ...input }: BodyOf<'addDoor'> & { readonly form: string; readonly once: string },
): AnswerOf<'addDoor'> {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `add door ${viewer.personId}`, content: [key, input], now }, () => {
      const form = formNamed(tx, key);
      const slug = freeSlug(tx, form.key);
      const design = newDoor(input.proof, input.name);
      makeDoor(tx, { formId: form.id, slug, design }, { viewer, now });
      return { slug };
    }),
  );
}
