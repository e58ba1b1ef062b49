import { openFields, relationsTo } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { MOVERS, movesFrom, type PossibleMove, type Stage } from '@tolvek/core/register';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, stageOf } from '../register/queries.ts';
import { factsOfRequest } from '../request/facts.ts';
import type { OpenRequest } from '../request/open.ts';
import { partiesIn, type RequestRow } from '../request/queries.ts';
import { knownStanding, meIn, standingOf } from '../request/standing.ts';

/** Where a viewer can move a request they work on, and why not elsewhere. `now`: epoch ms. */
export function movesOf(
  db: Reader,
  { request, register, reading }: OpenRequest<RequestRow>,
  viewer: Viewer,
  now: number,
): readonly PossibleMove[] {
  const at = stageOf(register, request.stage);
  const { fields } = reading.protection;
  return movesFrom({ stages: register.stages, fields }, at, {
    relations: relationsTo(partiesIn(request, register), viewer),
    groups: viewer.groups,
    values: request.values,
    facts: () => factsOfRequest(db, request, register, now),
    standing: () => standingOf(db, request, now),
    me: () => meIn(db, viewer),
    known: () => knownStanding(db, register),
    open: new Set(openFields(reading.protection, ['working']).map(({ key }) => key)),
  });
}

/**
 * A stage that a request can be moved to by the clock: where a way leads there whose conditions hold, whoever may take it.
 */
export function stageOnItsOwn(
  db: Reader,
  request: RequestRow,
  register: RegisterRow,
  key: string,
  now: number,
): Stage | undefined {
  const at = stageOf(register, request.stage);
  const { stages, fields } = register;
  const moves = movesFrom({ stages, fields }, at, {
    relations: new Set(MOVERS),
    ...{ groups: (at.moves ?? []).flatMap(({ groups }) => groups), values: request.values },
    facts: () => factsOfRequest(db, request, register, now),
    standing: () => standingOf(db, request, now),
    // The clock is nobody: a condition on who moves it does not hold.
    me: () => ({ person: '', groups: [], department: '', profile: { fields: [], values: {} } }),
    known: () => knownStanding(db, register),
    open: new Set(fields.map((field) => field.key)),
  });
  return moves.find(({ stage, whyNot }) => stage.key === key && whyNot === null)?.stage;
}
