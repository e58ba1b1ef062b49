import { setTimeout as pause } from 'node:timers/promises';
import { subjectLine } from '@tolvek/core/notice';
import { and, asc, eq, gt, lte, or, sql } from 'drizzle-orm';
import nodemailer, { type Transporter } from 'nodemailer';
import { changing } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { renewLink } from '../platform/links.ts';
import { troubleOf } from '../platform/patience.ts';
import { prepared } from '../platform/prepared.ts';
import { aTurn } from '../platform/turns.ts';
import { deskOf } from '../settings/queries.ts';
import { gather, isTimeToGather, settleGathered } from './gather.ts';
import { LEFT, notices } from './tables.ts';
import { dressed, linksIn, worded } from './wording.ts';

const MINUTE = 60_000;
/** Waits between tries; after the last one the letter counts as failed, and the Floor says so. */
export const BACK_OFF = [0.5 * MINUTE, 2 * MINUTE, 10 * MINUTE, 30 * MINUTE, 2 * 60 * MINUTE, 8 * 60 * MINUTE] as const;
const LONGEST_WAIT = Math.max(...BACK_OFF);
/**
 * Connections to the mail server, kept open between letters; and letters that are under way at
 * once. No more than these can go twice, when the application is killed while they go.
 */
export const LINES = 5;
/**
 * How long a mail server may say nothing, ms: to be reached, to greet, and in the middle of a
 * letter.
 */
const SILENCE = { dnsTimeout: 10_000, connectionTimeout: 10_000, greetingTimeout: 10_000, socketTimeout: 30_000 };
/** How long letters that are under way may still take when the application stops, ms. */
const LAST_WAIT = 5_000;

type Notice = typeof notices.$inferSelect;

/** How an email of ours is named. */
const messageIdOf = (id: string): string => `<${id}@tolvek>`;

/** What holds the emails to somebody about a request together in mail programs (RFC 5322, 3.6.4): all follow the first. */
function threadOf(db: Reader, { id, requestId: request, personId: person }: Notice) {
  const first = request !== null && person !== null ? firstSent(db).get({ request, person }) : undefined;
  if (!first || first.id === id) return {};
  return { inReplyTo: messageIdOf(first.id), references: messageIdOf(first.id) };
}

/** A clock that had jumped ahead left waits that no longer mean anything: those are due as well. */
const isDue = and(
  LEFT,
  eq(notices.state, 'waiting'),
  or(lte(notices.nextAttemptAt, sql.placeholder('now')), gt(notices.nextAttemptAt, sql.placeholder('late'))),
);
const someDue = prepared((db) => db.select({ id: notices.id }).from(notices).where(isDue).limit(1).prepare());
const dueNow = prepared((db) =>
  db.select().from(notices).where(isDue).orderBy(asc(notices.nextAttemptAt), asc(notices.id)).limit(LINES).prepare(),
);
/** The email that one thread of emails began with: the first one to somebody about a request. */
const firstSent = prepared((db) =>
  db
    .select({ id: notices.id })
    .from(notices)
    .where(
      and(
        eq(notices.requestId, sql.placeholder('request')),
        eq(notices.personId, sql.placeholder('person')),
        eq(notices.state, 'sent'),
      ),
    )
    .orderBy(asc(notices.createdAt), asc(notices.id))
    .limit(1)
    .prepare(),
);
/** Stores what has become of a letter, and what it says once it is worded. */
const becoming = changing(notices, ['cause', 'state', 'why', 'attempts', 'nextAttemptAt', 'lastError', 'sentAt']);
const saying = changing(notices, ['subject', 'said', 'toName', 'toAddress']);

/**
 * Sends the notices that wait, oldest first. A letter is marked as being sent before it goes,
 * and its outcome is stored before others go: SMTP can’t promise “once”, so each goes at least
 * once, always under the same Message-ID, by which the receiving side can drop a copy.
 */
export class Sender {
  private running: Promise<void> | null = null;
  private again = false;
  private closed = false;
  /** Letters that were under way when the application ended last are looked for once. */
  private recovered = false;
  /** What became of letters, not stored yet. */
  private outcomes: readonly Notice[] = [];
  private readonly transport: Transporter;

  constructor(
    private readonly house: Pick<House, 'db' | 'clock' | 'config' | 'log' | 'troubles'>,
    smtp: string,
  ) {
    this.transport = nodemailer.createTransport({
      ...{ url: smtp, pool: true, maxConnections: LINES, maxMessages: Number.POSITIVE_INFINITY, ...SILENCE },
    });
  }

  /** Starts a round, or lets the running one look once more. */
  wake(): void {
    if (this.closed) return;
    this.again = true;
    this.running ??= this.rounds()
      .catch((error: unknown) => this.closed || this.house.troubles.stumbled('outbox', error))
      .then(() => {
        this.running = null;
        if (this.again) this.wake();
      });
  }

  /** Resolves when nothing is being sent. */
  async idle(): Promise<void> {
    while (this.running) await this.running;
  }

