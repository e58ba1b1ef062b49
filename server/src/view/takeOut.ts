import type { Revealed } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { guarded } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { formNamed, releaseInForce } from '../form/queries.ts';
import { groupNames, spokenTo, staffIn } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { notAllowed } from '../platform/problem.ts';
import { type RegisterRow, registerById, stageOf } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { openRequest } from '../request/open.ts';
import { requestsNamed } from '../request/references.ts';
import { requests } from '../request/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { keptBy } from './keptBy.ts';
import { readOnce } from './readOnce.ts';

/** What every request has besides its fields. */
const FIXED = ['number', 'stage', 'requester', 'team', 'handler', 'arrived', 'due', 'finished'] as const;

/** A line of a sheet: what every request has, and its fields as whoever takes it out may read them. */
export interface SheetLine {
  readonly fixed: readonly string[];
  readonly cells: Revealed<readonly string[]>;
}

interface Sheet {
  readonly head: readonly string[];
  readonly lines: Generator<SheetLine>;
  /** Whether the reading of some field is noted. */
  readonly isNoted: boolean;
  readonly register: RegisterRow;
  /** What the form is called. */
  readonly title: string;
}

/** Cells as a line of CSV, guarded against being taken for formulas. */
export const csvLine = (cells: readonly string[]): string =>
  `${Papa.unparse([cells.map(guarded)], { quotes: true })}\r\n`;

/**
 * The requests of a form as a sheet, line by line: each with what this viewer may read of it.
 *
 * @throws Problem 403 where what is in the register stays in the house.
 */
export function takeOut(db: Reader, viewer: Viewer, formKey: string, among: 'unfinished' | 'all'): Sheet {
  const form = formNamed(db, formKey);
  const register = registerById(db, form.registerId);
  if (register.staysIn) throw notAllowed(refused('neverExported', { register: register.name }));
  const wanted = and(countedIn(register.id, among), eq(requests.formId, form.id));
  const { say } = spokenTo(db, viewer.personId);
  return {
    head: [...FIXED.map((name) => say(`sheets:column.${name}`)), ...register.fields.map((field) => field.label)],
    lines: linesOf(db, viewer, register, wanted),
    isNoted: (register.access.noted?.length ?? 0) > 0,
    register,
    title: releaseInForce(db, form.id)?.design.title ?? form.draft.title,
  };
}

function* linesOf(
  db: Reader,
  viewer: Viewer,
  register: RegisterRow,
  wanted: ReturnType<typeof countedIn>,
): Generator<SheetLine> {
  const around = { vocabularies: vocabulariesFor(db, register.fields), people: staffIn(db, 'all') };
  const teams = groupNames(db);
  const names = readOnce(db).nameOf;
  for (const request of eachRequest(db, wanted)) {
    const open = openRequest(db, request, viewer, 'taking-out', { register, names });
    if (!open.relation.isDesk || !open.may('export')) continue;
    const references = requestsNamed(db, register.fields, request.values);
    yield {
      fixed: [
        request.number,
        stageOf(register, request.stage).label,
        request.requesterId === null ? (request.claim?.name ?? '') : (names(request.requesterId) ?? ''),
        keptBy(request, register, teams),
        request.handlerId ? (names(request.handlerId) ?? '') : '',
        iso(request.createdAt),
        request.due === null ? '' : iso(request.due),
        request.finishedAt === null ? '' : iso(request.finishedAt),
      ],
      cells: open.cells(register.fields, { ...around, references }),
    };
  }
}
