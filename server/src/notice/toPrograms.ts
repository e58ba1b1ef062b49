import { EVENT_MEDIA, outcomeOf } from '@tolvek/core/program';
import { type Said, said } from '@tolvek/words';
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { listed, prepared } from '../platform/prepared.ts';
import { speechFor } from '../platform/words.ts';
import { programByKey } from '../program/queries.ts';
import { signaturesOf } from '../program/secrets.ts';
import { deskOf } from '../settings/queries.ts';
import { BACK_OFF, dueBy, gone, type Notice, notGone, Outbox, type Posting, type Settled } from './outbox.ts';
import { post } from './post.ts';
import { eventFor } from './programEvent.ts';
import { notices } from './tables.ts';

/** So many programs are told at the same time; each is told one thing after the other. */
const AT_ONCE = 5;

const TO_PROGRAMS = isNotNull(notices.program);
const isDue = and(
  dueBy(TO_PROGRAMS),
  sql`${notices.program} not in (select value from json_each(${sql.placeholder('resting')}))`,
);
const programsDue = prepared((db) =>
  db.selectDistinct({ program: notices.program }).from(notices).where(isDue).limit(AT_ONCE).prepare(),
);
const oldestOf = prepared((db) =>
  db
    .select()
    .from(notices)
    .where(and(isDue, eq(notices.program, sql.placeholder('program'))))
    .orderBy(asc(notices.createdAt), asc(notices.id))
    .limit(1)
    .prepare(),
);

/**
 * Tells other programs what happened: one thing after the other, in the order in which it happened. One that can’t be reached
 * rests as a whole until its next try, so that it holds up no other and uses up no tries; what one refuses waits by itself.
 */
export class ProgramsTold extends Outbox {
  constructor(house: Posting) {
    /** Until when (epoch ms) programs rest that could not be reached, by key. */
    const resting = new Map<string, number>();
    const atRest = (now: number): string => {
      for (const [program, until] of resting) if (until <= now || until > now + BACK_OFF[5]) resting.delete(program);
      return listed([...resting.keys()]);
    };
    super(house, {
      ours: TO_PROGRAMS,
      someDue: (db, { now, late }) => programsDue(db).get({ now, late, resting: atRest(now) }) !== undefined,
      next: (db, { now, late }) =>
        programsDue(db)
          .all({ now, late, resting: atRest(now) })
          .flatMap(({ program }) => oldestOf(db).get({ program, now, late, resting: listed([]) }) ?? []),
      settled: (tx, notice, now) => settledAsEvent(house, tx, notice, now),
      send: async (notice) => {
        const { became, rests } = await posted(house, notice);
        if (rests && became.state === 'waiting') resting.set(notice.program ?? '', became.nextAttemptAt);
        return became;
      },
      close: () => undefined,
    });
  }
}

function settledAsEvent({ config }: Posting, tx: Transaction, notice: Notice, now: number): Settled {
  if (notice.said) return { state: 'sending' };
  const told = eventFor({ config }, tx, notice, now);
  if (typeof told === 'string') return { state: 'dropped', why: told };
  return { state: 'sending', said: { body: told.body }, toName: told.name, subject: told.subject };
}

interface Posted {
  readonly became: Notice;
  /** It could not be reached at all: nothing else is tried before this is. */
  readonly rests: boolean;
}

async function posted({ clock, config, db, log }: Posting, notice: Notice): Promise<Posted> {
  const { id, said: what, program } = notice;
  const address = programByKey(db, program ?? '')?.draft.address ?? '';
  const body = what && 'body' in what ? what.body : '';
  // What is signed is the real time, also where the clock of the desk is moved: the program goes by its own.
  const seconds = Math.floor(Date.now() / 1_000);
  try {
    const { status, headers } = await post(address, body, {
      'content-type': EVENT_MEDIA,
      'user-agent': 'Tolvek',
      'webhook-id': id,
      'webhook-timestamp': String(seconds),
      'webhook-signature': signaturesOf(db, config.secret, program ?? '', { id, at: clock.now(), seconds, body }),
    });
    const outcome = outcomeOf(status, headers.get('retry-after'));
    if (outcome.is === 'taken') return { became: gone(notice, clock.now()), rests: false };
    const attempts = notice.attempts + 1;
    const lastError = spoken(db, said('emails:programAnswered', { status }));
    log.warn({ notice: id, program, status, attempts }, 'a program did not take what it was told');
    if (outcome.is === 'refused') return { became: { ...notice, state: 'failed', attempts, lastError }, rests: false };
    return { became: notGone(notice, lastError, clock.now(), outcome.wait), rests: isDown(status) };
  } catch (error) {
    const lastError = spoken(db, whyNot(error));
    log.warn({ notice: id, program, lastError }, 'a program could not be reached');
    return { became: notGone(notice, lastError, clock.now()), rests: true };
  }
}

/** Whether an answer is of a program that is not well, rather than about what it was sent. */
const isDown = (status: number): boolean => status >= 500 || status === 429 || status === 408;

const spoken = (db: Posting['db'], words: Said): string => speechFor(deskOf(db)).told(words);

function whyNot(error: unknown): Said {
  if (error instanceof Error && error.name === 'TimeoutError') return said('emails:programTooSlow');
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  return said('emails:programSilent', { why: cause instanceof Error ? cause.message : String(cause) });
}
