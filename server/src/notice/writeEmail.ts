import type { BodyOf } from '@tolvek/contract';
import { isMailAddress } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import nodemailer from 'nodemailer';
import type { House } from '../platform/house.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { deskOf } from '../settings/queries.ts';
import { letters } from './tables.ts';

/**
 * Writes an email to the desk in the place of somebody’s mail program, and brings it to where emails come in, as the
 * mail server of a house would: an answer quotes what it answers.
 *
 * @throws Problem 404 where no emails come in, or the letter is gone; 422 where its sender is no address
 */
export async function writeEmail(
  { db, config }: Pick<House, 'db' | 'config'>,
  { from, subject, text, answers }: BodyOf<'writeEmail'>,
): Promise<void> {
  if (config.mailIn === null) throw notFound('mailroom');
  const letter = answers === null ? undefined : db.select().from(letters).where(eq(letters.id, answers)).get();
  if (answers !== null && !letter) throw notFound('email');
  if (!letter && !isMailAddress(from))
    throw wrongFields([
      { field: 'from', message: said('answers:notAnEmail', { typed: from }), fix: said('answers:likeEmail') },
    ]);
  const quoted = letter
    ? `\n\n${new Date(letter.receivedAt).toUTCString()}, ${letter.from}:\n${letter.text.replace(/^/gm, '> ')}`
    : '';
  const transport = nodemailer.createTransport({ url: config.mailIn, ignoreTLS: true });
  try {
    await transport.sendMail({
      from: letter ? letter.to : from,
      to: deskOf(db).sender.address,
      subject: letter ? `Re: ${letter.subject}` : subject,
      text: `${text}${quoted}`,
      ...(letter ? { inReplyTo: letter.messageId, references: letter.messageId } : {}),
    });
  } finally {
    transport.close();
  }
}
