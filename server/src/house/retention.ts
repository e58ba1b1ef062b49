import { and, inArray, lt, sql } from 'drizzle-orm';
import { forgetDeleted } from '../desk/deletion.ts';
import { keptAnswers, spentWork, waitingSubmissions } from '../door/tables.ts';
import { incomingEmails } from '../incoming/tables.ts';
import { notices } from '../notice/tables.ts';
import { AT_ONCE, dropOld, type Kept } from '../platform/kept.ts';
import { idempotency, jobs, links, session, verification } from '../platform/tables.ts';
import { ruleRuns } from '../request/tables.ts';
import { dutyOffers } from '../roster/tables.ts';
import { deskOf } from '../settings/queries.ts';

const DAY = 24 * 3_600_000;

/** What is kept for a while only, and how long. */
export const RETENTION: readonly Kept[] = [
  {
    what: 'Requests from outside whose email address was not confirmed',
    until: '3 days after the link to confirm ends, or as the desk sets it',
    sweep: (tx, now) => {
      const { unconfirmed } = deskOf(tx).keeps;
      return dropOld(waitingSubmissions, waitingSubmissions.id, () =>
        lt(waitingSubmissions.expiresAt, now - unconfirmed * DAY),
      )(tx, now);
    },
  },
  {
    what: 'Answers that were started and not sent',
    until: '14 days after they were last typed (as long as a link to continue a form works), or until they are sent',
    sweep: dropOld(keptAnswers, keptAnswers.id, (now) => lt(keptAnswers.expiresAt, now)),
  },
  {
    what: 'What devices worked out before they sent, so that it counts once',
    until: '20 minutes after it was given out',
    sweep: dropOld(spentWork, spentWork.signature, (now) => lt(spentWork.expiresAt, now)),
  },
  {
    what: 'Links in emails',
    until: '30 days after they end',
    sweep: dropOld(links, links.id, (now) => lt(links.expiresAt, now - 30 * DAY)),
  },
  {
    what: 'The text of emails that were delivered',
    until:
      '30 days after they were sent, or as the desk sets it; that they were sent, when, to whom and about what stays',
    sweep: (tx, now) => {
      // Named, as SQLite would go through all that were sent: the index holds those with a text alone.
      const some = sql`(select id from notices indexed by notices_said where state = 'sent' and said is not null and sent_at < ${now - deskOf(tx).keeps.emails * DAY} limit ${AT_ONCE})`;
      return tx.update(notices).set({ said: null }).where(inArray(notices.id, some)).run().changes;
    },
  },
  {
    what: 'What notices say that did not go by email, and stand under the bell',
    until: '30 days, or as the desk sets it for emails; that they were, when, to whom and about what stays',
    sweep: (tx, now) => {
      const some = sql`(select id from notices indexed by notices_kept where cause is not null and state in ('dropped', 'sent') and created_at < ${now - deskOf(tx).keeps.emails * DAY} limit ${AT_ONCE})`;
      return tx.update(notices).set({ cause: null }).where(inArray(notices.id, some)).run().changes;
    },
  },
  {
    what: 'Emails that came in: those that were laid aside, and that those came which are part of a request',
    until: '30 days after they came; those that wait for somebody to say what becomes of them stay',
    sweep: dropOld(incomingEmails, incomingEmails.id, (now) =>
      and(inArray(incomingEmails.state, ['aside', 'taken']), lt(incomingEmails.receivedAt, now - 30 * DAY)),
    ),
  },
  {
    what: 'What a rule changed in existing requests, for undoing it',
    until: '30 days after it was done',
    sweep: dropOld(ruleRuns, ruleRuns.id, (now) => lt(ruleRuns.at, now - 30 * DAY)),
  },
  {
    what: 'Requests that were deleted, with their files, for putting them back',
    until: '30 days after they were deleted; the number, who deleted it, when and why stays',
    sweep: forgetDeleted,
  },
  {
    what: 'Duties that were offered to others, and what became of them',
    until: '90 days after they end; what was taken stays in the roster',
    sweep: dropOld(dutyOffers, dutyOffers.id, (now) => lt(dutyOffers.untilAt, now - 90 * DAY)),
  },
  {
    what: 'Long work that ended: how far it came and what it found',
    until: '30 days after it ended',
    // What has not ended stays, however long it takes; the first condition is what finds it, by its index.
    sweep: dropOld(jobs, jobs.id, (now) => {
      const ended = now - 30 * DAY;
      return sql`${lt(jobs.createdAt, ended)} and ${lt(jobs.endedAt, ended)}`;
    }),
  },
  {
    what: 'Sessions of people who are signed in',
    until: '14 days after they were last used',
    // Sessions live by the real clock, as the sign-in library does.
    sweep: (tx) => dropOld(session, session.id, () => lt(session.expiresAt, new Date()))(tx, 0),
  },
  {
    what: 'Sign-ins by a provider, or with a code, that were begun and not finished',
    until: '10 minutes; a device that is not asked for a code again: 30 days',
    sweep: (tx) => dropOld(verification, verification.id, () => lt(verification.expiresAt, new Date()))(tx, 0),
  },
  {
    what: 'The answers given to writes, for whoever sends the same again',
    until: '7 days',
    sweep: (tx, now) =>
      tx
        .delete(idempotency)
        .where(
          sql`rowid in (select rowid from ${idempotency} where ${lt(idempotency.createdAt, now - 7 * DAY)} limit ${AT_ONCE})`,
        )
        .run().changes,
  },
];
