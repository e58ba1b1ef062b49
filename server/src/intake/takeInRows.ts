import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { isReferring } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  type Field,
  type Problem as FieldProblem,
  type RawAnswers,
  type RequestFacts,
  typedFromCell,
  unguarded,
} from '@tolvek/core/register';
import { and, eq, inArray } from 'drizzle-orm';
import { currentRelease, formByKey } from '../form/queries.ts';
import { personByEmail, personById, personByName, staffIn } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { registerByKey } from '../register/queries.ts';
import { factsFor } from '../request/facts.ts';
import { requests } from '../request/tables.ts';
import { UNKNOWN } from './admission.ts';
import { admitted, consider } from './arrive.ts';

type Row = BodyOf<'takeInRows'>['rows'][number];
type Told = AnswerOf<'takeInRows'>['rows'][number];

/** Carries the answer of a dry run out of the transaction that is taken back. */
class TakenBack extends Error {
  constructor(readonly answer: AnswerOf<'takeInRows'>) {
    super('A dry run keeps nothing.');
  }
}

/**
 * Takes rows of a sheet in, by the same way as requests from a door: completed, routed, planned.
 * Rows that are refused stay out and are told; the others come in. A dry run does all of it and
 * keeps nothing, so that what it tells is what would happen.
 */
export function takeInRows(
  house: House,
  viewer: Viewer,
  formKey: string,
  { rows, apply }: BodyOf<'takeInRows'>,
  key: string,
): AnswerOf<'takeInRows'> {
  try {
    return write(house, (work) => {
      const { tx, now } = work;
      const run = (): AnswerOf<'takeInRows'> => {
        const told = takeAll(work, viewer, formKey, rows);
        const bad = told.filter((row) => row.number === null).length;
        const answer = { applied: apply, good: told.length - bad, bad, rows: told };
        if (!apply) throw new TakenBack(answer);
        return answer;
      };
      return apply ? once(tx, { key, scope: `rows ${formKey} ${viewer.personId}`, content: rows, now }, run) : run();
    });
  } catch (error) {
    if (error instanceof TakenBack) return error.answer;
    throw error;
  }
}

function takeAll(work: Work, viewer: Viewer, formKey: string, rows: readonly Row[]): Told[] {
  const { tx, now } = work;
  const form = formByKey(tx, formKey);
  const release = form && currentRelease(tx, form);
  if (!form || !release) throw notFound('A release of this form');
  const importer = personById(tx, viewer.personId);
  if (!importer) throw notFound('Whoever takes these in');
  const { design } = release;
  const told = factsFor(tx, { door: { kind: 'staff' }, design, requester: importer, now });
  const picked = { people: staffIn(tx, 'all'), vocabularies: told.vocabularies };
  const known = { ...told, ...picked, references: requestsByNumber(tx, design.fields, rows) };
  return rows.map((row): Told => {
    const said = row.requester.trim();
    const requester = said === '' ? importer : (personByEmail(tx, said) ?? personByName(tx, said));
    if (!requester?.active)
      return refused([
        {
          field: 'requester',
          message: `“${said}” is no address of anybody here, and no name that only one has.`,
          fix: 'Mend it, or leave the cell empty to ask in your own name.',
        },
      ]);
    const answers = answersIn(row, design.fields, known);
    const through = { by: 'sheet of rows' } as const;
    const admits = { ...UNKNOWN, kind: requester.kind };
    const arriving = { through, release, door: null, comesBy: 'staff', asks: requester, admits } as const;
    const considered = consider(tx, { ...arriving, answers, picked }, now);
    if (considered.is !== 'fine') return refused(considered.is === 'wrong' ? considered.problems : []);
    const request = admitted(by(work, importer.id), { ...arriving, answers }, considered, {
      ...{ doorId: null, requesterId: requester.id },
      ...(importer.id === requester.id ? {} : { enteredById: importer.id }),
    });
    return { number: request.number, problems: [] };
  });
}

const refused = (problems: readonly FieldProblem[]): Told => ({
  number: null,
  problems: problems.map(({ field, message, fix }) => ({ field, message, fix })),
});

/** The cells of a row as answers; empty ones are no answers. */
function answersIn(row: Row, fields: readonly Field[], around: RequestFacts): RawAnswers {
  return Object.fromEntries(
    Object.entries(row.cells).flatMap(([key, cell]) => {
      const field = fields.find((each) => each.key === key);
      const answer = field ? typedFromCell(field, unguarded(cell), around) : cell;
      return answer === null || answer === '' ? [] : [[key, answer]];
    }),
  );
}

/** The requests that cells of references name by number. */
function requestsByNumber(tx: Transaction, fields: readonly Field[], rows: readonly Row[]): RequestFacts['references'] {
  return fields.flatMap((field) => {
    const { type } = field;
    if (!isReferring(type)) return [];
    const named = [
      ...new Set(
        rows.flatMap((row) => (own(row.cells, field.key) ?? '').split(';').map((part) => part.trim().toUpperCase())),
      ),
    ].filter(Boolean);
    const register = registerByKey(tx, type.register);
    if (!register || named.length === 0) return [];
    return tx
      .select({ id: requests.id, number: requests.number })
      .from(requests)
      .where(and(eq(requests.registerId, register.id), inArray(requests.number, named.slice(0, 5_000))))
      .all()
      .map(({ id, number }) => ({ id, number, register: register.key, label: number, values: {} }));
  });
}
