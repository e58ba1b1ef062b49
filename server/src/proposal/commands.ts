import type { AgreedThen } from '@tolvek/core/request';
import type { Language } from '@tolvek/words/speech';
import { and, eq, inArray } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { byRequest, type LaidPart } from '../request/layBy.ts';
import type { RequestRow } from '../request/queries.ts';
import type { ProposalRow } from './queries.ts';
import { proposals } from './tables.ts';

/** Keeps a change until it is accepted; what the same person sent before about the same is not wanted any more. */
export function propose(
  work: Work,
  request: RequestRow,
  proposal: Pick<
    ProposalRow,
    'formId' | 'releaseId' | 'doorId' | 'personId' | 'wasSent' | 'answers' | 'consent' | 'consentIn'
  >,
  form: string,
): void {
  const { tx, now } = work;
  const { personId } = proposal;
  tx.update(proposals)
    .set({ state: 'ended', closedAt: now })
    .where(and(eq(proposals.requestId, request.id), eq(proposals.personId, personId), eq(proposals.state, 'open')))
    .run();
  const id = newId();
  tx.insert(proposals)
    .values({ id, requestId: request.id, ...proposal, at: now, state: 'open' })
    .run();
  changeRequest(work, request, { kind: 'proposed', form, proposal: id });
}

/** What somebody agreed to with a change, as its history has it. */
export const agreedWith = (
  door: string,
  version: number | null,
  language: Language | null,
): { readonly agreed?: AgreedThen } => (version === null ? {} : { agreed: { door, version, language } });

/** Writes down what became of a proposal. */
export function closeProposal(
  { tx, now, actor }: Work,
  { id }: ProposalRow,
  state: 'accepted' | 'refused' | 'ended',
  reason: string | null = null,
): void {
  tx.update(proposals)
    .set({ state, closedAt: now, closedBy: state === 'ended' ? null : actor, reason })
    .where(eq(proposals.id, id))
    .run();
}

/** What comes back with a request. */
export const LAID_PROPOSALS: readonly LaidPart[] = [{ table: proposals, of: byRequest(proposals.requestId) }];

/** What was proposed for requests that are deleted goes with them. */
export const dropProposals = (tx: Transaction, requestIds: readonly string[]): void =>
  void tx
    .delete(proposals)
    .where(inArray(proposals.requestId, [...requestIds]))
    .run();

/** What one record of a person sent, or decided, is the other’s. */
export function proposalsAsOther(tx: Transaction, from: string, to: string): void {
  tx.update(proposals).set({ personId: to }).where(eq(proposals.personId, from)).run();
  tx.update(proposals).set({ closedBy: to }).where(eq(proposals.closedBy, from)).run();
}
