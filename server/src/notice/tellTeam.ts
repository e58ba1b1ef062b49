import { momentInWords } from '@tolvek/core/deadline';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import { groupNames, membersOf } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { requestById } from '../request/queries.ts';
import { notify } from './notify.ts';

/** Tells the team of a request that it is theirs to work on. */
export function tellTeam(house: House, tx: Transaction, now: number, requestId: string): void {
  const request = requestById(tx, requestId);
  if (!request) return;
  const { release } = releaseById(tx, request.releaseId);
  const due = momentInWords(request.due, calendarOf(tx, release.design.deadline.calendar).zone);
  const team = membersOf(tx, request.team)
    .map((person) => person.id)
    .filter((id) => id !== request.requesterId);
  notify(house, tx, now, request, team, {
    kind: 'new-request',
    team: groupNames(tx).get(request.team) ?? request.team,
    due,
  });
}
