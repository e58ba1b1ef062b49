import { openFields, type Protection, type ValueChange } from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { currentRelease, formsOf, releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, type Registers, registersIn } from '../register/queries.ts';
import { type Came, fieldsOf } from './fields.ts';

/** What protects the fields of a request: the plan in force, and what each is made from. */
export function protectionFor(
  db: Reader,
  register: RegisterRow,
  request: Came,
  registers: Registers = registersIn(db),
): Protection {
  const { formId, design } = releaseById(db, request.releaseId).release;
  const fields = fieldsOf(db, register, request);
  const closed = closedElsewhere(db, register, registers);
  return protectionOf(register.access, { fields, release: { form: formId, design }, ran: register.ran, closed });
}

/**
 * Fields of a register that other forms may show, ask by and carry along: those that its plan hides
 * from nobody of its desk, for a request that came by some release.
 */
export const openToOthers = (db: Reader, register: RegisterRow, came: Came): readonly Field[] =>
  openFields(protectionFor(db, register, came));

/** The same in general, as the forms in force of a register make its fields. */
export function openAsReleased(db: Reader, register: RegisterRow, registers = registersIn(db)): readonly Field[] {
  const released = formsOf(db, register.id).flatMap((form) => currentRelease(db, form) ?? []);
  const closed = closedElsewhere(db, register, registers);
  const by = released.map(({ formId, design }) =>
    openFields(
      protectionOf(register.access, {
        fields: register.fields,
        release: { form: formId, design },
        ran: register.ran,
        closed,
      }),
    ),
  );
  return register.fields.filter((field) => by.every((open) => open.includes(field)));
}

/** For a register as it was read, so that many requests of one page ask once. */
const closedIn = new WeakMap<RegisterRow, readonly string[]>();

/** The same list for the same fields: what was made ready for it is used again. */
const lists = new Map<string, readonly string[]>([['', []]]);

/** Registers that are being looked at: references may go round in a circle. */
const looking = new Set<string>();

/**
 * The fields of a register that are brought along from where they are closed by now: by a plan that
 * changed after they were brought.
 */
export function closedElsewhere(
  db: Reader,
  register: RegisterRow,
  registers: Registers = registersIn(db),
): readonly string[] {
  const known = closedIn.get(register);
  if (known || looking.has(register.key)) return known ?? [];
  looking.add(register.key);
  try {
    const { fields } = register;
    const closed = fields.flatMap((field) => {
      const pointer = field.source === 'carried' ? fields.find((each) => each.key === field.reference) : undefined;
      const target = pointer?.type.kind === 'reference' ? registers.byKey(pointer.type.register) : undefined;
      if (field.source !== 'carried' || !target) return [];
      return openAsReleased(db, target, registers).some((each) => each.key === field.field) ? [] : [field.key];
    });
    const name = closed.join(' ');
    const found = lists.get(name) ?? closed;
    lists.set(name, found);
    closedIn.set(register, found);
    return found;
  } finally {
    looking.delete(register.key);
  }
}

/**
 * Whether what changed can be seen by everybody who works on a request. Only then does its version
 * rise, and only then is it told: that something changed which somebody may not read would tell.
 */
export function isToldToAll(
  db: Reader,
  register: RegisterRow,
  request: Came,
  changes: readonly Pick<ValueChange, 'field'>[],
): boolean {
  const open = openFields(protectionFor(db, register, request), ['working']);
  return changes.some((change) => open.some((field) => field.key === change.field));
}
