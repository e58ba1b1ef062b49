import type { AnswerOf, QueryOf } from '@tolvek/contract';
import { openFields } from '@tolvek/core/access';
import { fieldsOnCards, protectionOf, reachOf } from '@tolvek/core/form';
import { askedByMoves, fieldKeyOf, partsOf } from '@tolvek/core/register';
import { currentRelease, formsOf } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { allRegisters, registerNamed } from '../register/queries.ts';
import { closedElsewhere } from '../request/protection.ts';
import { fieldsFor, wordNames } from './plan.ts';
import { planWritten } from './planWritten.ts';

/** Everything that the value of a field reaches, as the forms in force make it, and who reads it there. */
export function fieldReach(
  db: Reader,
  key: string,
  { field, plan: by }: QueryOf<'fieldReach'>,
): AnswerOf<'fieldReach'> {
  const register = registerNamed(db, key);
  if (!partsOf(fieldsFor(db, register)).some((each) => each.key === field)) throw notFound('field');
  const lines = fieldKeyOf(field);
  const plan = by === 'draft' ? planWritten(db, register) : register.access;
  const names = wordNames(db, plan.rules);
  const released = formsOf(db, register.id).flatMap((form) => {
    const release = currentRelease(db, form);
    return release ? [{ form, release }] : [];
  });
  const closed = closedElsewhere(db, register);
  const isOpen = (activities?: readonly ['letters']): boolean =>
    released.every(({ release: { formId, design } }) =>
      openFields(
        protectionOf(plan, { fields: register.fields, release: { form: formId, design }, ran: register.ran, closed }),
        activities,
      ).some((each) => each.key === lines),
    );
  const isOpenToAll = isOpen();
  return {
    forms: released.flatMap(({ form, release: { formId, design } }) => {
      const places = reachOf(design, { plan, form: formId }, field, names);
      return places?.length === 0
        ? []
        : [
            {
              key: form.key,
              title: design.title,
              places: places?.map((each) => ({ ...each, way: [...each.way] })) ?? null,
            },
          ];
    }),
    isCalled: register.subject.includes(`{${lines}}`),
    inEmails: isOpen(['letters']),
    moves: [...new Set(askedByMoves(register).flatMap((each) => (each.field === lines ? [each.stage.label] : [])))],
    references: allRegisters(db).flatMap(({ name, fields }) =>
      fields.flatMap((pointer) => {
        const { type } = pointer;
        if (type.kind !== 'reference' && type.kind !== 'references') return [];
        const isBrought = fields.some(
          (each) => each.source === 'carried' && each.reference === pointer.key && each.field === lines,
        );
        const isNamed = type.register === key && ([...type.shows, ...fieldsOnCards(type)].includes(lines) || isBrought);
        return isNamed ? [{ register: name, field: pointer.label, isOpen: isOpenToAll }] : [];
      }),
    ),
  };
}
