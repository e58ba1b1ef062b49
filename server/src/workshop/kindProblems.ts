import { type FormDesign, partName } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  type Field,
  type Problem as FieldProblem,
  fitsAsHeld,
  KIND_CHANGES,
  type KindName,
  mayBecome,
  type RawAnswer,
} from '@tolvek/core/register';
import { type Said, said, type Words } from '@tolvek/words';
import { and, asc, eq, sql } from 'drizzle-orm';
import { doors, waitingSubmissions } from '../door/tables.ts';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { history, requests } from '../request/tables.ts';

const inWords = (kind: KindName): Said => said(`fieldKinds:${kind}`);

/**
 * Kinds of fields that change in a draft where they can’t: no pair of the published list, or a pair
 * whose answers, as they are held, are not all of the new kind. Whoever may not read all of them is
 * told nothing of them.
 */
export function kindProblems(db: Reader, viewer: Viewer, register: RegisterRow, draft: FormDesign): FieldProblem[] {
  return draft.fields.flatMap((field): FieldProblem[] => {
    const before = register.fields.find((each) => each.key === field.key);
    if (!before) return [];
    const [from, to] = [before.type.kind, field.type.kind];
    if (from === to) return columnProblems(before, field);
    const name = partName(draft, field.key);
    if (!mayBecome(from, to)) {
      const others = (KIND_CHANGES[from] ?? []).map(inWords);
      return [
        {
          field: field.key,
          message:
            others.length > 0
              ? said('workshopErrors:kindCanBecome', { name, from: inWords(from), others })
              : said('workshopErrors:kindHasAnswers', { name, from: inWords(from) }),
          fix: said('workshopErrors:keepKind'),
        },
      ];
    }
    const asked = askableOf(db, viewer, register, [field.key]);
    if (!asked.isAll)
      return [
        {
          field: field.key,
          message: said('workshopErrors:kindNeedsReader', { name }),
          fix: said('workshopErrors:askReader'),
        },
      ];
    const wrong = held(db, register, field.key).filter(({ value }) => !fitsAsHeld(field, value));
    const [first] = wrong;
    if (!first) return [];
    return [
      {
        field: field.key,
        message: said('workshopErrors:kindCannot', {
          ...{ name, to: inWords(to), where: first.where, value: String(first.value), count: wrong.length },
        }),
        fix: said('workshopErrors:correctAnswers'),
      },
    ];
  });
}

/** Columns keep their kinds: lines that are held have cells of it. */
function columnProblems(before: Field, after: Field): FieldProblem[] {
  if (before.type.kind !== 'line-items' || after.type.kind !== 'line-items') return [];
  const was = before.type.columns;
  return after.type.columns.flatMap((column): FieldProblem[] => {
    const old = was.find((each) => each.key === column.key);
    return !old || old.type.kind === column.type.kind
      ? []
      : [
          {
            field: after.key,
            message: said('workshopErrors:columnHasCells', { column: column.label, from: inWords(old.type.kind) }),
            fix: said('workshopErrors:keepColumnKind'),
          },
        ];
  });
}

interface Held {
  readonly where: Words;
  readonly value: RawAnswer;
}

/**
 * Every answer to a field that is held: by requests, their histories, and what waits to be confirmed.
 * What is begun and not sent can still be corrected by whoever types it.
 */
function held(db: Reader, register: RegisterRow, key: string): readonly Held[] {
  const inRequests = db
    .select({ where: requests.number, value: sql<string | null>`json_extract(${requests.values}, ${`$."${key}"`})` })
    .from(requests)
    .where(and(eq(requests.registerId, register.id), eq(requests.trial, false)))
    .orderBy(asc(requests.createdAt))
    .all();
  const inHistory = db
    .select({
      where: requests.number,
      before: sql<string | null>`json_extract(change.value, '$.before')`,
      after: sql<string | null>`json_extract(change.value, '$.after')`,
    })
    .from(history)
    .innerJoin(requests, eq(requests.id, history.requestId))
    .innerJoin(sql`json_each(${history.changes}) as change`, sql`json_extract(change.value, '$.field') = ${key}`)
    .where(and(eq(requests.registerId, register.id), eq(requests.trial, false)))
    .all();
  const waiting = db
    .select({ answers: waitingSubmissions.answers })
    .from(waitingSubmissions)
    .innerJoin(doors, eq(doors.id, waitingSubmissions.doorId))
    .innerJoin(forms, eq(forms.id, doors.formId))
    .where(eq(forms.registerId, register.id))
    .all();
  return [
    ...inRequests.flatMap(({ where, value }) => (value === null ? [] : [{ where, value }])),
    ...inHistory.flatMap(({ where, before, after }) =>
      [before, after].flatMap((value) =>
        value === null ? [] : [{ where: said('workshopErrors:historyOf', { number: where }), value }],
      ),
    ),
    ...waiting.flatMap(({ answers }): Held[] => {
      const value = own(answers, key);
      return value === undefined ? [] : [{ where: said('workshopErrors:waitingAnswer'), value }];
    }),
  ];
}
