import type { noticeRoutes } from '@tolvek/contract';
import { desc, eq, like, or } from 'drizzle-orm';
import { iso } from '../platform/clock.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { notFound } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { write } from '../platform/work.ts';
import { bellOf, seeBell } from './bell.ts';
import { lettersLeft, sendAgain, sendFailedAgain } from './failed.ts';
import { letters, texts } from './tables.ts';
import { writeEmail } from './writeEmail.ts';

const SHOWN = 200;

/**
 * The Mailroom: everybody's letters, so it is there in demo mode only. Letters hold no restricted
 * field.
 */
export function noticeHandlers(house: House): Handlers<typeof noticeRoutes> {
  const { db, config } = house;
  const onlyDemo = (): void => {
    if (config.mode !== 'demo') throw notFound('mailroom');
  };
  return {
    mailroom: ({ query }) => {
      onlyDemo();
      const pattern = `%${query.find?.trim().replace(/[%_]/g, '') ?? ''}%`;
      const found = db
        .select()
        .from(letters)
        .where(or(like(letters.subject, pattern), like(letters.to, pattern), like(letters.text, pattern)))
        .orderBy(desc(letters.receivedAt), desc(letters.id))
        .limit(SHOWN)
        .all();
      return {
        letters: found.map(({ id, receivedAt, to, subject }) => ({ id, receivedAt: iso(receivedAt), to, subject })),
        ...lettersLeft(db),
      };
    },
    sendEmailAgain: ({ viewer, params }) => {
      sendAgain(house, viewer, params.id);
      house.wakeOutbox();
      return { done: true };
    },
    sendFailedAgain: () => ({ letters: sendFailedAgain(house) }),
    writeEmail: async ({ body }) => {
      onlyDemo();
      await writeEmail(house, body);
      return { done: true };
    },
    bell: ({ viewer }) => bellOf(db, viewer, house.clock.now()),
    seeBell: ({ viewer, body }) => {
      seeBell(house, viewer, body.until);
      return { done: true };
    },
    takeText: ({ body, request }) => {
      onlyDemo();
      const { address, outboundSMSTextMessage, clientCorrelator: correlator } = body.outboundSMSMessageRequest;
      write(house, ({ tx, now }) => {
        const row = { id: newId(), correlator, receivedAt: now, text: outboundSMSTextMessage.message };
        const to = address.map((each) => each.replace(/^tel:/, '')).join(', ');
        tx.insert(texts)
          .values({ ...row, to })
          .onConflictDoNothing()
          .run();
      });
      return { resourceReference: { resourceURL: `${config.url}${request.path}/${correlator}` } };
    },
    texts: () => {
      onlyDemo();
      const rows = db.select().from(texts).orderBy(desc(texts.receivedAt), desc(texts.id)).limit(SHOWN).all();
      return { texts: rows.map(({ id, receivedAt, to, text }) => ({ id, receivedAt: iso(receivedAt), to, text })) };
    },
    letter: ({ params }) => {
      onlyDemo();
      const letter = db.select().from(letters).where(eq(letters.id, params.id)).get();
      if (!letter) throw notFound('email');
      const { id, receivedAt, from, to, subject, text, html, headers } = letter;
      return { id, receivedAt: iso(receivedAt), from, to, subject, text, html, headers: [...headers] };
    },
  };
}
