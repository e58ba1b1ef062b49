import { type Field, priorities, termsInOrder, type Vocabulary } from '@tolvek/core/register';
import { isFact, kindIn, type ViewFact } from '@tolvek/core/view';
import { type SQL, sql } from 'drizzle-orm';
import { heldIn } from '../platform/heldIn.ts';
import { DAY_IN, FOLDED } from '../platform/sqlFunctions.ts';
import type { RegisterRow } from '../register/queries.ts';
import { requests } from '../request/tables.ts';

/** What SQLite reads of something that a view names: as it tells two apart, and as it puts them in order. */
export interface SubjectSql {
  /** Equal where rows belong together; null where there is nothing. */
  readonly is: SQL;
  readonly order: SQL;
}

/** What facts and fields are read with. */
export interface SubjectsIn {
  readonly registers: readonly RegisterRow[];
  readonly forms: readonly { readonly id: string; readonly title: string }[];
  readonly fields: readonly Field[];
  readonly vocabularies: (key: string) => Pick<Vocabulary, 'terms'>;
  /** The zone of the desk: days are its days. */
  readonly zone: string;
}

/** The place of a value among some that have an order of their own; after all of them where it is none. */
function placeIn(value: SQL, among: readonly (string | number)[]): SQL {
  if (among.length === 0) return value;
  const whens = among.map((each, place) => sql`when ${each} then ${place}`);
  // Nothing for nothing without asking for it: SQLite answers `is null` beforehand for what is always there, in a question and not in an index.
  return sql`(case ${value} ${sql.join(whens, sql` `)} else length(${value}) * 0 + ${among.length} end)`;
}

const folded = (value: SQL): SQL => sql`${sql.raw(FOLDED)}(${value})`;
const dayOf = (moment: SQL, zone: string): SQL => sql`${sql.raw(DAY_IN)}(${moment}, ${zone})`;
const nameOfPerson = (id: SQL): SQL => folded(sql`(select name from people where id = ${id})`);

function factSql(fact: ViewFact, { registers, forms, zone }: SubjectsIn): SubjectSql {
  const moment = (at: SQL): SubjectSql => ({ is: dayOf(at, zone), order: at });
  switch (fact) {
    case 'request.number':
    case 'request.subject':
      return { is: sql`${requests.number}`, order: sql`${requests.number}` };
    case 'requester.person': {
      const id = sql`${requests.requesterId}`;
      return { is: id, order: nameOfPerson(id) };
    }
    case 'request.form': {
      const byTitle = forms.toSorted((a, b) => a.title.localeCompare(b.title)).map(({ id }) => id);
      return { is: sql`${requests.formId}`, order: placeIn(sql`${requests.formId}`, byTitle) };
    }
    case 'request.stage': {
      const stages = [...new Set(registers.flatMap((register) => register.stages.map(({ key }) => key)))];
      return { is: sql`${requests.stage}`, order: placeIn(sql`${requests.stage}`, stages) };
    }
    case 'request.team':
      return {
        is: sql`${requests.team}`,
        order: folded(sql`(select name from "groups" where "key" = ${requests.team})`),
      };
    case 'request.handler': {
      const id = sql`${requests.handlerId}`;
      return { is: id, order: nameOfPerson(id) };
    }
    case 'request.priority':
      return { is: sql`${requests.priority}`, order: placeIn(sql`${requests.priority}`, priorities) };
    case 'request.arrived':
      return moment(sql`${requests.createdAt}`);
    case 'request.due':
      return moment(sql`${requests.due}`);
    case 'request.finished':
      return moment(sql`${requests.finishedAt}`);
  }
}

function fieldSql(field: Field, { vocabularies }: SubjectsIn): SubjectSql {
  const held = heldIn(requests.values, field);
  const { type } = field;
  switch (type.kind) {
    case 'choice':
      return {
        is: held,
        order: placeIn(
          held,
          type.options.map(({ key }) => key),
        ),
      };
    case 'term': {
      const terms = termsInOrder(vocabularies(type.vocabulary)).map(({ term }) => term.key);
      const places = JSON.stringify(Object.fromEntries(terms.map((key, place) => [key, place])));
      return { is: held, order: sql`json_extract(${places}, '$."' || ${held} || '"')` };
    }
    case 'person':
      return { is: held, order: nameOfPerson(held) };
    case 'reference':
      return { is: held, order: sql`(select other.number from requests other where other.id = ${held})` };
    case 'date-time':
      return { is: sql`substr(${held}, 1, 10)`, order: held };
    case 'text':
    case 'email':
    case 'running-number':
      return { is: held, order: folded(held) };
    default:
      return { is: held, order: held };
  }
}

/** What SQLite reads of a fact or a field; null for what is not there. */
export function subjectSql(subject: string, given: SubjectsIn): SubjectSql | null {
  if (isFact(subject)) return factSql(subject, given);
  const field = given.fields.find(({ key }) => key === subject);
  return field && kindIn(subject, given.fields) !== null ? fieldSql(field, given) : null;
}
