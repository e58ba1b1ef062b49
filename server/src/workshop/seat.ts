import type { AnswerOf } from '@tolvek/contract';
import { calledApart } from '@tolvek/core/people';
import { knownOf, personById, rightsIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';

/**
 * Who somebody is to what audiences and conditions of a register’s forms ask.
 *
 * @throws Problem 404 for who is not here, or not any more.
 */
export function seatAt(db: Reader, register: string, id: string): AnswerOf<'proofSeat'> {
  const person = personById(db, id);
  if (!person?.active) throw notFound('person');
  const { groups, department, profile } = knownOf(db, id);
  return {
    ...{ key: id, label: calledApart(person), kind: person.kind },
    ...{ groups: [...groups], department, profile: profile.values },
    rights: [...rightsIn(db, id, register)],
  };
}
