import type { RouteName } from '@tolvek/contract';
import { addressOf } from '@tolvek/demo';
import { emailFiles, incomingEmails } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import nodemailer, { type SendMailOptions } from 'nodemailer';
import { deskOf } from '../../server/src/settings/queries.ts';
import type { Caller, Desk } from './desk.ts';
import { PDF } from './permit.ts';

type Input = NonNullable<Parameters<Caller['call']>[1]>;

/** The address of a desk. */
export const deskAddress = (desk: Desk): string => deskOf(desk.running.house.db).sender.address;

/** Brings an email to where emails come in, as the mail server of the house does. Gives what it was told. */
export async function bring(desk: Desk, email: SendMailOptions, wayBack?: string): Promise<string> {
  const transport = nodemailer.createTransport({ url: desk.running.house.config.mailIn ?? '', ignoreTLS: true });
  const to = deskAddress(desk);
  const envelope = wayBack === undefined ? {} : { envelope: { from: wayBack, to } };
  try {
    return (await transport.sendMail({ to, ...envelope, ...email })).response;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  } finally {
    transport.close();
  }
}

/** An email that waits, by its subject, once it was brought; with the files that came with it. */
export async function brought(
  desk: Desk,
  subject: string,
  from = 'nerys@coe.example',
): Promise<{ readonly id: string; readonly file: string }> {
  const { db } = desk.running.house;
  const attachments = [{ filename: 'plan.pdf', content: PDF }];
  await bring(desk, {
    from,
    subject,
    text: 'Good day.',
    messageId: `<${subject}@coe.example>`,
    attachments,
  });
  const email = db.select().from(incomingEmails).where(eq(incomingEmails.subject, subject)).get();
  const file = db
    .select()
    .from(emailFiles)
    .where(eq(emailFiles.emailId, email?.id ?? ''))
    .get();
  return { id: email?.id ?? '', file: file?.id ?? '' };
}

/** A call of each route about emails that came in, each on an email of its own. */
export async function incomingCalls(desk: Desk): Promise<Partial<Record<RouteName, readonly Input[]>>> {
  const read = await brought(desk, 'read');
  const joined = await brought(desk, 'joined');
  const aside = await brought(desk, 'aside');
  const back = await brought(desk, 'back');
  const asked = await brought(desk, 'asked', addressOf('Hanne Istvan'));
  const { id } = read;
  const { form } = (await (await desk.as('Maren Okafor')).call('door', { params: { slug: 'visit' } })).body;
  const visit = {
    ...{ visitor: 'Nerys Coe', institute: 'corrin', reason: 'A visit', works_on_water: false },
    ...{ arrival: '2026-12-07', departure: '2026-12-08' },
  };
  return {
    incomingEmails: [{}, { query: { state: 'aside' } }],
    incomingEmail: [{ params: { id } }],
    incomingFile: [{ params: { id, file: read.file } }],
    joinEmail: [{ params: { id: joined.id }, body: { number: 'VS-00001', as: 'note' } }],
    layEmailAside: [{ params: { id: aside.id } }],
    holdEmail: [{ params: { id: back.id } }],
    askByEmail: [
      {
        ...{ params: { id: asked.id }, headers: { 'Idempotency-Key': 'asked-by-email' } },
        body: { slug: 'visit', release: form.release, answers: visit },
      },
    ],
    writeEmail: [{ body: { from: 'nerys@coe.example', subject: 'written', text: 'Good day.', answers: null } }],
  };
}
