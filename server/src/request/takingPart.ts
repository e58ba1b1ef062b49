import { actionsIn, type NamedAction, placeFor, type TakingPart, withPlaceOf } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work } from '../platform/work.ts';
import { changeRequest } from './change.ts';
import type { OpenRequest } from './open.ts';
import type { RequestRow } from './queries.ts';

type Takes = Extract<NamedAction, { does: 'take-part' }>;

/**
 * What the words beside a request offer to whoever it was opened for.
 *
 * @throws Problem 404 for what is not offered to them, whether it is there or not.
 */
export function actionGiven(open: OpenRequest, id: string): NamedAction {
  const action = actionsIn(open.layout?.words ?? []).find((each) => each.id === id);
  if (!action) throw notFound('action');
  return action;
}

/** How somebody stands to the places that an action gives. How many are free is told to whoever may read who has one. */
export function placeOf({ request, fields, reading }: OpenRequest, viewer: Viewer, { field: key }: Takes): TakingPart {
  const field = fields.find((each) => each.key === key);
  const who = { personId: viewer.personId, isStaff: viewer.kind === 'staff', groups: viewer.groups };
  const place = placeFor(field ?? { type: { kind: 'text' } }, own(request.values, key), who, request.phase);
  return reading.mayKnow(key) ? place : { ...place, left: null };
}

/**
 * Gives somebody a place among the people in a field, or takes theirs back: what the plan lets them change does not
 * matter, for the form offers it to them. Said twice, it is so once.
 *
 * @throws Problem 409 where there is none for them.
 */
export function takePart(
  work: Work,
  viewer: Viewer,
  open: OpenRequest<RequestRow>,
  action: Takes,
  takes: boolean,
): void {
  const { isIn, whyNot } = placeOf(open, viewer, action);
  if (isIn === takes) return;
  if (whyNot) throw new Problem(409, 'no-place', refused('cannotAct', { why: whyNot }));
  const { field } = action;
  const stood = own(open.request.values, field);
  const changes = [{ field, before: stood ?? null, after: withPlaceOf(stood, viewer.personId, takes) }];
  changeRequest(by(work, viewer.personId), open.request, { kind: 'values', why: takes ? 'joined' : 'left', changes });
}
