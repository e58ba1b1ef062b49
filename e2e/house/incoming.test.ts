import { join } from 'node:path';
import { addressOf } from '@tolvek/demo';
import { emailFiles, incomingEmails, notices, uploads } from '@tolvek/server/schema';
import Database from 'better-sqlite3';
import { eq } from 'drizzle-orm';
import nodemailer, { type SendMailOptions } from 'nodemailer';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok, VISIT } from './desk.ts';
import { bring as broughtTo, deskAddress } from './incoming.ts';
import { PDF } from './permit.ts';

// Issue 17, journey 3: what comes back by email finds its request, and what fits none is held.
let desk: Desk;
let [maren, ilse, priya, stranger]: readonly Caller[] = [];
let DESK = '';
let WIM = { name: 'Wim Haldane', email: '' };
let people = 0;
const PRIYA = addressOf('Priya Nakamura-Lind');

beforeAll(async () => {
  desk = await Desk.open();
  DESK = deskAddress(desk);
  [maren, ilse, priya, stranger] = [
    await desk.as('Maren Okafor'),
    await desk.as('Ilse Brandvold'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as(),
  ];
});
afterAll(() => desk.close());

const bring = (email: SendMailOptions, wayBack?: string): Promise<string> => broughtTo(desk, email, wayBack);
/** An answer to the newest email to somebody, as their mail program writes it. */
async function answer(to: string, text: string, more: SendMailOptions = {}): Promise<string> {
  const letter = (await desk.letters()).filter((each) => each.to.includes(to)).at(-1);
  const messageId = letter?.headers.find(({ name }) => name === 'Message-ID')?.value ?? '';
  const quoted = `On Mon, 23 Nov 2026 at 10:42, Service desk <${DESK}> wrote:\n\n${letter?.text.replace(/^/gm, '> ')}`;
  const words = { subject: `Re: ${letter?.subject}`, text: `${text}\n\n${quoted}` };
  return bring({ from: to, ...words, inReplyTo: messageId, references: messageId, ...more });
}
const held = async () => ok(await (maren as Caller).call('incomingEmails')).emails;
const one = async (id: string) => ok(await (maren as Caller).call('incomingEmail', { params: { id } }));
const linesOf = async (number: string) => (await (maren as Caller).sheet(number)).history;
const ask = async (): Promise<string> => ok(await (priya as Caller).submit('come-on-site', VISIT)).number;

/** Somebody from outside asks, and confirms it. */
async function askedFromOutside(): Promise<string> {
  // Whoever has not confirmed their address gets few emails in an hour.
  people += 1;
  WIM = { name: 'Wim Haldane', email: `wim.haldane@haldane${people}.example` };
  ok(await (stranger as Caller).submit('visit', VISIT, { contact: WIM }));
  const params = { token: await desk.tokenFor(WIM.email, 'confirm') };
  return ok(await (stranger as Caller).call('confirm', { params })).number;
}
async function pause(number: string): Promise<void> {
  const { stage, version, moves } = await (ilse as Caller).sheet(number);
  void moves;
  const to = desk.register('site-access').stages.find(({ phase }) => phase === 'paused');
  const body = { stage: to?.key };
  const answer = await (ilse as Caller).call('moveStage', {
    ...{ params: { number }, headers: { 'If-Match': `"${version}"` }, body },
  });
  if (answer.status !== 200) throw new Error(`${number} stays ${stage.key}: ${answer.text}`);
}

describe('an email of whoever asked', () => {
  it('is a message of theirs, with its files and without what it answers, and goes on with what waited', async () => {
    const number = await askedFromOutside();
    await pause(number);
    const text = 'We come by boat, at noon.\nThe list is attached.';
    const attachments = [
      { filename: 'list.pdf', content: Buffer.from(PDF) },
      { filename: 'tool.exe', content: Buffer.from('MZ no such file is taken') },
    ];
    expect(await answer(WIM.email, text, { attachments })).toMatch(/^250 /);
    const sheet = await (ilse as Caller).sheet(number);
    expect(sheet.stage.phase).not.toBe('paused');
    const line = sheet.history.find(({ comment }: { comment: { text: string } | null }) => comment?.text === text);
    expect(line).toMatchObject({ who: WIM.name, comment: { files: [{ name: 'list.pdf' }] } });
    expect(line.what).toBe('Message from the requester, by email (without tool.exe: such files are not taken)');
    // The link to their request, which the answer quotes, stands nowhere.
    const token = await desk.tokenFor(WIM.email, 'follow');
    expect(JSON.stringify(desk.running.house.db.select().from(incomingEmails).all())).not.toContain(token);
    expect(desk.running.house.db.select().from(emailFiles).all()).toEqual([]);
    // Whoever works on it hears of it, and may answer by a note.
    const told = (await desk.letters()).filter(({ text: said }) => said.includes('We come by boat')).at(-1);
    expect(told?.text).toContain(`your answer is a note for staff. ${WIM.name} does not get it.`);
  });

  it('is found by its number alone as well, and taken once however often it comes', async () => {
    const number = await askedFromOutside();
    const email = { from: WIM.email, subject: `About ${number.toLowerCase()}`, text: 'One of us stays at home.' };
    for (const _ of [1, 2, 3]) expect(await bring({ ...email, messageId: '<one@haldane.example>' })).toMatch(/^250 /);
    const lines = (await linesOf(number)).filter((each: { comment: unknown }) =>
      JSON.stringify(each.comment)?.includes('stays at home'),
    );
    expect(lines).toHaveLength(1);
  });

  it('is held where nobody knows which request it is about, or where it is of somebody else', async () => {
    const before = new Set((await held()).map(({ id }: { id: string }) => id));
    const number = await ask();
    await bring({ from: WIM.email, subject: 'A question', text: 'May we bring a drone?' });
    await bring({ from: 'who.knows@else.example', subject: `Re: ${number}`, text: 'Me too.' });
    await bring({ from: WIM.email, subject: `Re: ${number}`, text: 'What is it about?' });
    await bring({ from: WIM.email, subject: `${number} and ${await ask()}`, text: 'Both, please.' });
    await answer(WIM.email, '');
    const found = (await held()).filter(({ id }: { id: string }) => !before.has(id));
    expect(found.map(({ why }: { why: string }) => why).reverse()).toEqual([
      ...['no-request', 'unknown-sender', 'may-not', 'several', 'empty'],
    ]);
    expect((await linesOf(number)).map((each: { comment: unknown }) => each.comment).filter(Boolean)).toEqual([]);
  });
});

describe('an email of the staff', () => {
  it('is a note where it answers an email that went to them, and held where anybody could have sent it', async () => {
    const number = await ask();
    const email = addressOf('Ilse Brandvold');
    expect(await answer(email, 'I know them: fine with me.')).toMatch(/^250 /);
    const [line] = (await linesOf(number)).filter((each: { comment: unknown }) => each.comment);
    expect(line).toMatchObject({ who: 'Ilse Brandvold', what: 'Note for staff, by email' });
    expect(JSON.stringify((await (priya as Caller).call('myRequest', { params: { number } })).body)).not.toContain(
      'fine with me',
    );
    await bring({ from: email, subject: `Re: ${number}`, text: 'Give them all keys.' });
    const [first] = await held();
    expect([first.why, first.beginning]).toEqual(['unproved', 'Give them all keys.']);
    // As well where it answers what went to somebody else.
    const to = (await desk.letters()).filter(({ to: reader }) => reader.includes(PRIYA)).at(-1);
    const id = to?.headers.find(({ name }) => name === 'Message-ID')?.value ?? '';
    await bring({ from: email, subject: 'Re: something', text: 'And a car.', inReplyTo: id });
    expect((await held())[0].why).toBe('unproved');
  });
});

describe('what no person wrote', () => {
  it('is left aside, and wakes nobody', async () => {
    const number = await askedFromOutside();
    await pause(number);
    const count = (await held()).length;
    await answer(WIM.email, 'I am away until Monday.', { headers: { 'Auto-Submitted': 'auto-replied' } });
    expect((await (ilse as Caller).sheet(number)).stage.phase).toBe('paused');
    expect(await held()).toHaveLength(count);
    const { emails } = ok(await (maren as Caller).call('incomingEmails', { query: { state: 'aside' } }));
    expect(emails[0].beginning).toBe('I am away until Monday.');
  });

  it('says which of our emails did not arrive, and why', async () => {
    const number = await askedFromOutside();
    const letter = (await desk.letters()).filter(({ to }) => to.includes(WIM.email)).at(-1);
    const id = letter?.headers.find(({ name }) => name === 'Message-ID')?.value ?? '';
    const raw = [
      ...['From: mail@haldane.example', `To: ${DESK}`, 'Subject: Undelivered', 'MIME-Version: 1.0'],
      'Content-Type: multipart/report; report-type=delivery-status; boundary=b',
      ...['', '--b', 'Content-Type: text/plain', '', 'Sorry.', '--b', 'Content-Type: message/delivery-status', ''],
      ...['Reporting-MTA: dns; mx.haldane.example', '', `Final-Recipient: rfc822; ${WIM.email}`, 'Action: failed'],
      ...['Status: 5.2.2', 'Diagnostic-Code: smtp; 552 mailbox full', '', '--b', 'Content-Type: message/rfc822', ''],
      ...[`Message-ID: ${id}`, 'Subject: We received your request', '', 'Dear Wim', '--b--', ''],
    ].join('\r\n');
    expect(await bring({ from: 'mail@haldane.example', raw }, '')).toMatch(/^250 /);
    const { emails } = ok(await (maren as Caller).call('requestEmails', { params: { number } }));
    expect(emails.find(({ person }: { person: string }) => person === WIM.name)).toMatchObject({
      ...{ state: 'failed', error: '552 mailbox full' },
    });
    expect((await (maren as Caller).call('trays')).body.failedLetters).toBe(1);
    const line = (await linesOf(number)).at(-1);
    expect(line.what).toBe('An email to Wim Haldane was not delivered: 552 mailbox full');
    const told = (await desk.letters()).filter(({ subject }) => subject.includes(number)).at(-1);
    expect([told?.to.includes(WIM.email), told?.text]).toEqual([
      false,
      expect.stringContaining('An email to Wim Haldane was not delivered: 552 mailbox full'),
    ]);
    desk.running.house.db.update(notices).set({ state: 'sent' }).where(eq(notices.state, 'failed')).run();
  });

  it('is taken for no other mailbox, and asked to come again before the desk is laid', async () => {
    expect(await bring({ from: WIM.email, to: 'else@station.example', text: 'Hello' })).toMatch(/550/);
    const [local, domain] = DESK.split('@');
    expect(await bring({ from: WIM.email, to: `${local}+visits@${domain}`, text: 'Hello' })).toMatch(/^250 /);
    const empty = await Desk.empty();
    const transport = nodemailer.createTransport({ url: empty.running.house.config.mailIn ?? '', ignoreTLS: true });
    await expect(transport.sendMail({ from: WIM.email, to: DESK, text: 'Hello' })).rejects.toThrow(/451/);
    transport.close();
    await empty.close();
  });
});

describe('an email that can’t be stored just now', () => {
  it('is not confirmed, and is there once it comes again', async () => {
    const number = await askedFromOutside();
    const email = { from: WIM.email, subject: number, text: 'The tide is late.', messageId: '<late@haldane.example>' };
    const other = new Database(join(desk.folder, 'tolvek.sqlite'));
    other.exec('begin immediate');
    expect(await bring(email)).toMatch(/451/);
    other.exec('rollback');
    other.close();
    expect(await bring(email)).toMatch(/^250 /);
    expect(JSON.stringify(await linesOf(number))).toContain('The tide is late.');
  });
});

describe('an email that is held', () => {
  const newest = async () => (await held())[0];

  it('is joined to a request as whoever adds it says, and is then nowhere else', async () => {
    const number = await askedFromOutside();
    await pause(number);
    const private_ = { from: 'Wim <wim@home.example>', subject: 'Boat', text: 'It is me, from home.' };
    await bring({ ...private_, attachments: [{ filename: 'map.pdf', content: Buffer.from(PDF) }] });
    const { id } = await newest();
    expect(await one(id)).toMatchObject({ person: null, about: null, files: [{ name: 'map.pdf' }], why: 'no-request' });
    const body = { number: number.toLowerCase(), as: 'message' };
    expect(ok(await (maren as Caller).call('joinEmail', { params: { id }, body }))).toEqual({ number });
    const sheet = await (maren as Caller).sheet(number);
    expect(sheet.stage.phase).not.toBe('paused');
    const line = sheet.history.find(
      (each: { comment: { text: string } | null }) => each.comment?.text === private_.text,
    );
    expect(line).toMatchObject({
      ...{ who: 'Maren Okafor', what: 'Message from the requester, by email from Wim <wim@home.example>' },
      comment: { files: [{ name: 'map.pdf' }] },
    });
    expect((await (maren as Caller).call('joinEmail', { params: { id }, body })).status).toBe(409);
    const row = desk.running.house.db.select().from(incomingEmails).where(eq(incomingEmails.id, id)).get();
    expect([row?.text, row?.whole, row?.subject, row?.fromName]).toEqual(['', '', '', '']);
  });

  it('becomes a request of whoever wrote it, who hears of it as if they had asked', async () => {
    await bring({
      ...{ from: 'Nerys Coe <nerys@coe.example>', subject: 'Visit', text: 'May I come on Monday?' },
      attachments: [{ filename: 'id.pdf', content: Buffer.from(PDF) }],
    });
    const { id } = await newest();
    const asks = { params: { id }, headers: freshly(), body: { slug: 'visit', release: 1, answers: VISIT } };
    const wrong = { ...asks, headers: freshly(), body: { ...asks.body, answers: { ...VISIT, arrival: 'soon' } } };
    expect((await (maren as Caller).call('askByEmail', wrong)).status).toBe(422);
    expect((await newest()).id).toBe(id);
    const { number } = ok(await (maren as Caller).call('askByEmail', asks));
    // The same press again makes no second one.
    expect(ok(await (maren as Caller).call('askByEmail', asks)).number).toBe(number);
    const sheet = await (maren as Caller).sheet(number);
    expect([sheet.requester.name, sheet.enteredBy]).toEqual(['Nerys Coe', 'Maren Okafor']);
    const file = desk.running.house.db.select().from(uploads).where(eq(uploads.name, 'id.pdf')).get();
    expect(file?.requestId).toBeTruthy();
    const letter = (await desk.letters()).filter(({ to }) => to.includes('nerys@coe.example')).at(-1);
    expect(letter?.subject).toContain(number);
    // What she answers is hers now.
    await answer('nerys@coe.example', 'Thank you.');
    expect((await linesOf(number)).some((each: { what: string }) => each.what.startsWith('Message from the'))).toBe(
      true,
    );
  });

  it('is laid aside and taken back; nobody else sees any of them', async () => {
    await bring({ from: 'ads@shop.example', subject: 'Cheap boats', text: 'Buy now' });
    const { id } = await newest();
    ok(await (maren as Caller).call('layEmailAside', { params: { id } }));
    expect((await newest())?.id).not.toBe(id);
    expect((await one(id)).settled).toMatchObject({ by: 'Maren Okafor' });
    ok(await (maren as Caller).call('holdEmail', { params: { id } }));
    expect((await newest()).id).toBe(id);
    for (const call of ['incomingEmails', 'incomingEmail'] as const)
      expect((await (ilse as Caller).call(call, { params: { id } })).status).toBe(403);
    expect((await (ilse as Caller).call('trays')).body.heldEmails).toBe(0);
    expect((await (maren as Caller).call('trays')).body.heldEmails).toBeGreaterThan(0);
  });
});

it('an email that waits is told at once to those who may say what becomes of it, without a word of it', async () => {
  const stop = new AbortController();
  const hears = async (caller: Caller) => {
    const headers = { cookie: caller.cookie };
    const stream = await fetch(`${desk.running.url}/api/live`, { headers, signal: stop.signal });
    let heard = '';
    void (async () => {
      for await (const chunk of stream.body ?? []) heard += Buffer.from(chunk).toString();
    })().catch(() => undefined);
    return () => heard;
  };
  const [hers, his] = [await hears(maren as Caller), await hears(ilse as Caller)];
  await bring({ from: 'ads@shop.example', subject: 'Cheaper boats', text: 'Buy now or later' });
  for (let tries = 0; tries < 100 && !hers().includes('event:email'); tries += 1)
    await new Promise((go) => setTimeout(go, 50));
  expect(hers()).toContain('event:email');
  expect(hers() + his()).not.toContain('boats');
  expect(his()).not.toContain('event:email');
  stop.abort();
});

describe('emails about one request', () => {
  it('stand together in a mail program', async () => {
    const number = await askedFromOutside();
    const body = { text: 'Please bring boots.', visibility: 'requester' };
    for (const _ of [1, 2]) ok(await (ilse as Caller).call('comment', { params: { number }, body }));
    const about = (await desk.letters()).filter(
      ({ to, subject }) => to.includes(WIM.email) && subject.includes(number),
    );
    const header = (n: number, called: string) => about[n]?.headers.find(({ name }) => name === called)?.value;
    expect(about).toHaveLength(3);
    for (const n of [1, 2]) expect(header(n, 'In-Reply-To')).toBe(header(0, 'Message-ID'));
    expect(header(0, 'In-Reply-To')).toBeUndefined();
    expect(about[1]?.text).toContain('You can also answer this email. Your answer goes to us.');
  });
});