  /** Ends after the letters under way, or after five seconds: those left go at the next start. */
  async close(): Promise<void> {
    this.closed = true;
    this.again = false;
    const waited = new AbortController();
    await Promise.race([this.idle(), pause(LAST_WAIT, undefined, { signal: waited.signal }).catch(() => undefined)]);
    waited.abort();
    this.transport.close();
  }

  private async rounds(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false;
      for (let taken = await this.take(); taken.length > 0; taken = await this.take())
        this.outcomes = await Promise.all(taken.map((letter) => this.send(letter)));
      this.house.troubles.passed('outbox');
    }
  }

  /**
   * Stores what became of the last letters and marks the next as being sent, in one write. Where
   * nothing can be stored, nothing more is sent: it is tried again until it can.
   */
  private async take(): Promise<readonly Notice[]> {
    // Whoever caused a letter is answered first.
    await aTurn('long work');
    for (let wait = 50; ; wait = Math.min(2_000, wait * 2)) {
      try {
        const taken = this.mark();
        // Only now: what was looked for in a write that failed has to be looked for again.
        this.recovered = true;
        if (taken.length > 0 || this.outcomes.length > 0) this.house.troubles.stored();
        this.outcomes = [];
        return taken;
      } catch (error) {
        const trouble = troubleOf(error);
        if (trouble === undefined) throw error;
        this.house.troubles.met(trouble);
        if (this.closed) return [];
        await pause(wait);
      }
    }
  }

  private mark(): readonly Notice[] {
    const { db, clock } = this.house;
    const now = clock.now();
    const at = { now, late: now + LONGEST_WAIT };
    const nothingToStore = this.outcomes.length === 0 && this.recovered;
    const gathers = !this.closed && isTimeToGather(db, now);
    if (nothingToStore && (this.closed || (!gathers && someDue(db).get(at) === undefined))) return [];
    return db.transaction(
      (tx) => {
        for (const outcome of this.outcomes) {
          becoming(tx, outcome);
          if (outcome.kind === 'digest' && outcome.state === 'sent') settleGathered(tx, outcome.id);
        }
        if (!this.recovered)
          tx.update(notices)
            .set({ state: 'waiting', nextAttemptAt: now })
            .where(and(LEFT, eq(notices.state, 'sending')))
            .run();
        if (this.closed) return [];
        if (gathers) gather(tx, now);
        for (;;) {
          const next = dueNow(tx).all(at);
          const going = next.flatMap((notice) => this.ready(tx, notice, now) ?? []);
          // What had nothing left to tell made way for others.
          if (going.length > 0 || next.length === 0) return going;
        }
      },
      { behavior: 'immediate' },
    );
  }

  /** Marks a notice as being sent, worded when it goes for the first time; null when it does not go. */
  private ready(tx: Transaction, notice: Notice, now: number): Notice | null {
    const settled = this.settled(tx, notice, now);
    const marked = { ...notice, ...settled };
    becoming(tx, marked);
    if (settled.said) saying(tx, marked);
    return settled.state === 'sending' ? marked : null;
  }

  private settled(tx: Transaction, notice: Notice, now: number): Partial<Notice> & Pick<Notice, 'state'> {
    if (notice.said) {
      for (const link of linksIn(notice.said)) renewLink(tx, this.house.config.secret, link);
      return { state: 'sending' };
    }
    try {
      const out = worded(this.house, tx, notice, now);
      if (out === null || out === 'hidden') return { state: 'dropped', why: out ?? 'nothing' };
      return { state: 'sending', ...out, subject: subjectLine(out.said.letter.subject) };
    } catch (error) {
      // One that can’t be worded holds up no other.
      this.house.log.error({ notice: notice.id, err: error }, 'a letter could not be worded');
      return { state: 'failed', lastError: error instanceof Error ? error.message : String(error) };
    }
  }

  private async send(notice: Notice): Promise<Notice> {
    const { clock, db, log } = this.house;
    const { id, said } = notice;
    const { name, sender } = deskOf(db);
    const attempts = notice.attempts + 1;
    try {
      await this.transport.sendMail({
        messageId: messageIdOf(id),
        from: { name: sender.name || name, address: sender.address },
        to: { name: notice.toName, address: notice.toAddress },
        subject: notice.subject,
        ...threadOf(db, notice),
        ...(said ? dressed(this.house, db, said) : { text: '', html: '' }),
        headers: { 'Auto-Submitted': 'auto-generated', 'X-Tolvek-Notice': notice.kind },
      });
      return { ...notice, state: 'sent', sentAt: clock.now(), attempts, lastError: null, cause: null };
    } catch (error) {
      const wait = BACK_OFF[attempts - 1];
      const lastError = error instanceof Error ? error.message : String(error);
      log.warn({ letter: id, attempts, lastError }, 'a letter could not be sent');
      return wait === undefined
        ? { ...notice, state: 'failed', attempts, lastError }
        : { ...notice, state: 'waiting', attempts, lastError, nextAttemptAt: clock.now() + wait };
    }
  }
}
