import { textMessage, textNumber } from '@tolvek/core/notice';
import { own } from '@tolvek/core/own';
import { and, asc, eq, isNull, type SQL } from 'drizzle-orm';
import { personById } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';
import { dueBy, gone, type Notice, notGone, Outbox, type Posting, type Settled } from './outbox.ts';
import { settledInWords } from './settled.ts';
import { notices } from './tables.ts';
import type { TextGateway } from './texts.ts';
import { addressOf } from './wording.ts';

/** Text messages that are under way at once. */
const LINES = 3;

const BY_TEXT = and(isNull(notices.program), eq(notices.way, 'text')) as SQL;
const isDue = dueBy(BY_TEXT);
const dueNow = prepared((db) =>
  db.select().from(notices).where(isDue).orderBy(asc(notices.nextAttemptAt), asc(notices.id)).limit(LINES).prepare(),
);

/** Sends text messages by the gateway of the house. */
export class TextsSent extends Outbox {
  constructor(house: Posting, gateway: TextGateway | null) {
    super(house, {
      ours: BY_TEXT,
      someDue: (db, due) => dueNow(db).all({ ...due }).length > 0,
      next: (db, due) => dueNow(db).all({ ...due }),
      settled: (tx, notice, now) => settledAsText(house, tx, notice, { now, mayGo: gateway !== null }),
      send: (notice) => texted(house, gateway, notice),
      close: () => undefined,
    });
  }
}

/** Whether the desk says where the numbers are that text messages go to. */
export const sendsTexts = (db: Reader): boolean => {
  const { texts } = deskOf(db);
  return texts !== undefined && profileDesignOf(db).fields.some(({ key, retired }) => key === texts && !retired);
};

/** The number of somebody that text messages go to, as the desk says where it is; null where there is none. */
export function numberOf(db: Reader, personId: string | null): string | null {
  const field = deskOf(db).texts;
  const typed = field && personId !== null ? own(personById(db, personId)?.profile ?? {}, field) : undefined;
  return typeof typed === 'string' ? textNumber(typed) : null;
}

function settledAsText(
  { config }: Posting,
  tx: Transaction,
  notice: Notice,
  { now, mayGo }: { readonly now: number; readonly mayGo: boolean },
): Settled {
  const number = mayGo ? numberOf(tx, notice.personId) : null;
  if (number === null) return { state: 'dropped', why: 'unreachable' };
  const settled = settledInWords({ config }, tx, notice, now);
  return settled.state === 'sending' ? { ...settled, toAddress: number } : settled;
}

async function texted({ clock, config, log }: Posting, gateway: TextGateway | null, notice: Notice): Promise<Notice> {
  const { id, said, toAddress: to, rule } = notice;
  try {
    if (!gateway || !said || !('letter' in said))
      throw new Error('There is nothing to send, or nothing to send it by.');
    await gateway.send({ id, to, text: textMessage(said.letter, addressOf({ config }, said), rule !== null) });
    return gone(notice, clock.now());
  } catch (error) {
    const lastError = error instanceof Error ? error.message : String(error);
    log.warn({ notice: id, attempts: notice.attempts + 1, lastError }, 'a text message could not be sent');
    return notGone(notice, lastError, clock.now());
  }
}
