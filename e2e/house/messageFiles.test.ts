import { uploads } from '@tolvek/server/schema';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Caller, Desk, ok, VISIT } from './desk.ts';
import { PDF } from './permit.ts';

// B24, issue 16 “On my request”: messages both ways with files.
let desk: Desk;
let ilse: Caller;
let priya: Caller;
let bram: Caller;
let stranger: Caller;
let number: string;
let outside: { number: string; follow: string };
const WIM = { name: 'Wim Haldane', email: 'wim.haldane@haldane.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [ilse, priya, bram, stranger] = [
    await desk.as('Ilse Brandvold'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Bram Solheim'),
    await desk.as(),
  ];
  number = ok(await priya.submit('come-on-site', VISIT)).number;
  ok(await stranger.submit('visit', VISIT, { contact: WIM }));
  outside = ok(await stranger.call('confirm', { params: { token: await desk.tokenFor(WIM.email, 'confirm') } }));
});
afterAll(() => desk.close());

/** Sends a file to an address; gives the status and what it is known by. */
async function send(who: Caller, at: string, name: string, bytes: Uint8Array = PDF) {
  const query = new URLSearchParams({ field: '~message', name });
  const response = await fetch(`${desk.running.url}/api/${at}/message-files?${query}`, {
    method: 'POST',
    headers: { cookie: who.cookie, 'content-type': 'application/octet-stream' },
    body: bytes as BodyInit,
  });
  return { status: response.status, body: await response.json() };
}
const read = async (who: Caller, at: string): Promise<number> =>
  (await fetch(`${desk.running.url}/api/${at}`, { headers: { cookie: who.cookie } })).status;
const idOf = (ref: string): string => ref.split('/')[0] ?? '';
const messages = async (who: Caller, of: string) =>
  ok(await who.call('myRequest', { params: { number: of } })).messages;

it('go from the desk to whoever asked, who alone reads them besides', async () => {
  const sent = await send(ilse, `requests/${number}`, 'plan.pdf');
  expect([sent.status, sent.body.ref.endsWith('/plan.pdf')]).toEqual([200, true]);
  const body = { text: 'Here is the way to the gate.', visibility: 'requester', files: [sent.body.ref] };
  ok(await ilse.call('comment', { params: { number }, body }));
  const [message] = await messages(priya, number);
  expect(message.files).toEqual([{ id: idOf(sent.body.ref), name: 'plan.pdf' }]);
  const at = `requests/${number}/files/${idOf(sent.body.ref)}`;
  expect([await read(priya, at), await read(ilse, at), await read(bram, at), await read(stranger, at)]).toEqual([
    ...[200, 200, 404, 401],
  ]);
  const letter = (await desk.letters()).filter(({ to }) => to.includes('priya')).at(-1);
  expect(letter?.text).toContain('plan.pdf');
  // It stands at no other request, and joins no second message.
  expect(await read(priya, `requests/${outside.number}/files/${idOf(sent.body.ref)}`)).toBe(404);
  const again = await ilse.call('comment', { params: { number: outside.number }, body });
  expect([again.status, again.body.problems[0].field]).toEqual([422, 'files']);
});

it('go with a note of the desk that whoever asked does not read', async () => {
  const { body: file } = await send(ilse, `requests/${number}`, 'inside.pdf');
  const body = { text: 'For us.', visibility: 'internal', files: [file.ref] };
  ok(await ilse.call('comment', { params: { number }, body }));
  const at = `requests/${number}/files/${idOf(file.ref)}`;
  expect([await read(ilse, at), await read(priya, at)]).toEqual([200, 404]);
  expect(JSON.stringify(await messages(priya, number))).not.toContain('inside');
});

it('come from whoever asked, at the desk and by the link of an email', async () => {
  const mine = await send(priya, `my/requests/${number}`, 'pass.pdf');
  const body = { text: 'My pass.', files: [mine.body.ref] };
  ok(await priya.call('myMessage', { params: { number }, body }));
  const sheet = ok(await ilse.call('sheet', { params: { number } }));
  expect(sheet.history.at(-1).comment.files).toEqual([{ id: idOf(mine.body.ref), name: 'pass.pdf' }]);
  expect(await read(ilse, `requests/${number}/files/${idOf(mine.body.ref)}`)).toBe(200);

  const token = { token: outside.follow };
  const theirs = await send(stranger, `follow/${outside.follow}`, 'crane.pdf');
  ok(await stranger.call('followMessage', { params: token, body: { text: 'The crane.', files: [theirs.body.ref] } }));
  const [last] = ok(await stranger.call('follow', { params: token })).messages.slice(-1);
  expect(last.files.map(({ name }: { name: string }) => name)).toEqual(['crane.pdf']);
  expect(await read(stranger, `follow/${outside.follow}/files/${idOf(theirs.body.ref)}`)).toBe(200);
  expect(await read(ilse, `requests/${outside.number}/files/${idOf(theirs.body.ref)}`)).toBe(200);
});

it('are taken from nobody else, nor what is no file that is taken', async () => {
  expect((await send(bram, `requests/${number}`, 'x.pdf')).status).toBe(404);
  expect((await send(bram, `my/requests/${number}`, 'x.pdf')).status).toBe(404);
  expect((await send(stranger, `my/requests/${number}`, 'x.pdf')).status).toBe(401);
  expect((await send(stranger, 'follow/guessed', 'x.pdf')).status).toBe(404);
  const program = await send(priya, `my/requests/${number}`, 'x.exe', Buffer.from('MZ a program'));
  expect(program.status).toBe(422);
  // A file that was sent for an answer is none of a message.
  const { db } = desk.running.house;
  const { body: file } = await send(priya, `my/requests/${number}`, 'y.pdf');
  db.update(uploads).set({ field: 'reason' }).run();
  const body = { text: 'This one.', files: [file.ref] };
  expect((await priya.call('myMessage', { params: { number }, body })).status).toBe(422);
});
