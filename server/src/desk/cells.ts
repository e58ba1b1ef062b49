import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { type RawAnswers, typedFromCell, unguarded } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, desc, eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, Problem, staleVersion } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { changeAnswers, readChanges } from '../request/changeAnswers.ts';
import { factsOfRequest } from '../request/facts.ts';
import type { OpenRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { requestsByNumber } from '../request/references.ts';
import { history } from '../request/tables.ts';
import { openTo } from './openTo.ts';

type Asked = BodyOf<'changeCells'>['rows'][number];
type Row = AnswerOf<'changeCells'>['rows'][number];

/** What cells say as it would be typed: people and other requests by what they are called. */
function typedFrom(
  db: Reader,
  { request, register, fields }: OpenRequest<RequestRow>,
  row: Asked,
  now: number,
): RawAnswers {
  const facts = factsOfRequest(db, request, register, now);
  const around = { ...facts, references: requestsByNumber(db, fields, [row]) };
  return Object.fromEntries(
    Object.entries(row.cells).map(([key, cell]) => {
      const field = fields.find((each) => each.key === key);
      return [key, field ? typedFromCell(field, unguarded(cell), around) : cell];
    }),
  );
}

interface Planned {
  readonly open: OpenRequest<RequestRow>;
  /** What can be changed. */
  readonly good: RawAnswers;
  /** Keys of what becomes otherwise by it. */
  readonly changed: readonly string[];
  readonly bad: Row['refused'];
}

/**
 * What of a row can be changed: what is wrong is left out, and the rest read again, as one answer may be right only with
 * another.
 *
 * @throws Problem for who may not change it, and 412 when somebody was faster.
 */
function planned(db: Reader, viewer: Viewer, row: Asked, now: number): Planned {
  const open = openTo(db, viewer, row.number, 'change');
  if (open.request.version !== row.version) throw staleVersion();
  let good = typedFrom(db, open, row, now);
  const bad: Row['refused'] = [];
  for (;;) {
    const { changes, problems } = readChanges(db, open, { changes: good, asker: null }, now);
    const named = new Set(problems.map(({ field }) => field));
    const isNamed = Object.keys(good).some((key) => named.has(key));
    for (const { field, message, fix } of problems)
      if (!isNamed || field in good) bad.push({ field: isNamed ? field : null, why: message, fix });
    if (problems.length === 0) {
      const changed = changes.map(({ field }) => field).filter((key) => key in good);
      return { open, good, changed, bad };
    }
    // Where no cell is named, it is all of them together that can’t be.
    good = isNamed ? Object.fromEntries(Object.entries(good).filter(([key]) => !named.has(key))) : {};
  }
}

function changedRow(work: Work, viewer: Viewer, row: Asked): Row {
  const { open, good, changed, bad } = planned(work.tx, viewer, row, work.now);
  const { number, version: before } = open.request;
  if (changed.length === 0) return { number, version: before, changed: [], refused: bad };
  const { version } = changeAnswers(work, viewer, open, { changes: good, version: before, asker: null });
  return { number, version, changed: [...changed], refused: bad };
}

/**
 * Changes fields of several requests by what cells say: each request by itself, so that one that can’t be changed stands in
 * the way of no other, and of each what is good. Without `apply`, what would become of them; nothing is stored.
 */
export async function changeCells(
  house: House,
  viewer: Viewer,
  { rows, apply }: BodyOf<'changeCells'>,
): Promise<AnswerOf<'changeCells'>> {
  const told: Row[] = [];
  for await (const row of inTurns(rows)) {
    try {
      if (apply) told.push(write(house, (work) => changedRow(work, viewer, row)));
      else {
        const { open, changed, bad } = planned(house.db, viewer, row, house.clock.now());
        told.push({ number: open.request.number, version: row.version, changed: [...changed], refused: bad });
      }
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      const { happened, now } = error.said;
      told.push({
        number: row.number,
        version: row.version,
        changed: [],
        refused: [{ field: null, why: happened, fix: now }],
      });
    }
  }
  return { applied: apply, rows: told };
}

/**
 * Gives fields back what they held before their last change, where it was made by whoever asks and nothing has happened since.
 *
 * @throws Problem 412 where something has.
 */
function takenBack(work: Work, viewer: Viewer, { number, version }: Pick<Asked, 'number' | 'version'>): void {
  const { request, reading } = openTo(work.tx, viewer, number, 'change');
  const last = work.tx
    .select({ actorId: history.actorId, changes: history.changes, data: history.data })
    .from(history)
    .where(and(eq(history.requestId, request.id), eq(history.kind, 'fields')))
    .orderBy(desc(history.at), desc(history.id))
    .limit(1)
    .get();
  const { data } = last ?? {};
  const isTheirs = last?.actorId === viewer.personId && data?.kind === 'values' && data.why === 'changed';
  if (request.version !== version || !last || !isTheirs) throw staleVersion();
  const changes = last.changes
    // What is computed from the others follows them.
    .filter(({ field }) => reading.levelOf(field).level === 'write')
    .map(({ field, before, after }) => ({ field, before: after, after: before }));
  if (changes.length === 0) throw notAllowed(refused('cellsClosed'));
  changeRequest(by(work, viewer.personId), request, { kind: 'values', why: 'changed', changes }, version);
}

/** Takes changes of cells back, each request by itself. */
export async function takeBackCells(
  house: House,
  viewer: Viewer,
  rows: BodyOf<'takeBackCells'>['rows'],
): Promise<AnswerOf<'takeBackCells'>> {
  let back = 0;
  const left: AnswerOf<'takeBackCells'>['refused'] = [];
  for await (const row of inTurns(rows)) {
    try {
      write(house, (work) => takenBack(work, viewer, row));
      back += 1;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      left.push({ number: row.number, why: error.said.happened });
    }
  }
  return { back, refused: left };
}
