import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';

// C1: the address of a door in use is changed; the one it had leads on to it, or says that it leads nowhere any more.
let desk: Desk;
let stranger: Caller;
let maren: Caller;
const at = (slug: string, query = {}): Promise<Answer> => stranger.call('door', { params: { slug }, query });
const move = async (slug: string, body: object): Promise<Answer> => {
  const { version } = ok(await maren.call('doorDesign', { params: { slug } }));
  return maren.call('moveDoor', { params: { slug }, headers: onVersion(version), body });
};
const contact = { name: 'Ida Vestergren', email: 'ida.vestergren@merrow.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [stranger, maren] = [await desk.as(), await desk.as('Maren Okafor')];
});
afterAll(() => desk.close());

it('leads on from an address that it had: what is printed goes on working, and what is sent twice counts once', async () => {
  const once = freshly();
  const first = await stranger.submit('visit', VISIT, { contact, key: once['Idempotency-Key'] });
  const { door, version } = ok(await maren.call('doorDesign', { params: { slug: 'come-on-site' } }));
  const instead = { door: { ...door, instead: 'visit' }, note: '' };
  ok(await maren.call('changeDoor', { params: { slug: 'come-on-site' }, headers: onVersion(version), body: instead }));
  expect(ok(await move('visit', { slug: 'guests', leadsOn: true }))).toEqual({ slug: 'guests' });
  expect([ok(await at('guests')).slug, ok(await at('visit')).slug]).toEqual(['guests', 'guests']);
  // Sent again on the way to the other address, it is what it was.
  const again = await stranger.submit('guests', VISIT, { contact, key: once['Idempotency-Key'] });
  expect([again.status, again.body.sent]).toEqual([200, first.body.sent]);
  ok(await stranger.submit('visit', VISIT, { contact }));
  // Whoever was sent there is sent on.
  expect(ok(await maren.call('doorDesign', { params: { slug: 'come-on-site' } })).door.instead).toBe('guests');
  const { former } = ok(await maren.call('doorDesign', { params: { slug: 'guests' } }));
  expect(former.map(({ slug, leadsOn }: { slug: string; leadsOn: boolean }) => [slug, leadsOn])).toEqual([
    ['visit', true],
  ]);
});

it('gives an address that was one to no other door, and to its own again', async () => {
  const taken = await move('school-visit', { slug: 'visit', leadsOn: true });
  expect(taken.body.problems.map(({ field }: { field: string }) => field)).toEqual(['slug']);
  const body = { name: 'Another', proof: 'sign-in', slug: 'visit' };
  const added = await maren.call('addDoor', { params: { key: 'purchase' }, headers: freshly(), body });
  expect(added.status).toBe(422);
  ok(await move('guests', { slug: 'visit', leadsOn: true }));
  expect([ok(await at('guests')).slug, ok(await at('visit')).slug]).toEqual(['visit', 'visit']);
});

it('leads nowhere from one that got into the wrong hands, but for who was filling in', async () => {
  const { opened } = ok(await at('visit')).form;
  await stranger.call('advanceClock', { body: { minutes: 1 } });
  const { slug } = ok(await move('visit', { leadsOn: false }));
  expect(slug).toMatch(/^site-access-[0-9a-z]+(-\d+)?$/);
  for (const old of ['visit', 'guests']) {
    const gone = await at(old);
    expect([gone.status, gone.body.type]).toEqual([410, 'urn:tolvek:problem:address-ended']);
    // The address it has is told to nobody who comes by the old one.
    expect(gone.text).not.toContain(slug);
    expect((await stranger.submit(old, VISIT, { contact })).status).toBe(410);
  }
  expect(ok(await at('visit', { opened })).form.opened).toBe(opened);
  ok(await stranger.submit('visit', { ...VISIT, visitor: 'Half-way' }, { contact, more: { opened } }));
  // Nobody opens it anew by what somebody was given at another door.
  const other = ok(await at('school-visit')).form?.opened ?? 'made.up';
  expect((await at('visit', { opened: other })).status).toBe(410);
  expect(ok(await at(slug)).slug).toBe(slug);
});
