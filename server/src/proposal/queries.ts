import { createHash } from 'node:crypto';
import type { ValueChange } from '@tolvek/core/access';
import type { RawAnswers, Values } from '@tolvek/core/register';
import { and, asc, eq } from 'drizzle-orm';
import { type DoorRow, doorById } from '../door/queries.ts';
import { type ReleaseRow, releaseById } from '../form/queries.ts';
import { type PersonRow, personById, viewerIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import { askedAt } from '../request/askedAt.ts';
import { type Changing, readChanges } from '../request/changeAnswers.ts';
import { factsFor } from '../request/facts.ts';
import type { RequestRow } from '../request/queries.ts';
import { openTheirs, type Theirs } from '../request/theirs.ts';
import { changingBy } from '../request/updating.ts';
import { proposals } from './tables.ts';

export type ProposalRow = typeof proposals.$inferSelect;

/** The changes of a request that wait to be accepted, the oldest first. */
export const openProposals = (db: Reader, requestId: string): readonly ProposalRow[] =>
  db
    .select()
    .from(proposals)
    .where(and(eq(proposals.requestId, requestId), eq(proposals.state, 'open')))
    .orderBy(asc(proposals.at), asc(proposals.id))
    .all();

export const proposalById = (db: Reader, id: string): ProposalRow | undefined =>
  db.select().from(proposals).where(eq(proposals.id, id)).get();

/** Answers that somebody gives by a door to a form that changes what is there. */
export interface Sending {
  readonly door: Pick<DoorRow, 'kind'>;
  readonly release: ReleaseRow;
  readonly person: PersonRow;
  readonly answers: RawAnswers;
  /** Whether it was sent to them to look at just that. */
  readonly wasSent: boolean;
  /** When they were given, epoch ms: the day of it is stamped. */
  readonly at: number;
}

/** What answers change of what is theirs, as somebody was asked. */
export function changingOf(
  db: Reader,
  one: Theirs,
  sending: Sending,
  now: number,
): Changing & { readonly questions: readonly string[] } {
  const { door, release, person, answers, wasSent, at } = sending;
  const entry = wasSent ? one.id : null;
  const asked = askedAt(db, release, { kind: door.kind, id: person.id, entry }, now);
  const named = { ...one.values, ...answers };
  const facts = factsFor(db, { door, design: asked.release.design, requester: person, now, named });
  return { ...changingBy(db, asked, one, answers, facts), along: stampOf(db, release, at) };
}

/** The day of an answer, where the form has it written down. */
const stampOf = (db: Reader, { design }: Pick<ReleaseRow, 'design'>, at: number): Values =>
  design.updates?.stamps === undefined ? {} : { [design.updates.stamps]: todayAt(db, at) };

/**
 * What a proposal would change now, by whoever sent it, and what is wrong with that; null once they are gone. `changes`:
 * without the day that is stamped then. `questions`: the fields that its form asks for: whoever accepts it reads all of
 * them, whatever stands there.
 */
export function proposed(db: Reader, request: RequestRow, proposal: ProposalRow, now: number) {
  const person = personById(db, proposal.personId);
  const door = doorById(db, proposal.doorId);
  if (!person || !door) return null;
  const { open, ...one } = openTheirs(db, request, viewerIn(db, person));
  const { release } = releaseById(db, proposal.releaseId);
  const { answers, wasSent, at } = proposal;
  const { questions, ...changing } = changingOf(
    db,
    { ...one, open },
    { door, release, person, answers, wasSent, at },
    now,
  );
  const { changes: all, problems } = readChanges(db, open, changing, now);
  const { title: form, updates } = release.design;
  const changes = all.filter(({ field }) => field !== updates?.stamps);
  return { open, changing, form, questions, changes, problems };
}

/** Stands for what somebody sees of a change: another one when anything of that is another. */
export const seenIn = (changes: readonly ValueChange[]): string =>
  createHash('sha256').update(canonicalJson(changes)).digest('base64url').slice(0, 22);
