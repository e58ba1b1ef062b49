import type { BodyOf } from '@tolvek/contract';
import type { Revealed } from '@tolvek/core/access';
import { wallClockAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import {
  type Field,
  type FieldValue,
  type SpreadsheetCell,
  type SpreadsheetKind,
  spreadsheetCell,
  spreadsheetKind,
} from '@tolvek/core/register';
import { calledIn, isFact, kindIn, subjectsOfShape, type ViewFact } from '@tolvek/core/view';
import { refused, said, type Words } from '@tolvek/words';
import { inArray } from 'drizzle-orm';
import type { Response } from 'express';
import { spokenTo, staffIn } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, wrongFields } from '../platform/problem.ts';
import { settleReads } from '../platform/reads.ts';
import { inTurns } from '../platform/turns.ts';
import { openRequest } from '../request/open.ts';
import { requestsNamed } from '../request/references.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { sendPieces, sendSheet } from './files.ts';
import { rowsOf } from './ledger.ts';
import { readOnce } from './readOnce.ts';
import { shownBy } from './shownRows.ts';
import { noteTakenOut } from './takenOut.ts';
import { beganLook, sayFact } from './viewed.ts';
import type { ViewLook } from './viewLook.ts';
import { idsThrough } from './viewWay.ts';

/** Rows that are read at once. */
const PAGE = 200;

type Shown = ReturnType<typeof shownBy>[number];

/** What is taken out of one request: what everything has, and its fields as cells and as they hold it. */
interface Line {
  readonly row: Shown;
  readonly cells: Revealed<readonly string[]>;
  readonly held: Readonly<Record<string, FieldValue | null>>;
}

/** The rows of a view in their order, of those that its reader may take out. `only`: the numbers of some. */
function* linesOf(look: ViewLook, fields: readonly Field[], only?: readonly string[]): Generator<Line> {
  const { db, viewer } = look;
  const { registers, nameOf: names } = readOnce(db);
  const around = { vocabularies: vocabulariesFor(db, fields), people: staffIn(db, 'all') };
  for (const ids of idsThrough(look, only && inArray(requests.number, [...only]), PAGE)) {
    const found = rowsOf(db, ids);
    const shown = shownBy(look, found);
    for (const [at, request] of found.entries()) {
      const open = openRequest(db, request, viewer, 'taking-out', { registers, names });
      const row = shown[at];
      if (!row || !open.relation.isDesk || !open.may('export')) continue;
      const references = requestsNamed(db, fields, request.values);
      yield {
        row,
        cells: open.cells(fields, { ...around, references }),
        held: Object.fromEntries(open.valuesOf(fields).fields.map(({ key, value }) => [key, value])),
      };
    }
  }
}

/**
 * Sends the rows of a view, all or only some, as a file: what its reader may read and take out. Whose reading is noted is gone through once
 * before.
 *
 * @throws Problem 403 where what is in a register stays in the house, 422 for a view that names what is not there for them
 */
export async function takeOutView(
  house: House,
  viewer: Viewer,
  { view, as, only }: BodyOf<'takeOutView'>,
  response: Response,
): Promise<void> {
  const { db, clock } = house;
  const { look, findings, says } = beganLook(db, viewer, view, clock.now());
  if (!look)
    throw wrongFields(findings.map(({ at, message }) => ({ field: at, message, fix: said('views:correctIt') })));
  const { registers, fields: nameable } = look.given;
  const inside = registers.find(({ staysIn }) => staysIn);
  if (inside) throw notAllowed(refused('neverExported', { register: inside.name }));
  const shapes = view.shapes.flatMap(subjectsOfShape);
  const columns = [...new Set([...view.columns.map(({ of }) => of), ...(as === 'json' || as === 'ics' ? shapes : [])])];
  const fields = columns.flatMap((of) => nameable.find(({ key }) => key === of) ?? []);
  if (registers.some(({ access }) => (access.noted?.length ?? 0) > 0)) {
    for await (const _ of inTurns(linesOf(look, fields, only)));
    await settleReads(house);
  }
  const sentence = said('views:sentence', { parts: says.map(({ words }) => words) });
  await noteTakenOut(house, viewer.personId, registers, { what: view.name || sentence, as });
  const { told } = spokenTo(db, viewer.personId);
  const factOf = (fact: ViewFact, row: Shown): string => told(factInFile(fact, row));
  const lines = inTurns(linesOf(look, fields, only));
  if (as === 'csv') await sendSheet(response, 'view.csv', sheet());
  else await sendPieces(response, { name: 'view.json', type: 'application/json' }, as === 'xlsx' ? cells() : pieces());

  async function* sheet(): AsyncGenerator<readonly string[]> {
    yield columns.map((of) => told(calledIn(of, nameable)));
    for await (const { row, cells } of lines)
      yield columns.map((of) =>
        isFact(of) ? factOf(of, row) : (cells[fields.findIndex(({ key }) => key === of)] ?? ''),
      );
  }

  /** What a spreadsheet is made of: its columns, and each row after its number. */
  async function* cells(): AsyncGenerator<string> {
    const { zone } = deskOf(db);
    const made = columns.map((of) =>
      isFact(of) ? ofFact(of, zone) : ofField(fields.findIndex(({ key }) => key === of)),
    );
    yield `[${JSON.stringify(made.map(({ kind }, at) => ({ label: told(calledIn(columns[at] ?? '', nameable)), ...kind })))}`;
    for await (const line of lines)
      yield `,\n${JSON.stringify([line.row.number, ...made.map(({ cell }) => cell(line))])}`;
    yield ']\n';
  }

  /** A column of a spreadsheet: what it holds, and its cell of a line. */
  function ofField(at: number): SpreadsheetColumn {
    const field = fields[at] as Field;
    return {
      kind: spreadsheetKind(field.type),
      cell: ({ cells: words, held }) => spreadsheetCell(field, held[field.key] ?? null, words[at] ?? ''),
    };
  }

  function ofFact(fact: ViewFact, zone: string): SpreadsheetColumn {
    if (kindIn(fact, []) !== 'date-time') return { kind: { is: 'text' }, cell: ({ row }) => factOf(fact, row) || null };
    const clock = (moment: string): SpreadsheetCell => (moment === '' ? null : wallClockAt(Date.parse(moment), zone));
    return { kind: { is: 'moment' }, cell: ({ row }) => clock(factOf(fact, row)) };
  }

  async function* pieces(): AsyncGenerator<string> {
    let before = '[';
    for await (const { row, held } of lines) {
      const own = columns.map((of) => [of, isFact(of) ? factOf(of, row) || null : (held[of] ?? null)]);
      yield `${before}\n${JSON.stringify({ number: row.number, subject: told(row.subject), ...Object.fromEntries(own) })}`;
      before = ',';
    }
    yield before === '[' ? '[]\n' : '\n]\n';
  }
}

interface SpreadsheetColumn {
  readonly kind: SpreadsheetKind;
  readonly cell: (line: Line) => SpreadsheetCell;
}

/** A fact as a file has it: moments in UTC (ISO 8601), everything else as people read it. */
function factInFile(fact: ViewFact, row: Shown): Words {
  switch (fact) {
    case 'request.arrived':
      return row.arrived;
    case 'request.due':
      return row.due ?? '';
    case 'request.finished':
      return row.finished ?? '';
    default:
      return sayFact(fact, row);
  }
}
