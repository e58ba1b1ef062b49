import { and, asc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import nodemailer, { type Transporter } from 'nodemailer';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { deskOf } from '../settings/queries.ts';
import { gather, isTimeToGather, settleGathered } from './gather.ts';
import { dueBy, gone, type Notice, notGone, Outbox, type Posting } from './outbox.ts';
import { settledInWords } from './settled.ts';
import { notices } from './tables.ts';
import { dressed } from './wording.ts';

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

/** How an email of ours is named. */
const messageIdOf = (id: string): string => `<${id}@tolvek>`;

/** What holds the emails to somebody about a request together in mail programs (RFC 5322, 3.6.4): all follow the first. */
function threadOf(db: Reader, { id, requestId: request, personId: person }: Notice) {
  const first = request !== null && person !== null ? firstSent(db).get({ request, person }) : undefined;
  if (!first || first.id === id) return {};
  return { inReplyTo: messageIdOf(first.id), references: messageIdOf(first.id) };
}

/** What goes by email. */
const BY_EMAIL = and(isNull(notices.program), eq(notices.way, 'email')) as SQL;
const isDue = dueBy(BY_EMAIL);
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
        // Of a request there are few, of somebody who works here many: as said, else theirs would be looked through.
        sql`+${notices.personId} = ${sql.placeholder('person')}`,
        eq(notices.state, 'sent'),
      ),
    )
    .orderBy(asc(notices.createdAt), asc(notices.id))
    .limit(1)
    .prepare(),
);

/** Sends letters by the mail server of the house. */
export class Sender extends Outbox {
  constructor(house: Posting, smtp: string) {
    const transport = nodemailer.createTransport({
      ...{ url: smtp, pool: true, maxConnections: LINES, maxMessages: Number.POSITIVE_INFINITY, ...SILENCE },
    });
    super(house, {
      ours: BY_EMAIL,
      someDue: (db, due) => someDue(db).get({ ...due }) !== undefined,
      next: (db, due) => dueNow(db).all({ ...due }),
      prepares: { isTime: isTimeToGather, does: gather },
      settled: (tx, notice, now) => settledInWords(house, tx, notice, now),
      send: (notice) => mailed(house, transport, notice),
      stored: (tx, { id, kind, state }) => {
        if (kind === 'digest' && state === 'sent') settleGathered(tx, id);
      },
      close: () => transport.close(),
    });
  }
}

async function mailed(
  { clock, config, db, log }: Posting,
  transport: Pick<Transporter, 'sendMail'>,
  notice: Notice,
): Promise<Notice> {
  const { id, said } = notice;
  const { name, sender } = deskOf(db);
  try {
    await transport.sendMail({
      messageId: messageIdOf(id),
      from: { name: sender.name || name, address: sender.address },
      to: { name: notice.toName, address: notice.toAddress },
      subject: notice.subject,
      ...threadOf(db, notice),
      ...(said && !('body' in said) ? dressed({ config }, db, said) : { text: '', html: '' }),
      headers: { 'Auto-Submitted': 'auto-generated', 'X-Tolvek-Notice': notice.kind },
    });
    return gone(notice, clock.now());
  } catch (error) {
    const lastError = error instanceof Error ? error.message : String(error);
    log.warn({ letter: id, attempts: notice.attempts + 1, lastError }, 'a letter could not be sent');
    return notGone(notice, lastError, clock.now());
  }
}
