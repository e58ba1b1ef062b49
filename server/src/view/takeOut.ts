import { reveal } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { cellOf, type Field, guarded } from '@tolvek/core/register';
import { and, eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { formByKey } from '../form/queries.ts';
import { groupNames, staffIn } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { notAllowed, notFound } from '../platform/problem.ts';
import { registerById, stageOf } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { openFor } from '../request/open.ts';
import { requestsNamed } from '../request/references.ts';
import { requests } from '../request/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { readOnce } from './readOnce.ts';

/** What every request has besides its fields. */
const FIXED = ['Number', 'Stage', 'Requester', 'Team', 'Handler', 'Arrived', 'Due', 'Finished'] as const;

/**
 * The requests of a form as a sheet, line by line: each with what this viewer may read of it. What
 * no viewer may take out stays in the house. Cells are guarded against being taken for formulas.
 */
export function* takeOut(db: Reader, viewer: Viewer, formKey: string, among: 'unfinished' | 'all'): Generator<string> {
  const form = formByKey(db, formKey);
  if (!form) throw notFound('This form');
  const register = registerById(db, form.registerId);
  if (register.staysIn) throw notAllowed(`What is in “${register.name}” is read here, and never taken out.`);
  const line = (cells: readonly string[]): string => `${Papa.unparse([cells.map(guarded)], { quotes: true })}\r\n`;
  const around = { vocabularies: vocabulariesFor(db, register.fields), people: staffIn(db, 'all') };
  const teams = groupNames(db);
  const names = readOnce(db).nameOf;
  yield line([...FIXED, ...register.fields.map((field) => field.label)]);
  const wanted = and(countedIn(register.id, among), eq(requests.formId, form.id));
  for (const request of eachRequest(db, wanted)) {
    const { relation, access } = openFor(db, request, viewer, { register, names });
    if (!relation.isDesk) continue;
    const visible = reveal({ ...access, values: request.values });
    const references = requestsNamed(db, register.fields, request.values);
    const cell = (field: Field): string => {
      const value = visible.fields.find((each) => each.key === field.key)?.value ?? null;
      return value === null ? '' : cellOf(field, value, names, { ...around, references });
    };
    yield line([
      request.number,
      stageOf(register, request.stage).label,
      names(request.requesterId) ?? '',
      teams.get(request.team) ?? request.team,
      request.handlerId ? (names(request.handlerId) ?? '') : '',
      iso(request.createdAt),
      iso(request.due),
      request.finishedAt === null ? '' : iso(request.finishedAt),
      ...register.fields.map(cell),
    ]);
  }
}
