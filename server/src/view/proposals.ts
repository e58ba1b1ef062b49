import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { whyNotAccept } from '../desk/proposals.ts';
import { personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { openProposals, type ProposalRow, proposed, seenIn } from '../proposal/queries.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';

type Told = AnswerOf<'follow'>['proposals'][number];

function told(db: Reader, open: OpenRequest<RequestRow>, proposal: ProposalRow, now: number) {
  const found = proposed(db, open.request, proposal, now);
  if (!found) return null;
  const readable = found.changes.filter(({ field }) => open.readable.has(field));
  const shown: Told = {
    ...{ id: proposal.id, at: iso(proposal.at), form: found.form },
    changes: open.changes(readable),
  };
  return { shown, seen: seenIn(readable), questions: found.questions };
}

/** The changes of a request that wait to be accepted, as far as whoever works on it reads them. */
export const proposalsOn = (
  db: Reader,
  viewer: Viewer,
  open: OpenRequest<RequestRow>,
  now: number,
): AnswerOf<'sheet'>['proposals'] =>
  openProposals(db, open.request.id).flatMap((proposal) => {
    const found = told(db, open, proposal, now);
    if (!found) return [];
    const { shown, seen, questions } = found;
    const why = open.may('change') ? whyNotAccept(open, proposal, questions, viewer) : 'proposalRight';
    const by = personNamed(db, proposal.personId);
    return [{ ...shown, by, seen, whyNot: why && refused(why).happened }];
  });

/** The changes that somebody sent themselves. */
export const ownProposals = (
  db: Reader,
  { personId }: Viewer,
  open: OpenRequest<RequestRow>,
  now: number,
): readonly Told[] =>
  openProposals(db, open.request.id)
    .filter((proposal) => proposal.personId === personId)
    .flatMap((proposal) => told(db, open, proposal, now)?.shown ?? []);

/** A change that waits, with the request it is of, for whom a letter about it was sent to. @throws Problem 404 */
export function proposalViewOf(
  db: Reader,
  viewer: Viewer,
  request: RequestRow,
  id: string,
  now: number,
): AnswerOf<'proposalLink'> {
  const open = openRequest(db, request, viewer, 'sheet');
  const proposal = open.relation.isDesk ? proposalsOn(db, viewer, open, now).find((each) => each.id === id) : undefined;
  if (!proposal) throw notFound('proposal');
  const { number } = request;
  return { number, subject: open.subject, reader: personNamed(db, viewer.personId), values: open.values, proposal };
}
