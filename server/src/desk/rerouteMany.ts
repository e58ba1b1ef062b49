import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import { giveByRule, hasRule } from '../assignment/follow.ts';
import { membersOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import type { RegisterRow } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import type { RequestRow } from '../request/queries.ts';
import { assignableTo, openToReroute, rerouted, teamsFor, teamThere } from './commands.ts';
import { eachByItself } from './eachByItself.ts';

type Wanted = Omit<BodyOf<'rerouteMany'>, 'apply' | 'requests'>;
type Answer = AnswerOf<'rerouteMany'>;
type Change = keyof Answer['changes'];

/** A request that can be given to others as it is wanted, and what becomes otherwise in it. */
interface Planned {
  readonly request: RequestRow;
  readonly register: RegisterRow;
  readonly team: string;
  readonly changes: readonly Change[];
}

/** @throws Problem for what can’t be changed so. */
function planned(
  db: Reader,
  viewer: Viewer,
  { number, version }: BodyOf<'rerouteMany'>['requests'][number],
  { team: wanted, priority, handler }: Wanted,
): Planned {
  const { request, register } = openToReroute(db, viewer, number);
  if (request.version !== version) throw staleVersion();
  const team = wanted ?? request.team ?? '';
  const moves = team !== request.team;
  const { handlerId } = request;
  const changes: Change[] = [
    ...(moves ? (['team'] as const) : []),
    ...(priority !== undefined && priority !== request.priority ? (['priority'] as const) : []),
  ];
  if (handler && 'by' in handler) {
    // A rule is of the row a request went by, and of the team it went to.
    if (moves || !hasRule(db, request)) throw new Problem(409, 'no-rule', refused('noHandlerRule'));
    changes.push('handler');
  } else if (handler) {
    const { person } = handler;
    if (person !== null && !assignableTo(db, { team }, register).some(({ id }) => id === person))
      throw wrongFields([{ field: 'person', message: said('work:notInTeam'), fix: said('work:chooseFromTeam') }]);
    if (person !== handlerId) changes.push('handler');
  }
  const stays = handlerId === null || !moves || membersOf(db, team).some(({ id }) => id === handlerId);
  if (!stays && !changes.includes('handler')) changes.push('letsGo');
  return { request, register, team, changes };
}

/** Gives a request to others as it was planned; whether anything of it is another now. */
function given(work: Work, { request, team, changes }: Planned, { priority, handler, reason }: Wanted): boolean {
  if (changes.length === 0) return false;
  const row = rerouted(work, request, {
    ...{ team, priority: priority ?? request.priority ?? 'normal', version: request.version, reason },
  });
  // It is told once why, by the first that is otherwise.
  const why = row === request ? reason : '';
  if (handler && 'by' in handler) {
    const found = giveByRule(work, row, why);
    if (!found) throw new Problem(409, 'nobody', refused('nobodyByRule'));
    return found.version !== request.version;
  }
  if (handler && handler.person !== row.handlerId)
    changeRequest(
      work,
      row,
      { kind: 'handler', from: row.handlerId, to: handler.person, ...(why ? { reason: why } : {}) },
      row.version,
    );
  return true;
}

/**
 * Hands requests over to another team or handler, or gives them another priority: each by itself, so that one that can’t be
 * changed stands in the way of no other. Without `apply`, what would become of them; nothing is stored.
 *
 * @throws Problem 422 for a team there is none of.
 */
export async function rerouteMany(
  house: House,
  viewer: Viewer,
  { requests, apply, ...wanted }: BodyOf<'rerouteMany'>,
): Promise<Answer> {
  const { db } = house;
  if (wanted.team !== undefined) teamThere(db, wanted.team);
  const changes = { team: 0, priority: 0, handler: 0, letsGo: 0 };
  const teams = new Map<string, RegisterRow>();
  let changed = 0;
  const problems = await eachByItself(
    requests,
    ({ number }) => number,
    (each) => {
      const plan = apply
        ? write(house, (work) => {
            const found = planned(work.tx, viewer, each, wanted);
            return given(by(work, viewer.personId), found, wanted) ? found : { ...found, changes: [] };
          })
        : planned(db, viewer, each, wanted);
      for (const change of plan.changes) changes[change] += 1;
      if (plan.changes.length > 0) changed += 1;
      teams.set(plan.team, plan.register);
    },
  );
  const [only] = teams.size === 1 ? teams : [];
  return {
    ...{ applied: apply, changes, changed, refused: problems },
    teams: [...teamsFor(db)],
    people: only ? assignableTo(db, { team: only[0] }, only[1]) : [],
  };
}
