import { pbkdf2Sync } from 'node:crypto';
import type { DoorDesign } from '@tolvek/core/door';
import { requests } from '@tolvek/server/schema';
import type { Words } from '@tolvek/words';
import { english as inEnglish } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let oskar: Caller;
let priya: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  oskar = await desk.as('Oskar Veldhuis');
  priya = await desk.as('Priya Nakamura-Lind');
  stranger = await desk.as();
});
afterAll(() => desk.close());

const MINUTE = 60_000;
const now = (): number => desk.running.house.clock.now();
const later = async (minutes: number): Promise<void> =>
  void ok(await stranger.call('advanceClock', { body: { minutes } }));
const state = async (slug: string): Promise<{ version: number; door: DoorDesign; used: { n: number }[] }> =>
  ok(await maren.call('doorDesign', { params: { slug } }));
/** Puts something of a door in force, or says why not. */
const set = async (slug: string, change: Partial<DoorDesign>): Promise<Answer> => {
  const { version, door } = await state(slug);
  return maren.call('changeDoor', {
    ...{ params: { slug }, headers: onVersion(version), body: { door: { ...door, ...change }, note: '' } },
  });
};
/** A door of its own, for a test to set. */
async function door(name: string, change: Partial<DoorDesign> = {}, proof = 'confirmed-address'): Promise<string> {
  const added = await maren.call('addDoor', {
    ...{ params: { key: 'site-access' }, headers: freshly(), body: { name, proof } },
  });
  const { slug } = ok(added);
  ok(await set(slug, change));
  return slug;
}
const at = (slug: string, who = stranger, opened?: string): Promise<Answer> =>
  who.call('door', { params: { slug }, ...(opened ? { query: { opened } } : {}) });
const openedBy = async (slug: string, who = stranger): Promise<string> => ok(await at(slug, who)).form.opened;
const fieldsOf = (answer: Answer): readonly string[] =>
  answer.body.problems.map(({ field }: { field: string }) => field);
const ida = { name: 'Ida Vestergren', email: 'ida.vestergren@merrow.example' };
const soon = { ...VISIT, arrival: '2027-02-01', departure: '2027-02-02' };

describe('whoever is filling in when a door closes', () => {
  it('has its time to finish, and nobody else has', async () => {
    const slug = await door('Closing', { closesAt: now() + 60 * MINUTE, finishing: 10, unnamed: true });
    const opened = await openedBy(slug);
    const elsewhere = await openedBy('visit');
    const shown = ok(await at(slug));
    expect([shown.closes, shown.finishing, shown.finishBy]).toEqual([
      new Date((await state(slug)).door.closesAt ?? 0).toISOString(),
      10,
      null,
    ]);
    await later(65);
    const closed = ok(await at(slug));
    expect([closed.form, closed.why, closed.closes]).toEqual([null, 'closed', null]);
    const there = ok(await at(slug, stranger, opened));
    expect(there.form).not.toBeNull();
    expect(Date.parse(there.finishBy)).toBe(((await state(slug)).door.closesAt ?? 0) + 10 * MINUTE);
    const checked = (more: object) =>
      stranger.call('checkAnswers', { params: { slug }, body: { answers: soon, ...more } });
    expect([(await checked({})).status, (await checked({ opened })).status]).toEqual([409, 200]);
    // What proves nothing: none, another door’s, another moment than was signed, one that is too long.
    const [moment = '', signature = ''] = opened.split('.');
    const earlier = `${(Number.parseInt(moment, 36) - 1).toString(36)}.${signature}`;
    for (const no of [undefined, elsewhere, earlier, `${opened}x`, `.${signature}`, `${moment}.`])
      expect([no, (await stranger.submit(slug, soon, { more: { opened: no } })).status]).toEqual([no, 409]);
    expect((await stranger.submit(slug, soon, { more: { opened: 'x'.repeat(61) } })).status).toBe(400);
    // What is signed anew now shows that they only come now.
    expect(ok(await stranger.submit(slug, soon, { more: { opened } })).state).toBe('arrived');
    await later(5);
    expect((await stranger.submit(slug, soon, { more: { opened } })).status).toBe(409);
    expect(ok(await at(slug, stranger, opened)).form).toBeNull();
  });

  it('has it where a door is closed by hand as well, and where it is closed again', async () => {
    const slug = await door('By hand', { finishing: 10, unnamed: true });
    const opened = await openedBy(slug);
    await later(1);
    ok(await maren.call('setDoor', { params: { slug }, body: { open: false, closedMessage: '' } }));
    await later(5);
    // The words of a closed door change: it has been closed as long.
    ok(await maren.call('setDoor', { params: { slug }, body: { open: false, closedMessage: 'Next year.' } }));
    const left = Date.parse(ok(await at(slug, stranger, opened)).finishBy) - now();
    expect(left > 4 * MINUTE && left <= 5 * MINUTE).toBe(true);
    ok(await stranger.submit(slug, soon, { more: { opened } }));
    await later(5);
    const late = await stranger.submit(slug, soon, { more: { opened } });
    expect([late.status, late.body.title]).toEqual([409, 'Next year.']);
    ok(await maren.call('setDoor', { params: { slug }, body: { open: true, closedMessage: '' } }));
    const again = await openedBy(slug);
    await later(1);
    ok(await maren.call('setDoor', { params: { slug }, body: { open: false, closedMessage: '' } }));
    ok(await stranger.submit(slug, soon, { more: { opened: again } }));
    ok(await stranger.submit(slug, soon, { more: { opened } }));
  });

  it('has none where its form was stopped', async () => {
    const slug = await door('Of a stopped form', { finishing: 60, unnamed: true });
    const opened = await openedBy(slug);
    await later(1);
    await set(slug, { name: 'Just changed' });
    const params = { key: 'site-access' };
    ok(await maren.call('setFormState', { params, body: { state: 'stopped' } }));
    const answer = await stranger.submit(slug, soon, { more: { opened } });
    ok(await maren.call('setFormState', { params, body: { state: 'in use' } }));
    expect(answer.status).toBe(409);
    ok(await stranger.submit(slug, soon, { more: { opened } }));
  });

  it('has it on another device, where the desk holds what was begun; and for confirming what was sent', async () => {
    const slug = await door('Held', { closesAt: now() + 60 * MINUTE, finishing: 30 });
    const staff = await door('Held for staff', { closesAt: now() + 60 * MINUTE, finishing: 30 }, 'sign-in');
    ok(await oskar.call('keepAnswers', { params: { slug: staff }, body: { answers: soon, typedAt: now() } }));
    const begun = { answers: soon, contact: { ...ida, email: 'held@merrow.example' }, typedAt: now() };
    ok(await stranger.call('sendKept', { params: { slug }, body: begun }));
    const sent = { ...ida, email: 'sent@merrow.example' };
    ok(await stranger.submit(slug, soon, { contact: sent }));
    ok(
      await stranger.submit(slug, { ...soon, visitor: 'Late' }, { contact: { ...ida, email: 'late@merrow.example' } }),
    );
    await later(70);
    expect(ok(await at(staff, oskar)).form).not.toBeNull();
    expect(ok(await at(staff, priya)).form).toBeNull();
    expect((await priya.submit(staff, soon)).status).toBe(409);
    ok(await oskar.submit(staff, soon));
    const kept = ok(
      await stranger.call('kept', { params: { token: await desk.tokenFor('held@merrow.example', 'go on') } }),
    );
    ok(
      await stranger.submit(slug, soon, {
        contact: { ...ida, email: 'held@merrow.example' },
        more: { opened: kept.opened },
      }),
    );
    ok(await stranger.call('confirm', { params: { token: await desk.tokenFor('sent@merrow.example', 'confirm') } }));
    await later(30);
    const token = await desk.tokenFor('late@merrow.example', 'confirm');
    expect((await stranger.call('confirm', { params: { token } })).status).toBe(409);
    // What was typed is there all the same.
    expect(ok(await stranger.call('backToAnswers', { params: { token } })).slug).toBe(slug);
  });
});

describe('places', () => {
  it('are given to as many as there are, however many come at once; the others read what they can do', async () => {
    const other = await door('Waiting list', { unnamed: true });
    const slug = await door('Three', {
      ...{ unnamed: true, showsPlaces: true, instead: other },
      limits: [{ id: 'all', most: 3, of: 'all', days: null }],
    });
    expect(ok(await at(slug)).places).toBe(3);
    const all = await Promise.all(
      Array.from({ length: 50 }, (_, n) => stranger.submit(slug, { ...soon, visitor: `Visitor ${n}` })),
    );
    const refused = all.filter(({ status }) => status === 409);
    expect([all.filter(({ status }) => status === 200).length, refused.length]).toEqual([3, 47]);
    expect(new Set(refused.map(({ body }) => body.title))).toEqual(new Set(['This form accepts no more requests.']));
    expect(refused.every(({ text }) => !/\b(3|50|47)\b/.test(text))).toBe(true);
    const full = ok(await at(slug));
    expect([full.form, full.places, full.instead.slug]).toEqual([null, null, other]);
    // Another way that is closed is none, nor is one that is gone.
    ok(await set(other, { open: false }));
    expect(ok(await at(slug)).instead).toBeNull();
    // What is refused gives its place back.
    const { db } = desk.running.house;
    const [first] = all.filter(({ status }) => status === 200);
    db.update(requests)
      .set({ stage: 'refused', phase: 'finished' })
      .where(eq(requests.number, first?.body.number))
      .run();
    expect(ok(await at(slug)).places).toBe(1);
    ok(await stranger.submit(slug, soon));
    expect((await stranger.submit(slug, soon)).status).toBe(409);
  });

  it('of one person are told with their own request, to them alone', async () => {
    const limits = [
      { id: 'own', most: 1, of: 'each', days: null, unfinished: true },
      { id: 'year', most: 2, of: 'each', days: null, period: 'year' },
    ] as const;
    const slug = await door('One each', { limits }, 'sign-in');
    const { number } = ok(await oskar.submit(slug, soon));
    const told = ok(await at(slug, oskar));
    expect([told.why, told.earlier]).toMatchObject(['full', { number, stage: expect.any(String) }]);
    expect((await oskar.submit(slug, soon)).body.title).toContain('1 request with this form that is not finished');
    expect(ok(await at(slug, priya)).earlier).toBeNull();
    ok(await priya.submit(slug, soon));
    const { db } = desk.running.house;
    db.update(requests).set({ phase: 'finished' }).where(eq(requests.number, number)).run();
    expect(ok(await at(slug, oskar)).form).not.toBeNull();
    const second = ok(await oskar.submit(slug, soon)).number;
    db.update(requests).set({ phase: 'finished' }).where(eq(requests.number, second)).run();
    const year = ok(await at(slug, oskar));
    expect([year.why, year.earlier.number]).toEqual(['full', second]);
    // At a door that stores nobody, nobody has an earlier one, and each is not counted.
    expect(fieldsOf(await set(slug, { unnamed: true }))).toContain('limits');
  });
});

describe('what is agreed to', () => {
  it('has a version that goes up with its text, asked for each time and held with the request', async () => {
    const slug = await door('Consent', { consent: { text: 'First text.', version: 99 } }, 'sign-in');
    expect(ok(await at(slug, oskar)).form.consent).toEqual({ text: 'First text.', version: 1 });
    expect(fieldsOf(await oskar.submit(slug, soon))).toEqual(['consent']);
    const { number } = ok(await oskar.submit(slug, soon, { more: { consent: 1 } }));
    ok(await set(slug, { consent: { text: 'First text.', version: 7 }, name: 'Renamed' }));
    expect((await state(slug)).door.consent?.version).toBe(1);
    ok(await set(slug, { consent: { text: 'Second text.', version: 1 } }));
    const old = await oskar.submit(slug, soon, { more: { consent: 1 } });
    expect([old.status, old.body.type]).toEqual([409, expect.stringContaining('form-changed')]);
    ok(await set(slug, { consent: undefined }));
    expect(ok(await oskar.submit(slug, soon)).state).toBe('arrived');
    ok(await set(slug, { consent: { text: 'Third text.', version: 0 } }));
    expect(ok(await at(slug, oskar)).form.consent.version).toBe(3);
    const agreed = { text: 'First text.', version: 1 };
    expect(ok(await maren.call('sheet', { params: { number } })).consent).toEqual(agreed);
    expect(ok(await oskar.call('myRequest', { params: { number } })).consent).toEqual(agreed);
    expect(fieldsOf(await set(slug, { consent: { text: ' ', version: 0 } }))).toEqual(['consent']);
  });

  it('goes along with what waits for an address', async () => {
    const slug = await door('Consent outside', { consent: { text: 'Yours.', version: 0 } });
    expect(fieldsOf(await stranger.submit(slug, soon, { contact: ida }))).toEqual(['consent']);
    ok(await stranger.submit(slug, soon, { contact: ida, more: { consent: 1 } }));
    const { number } = ok(
      await stranger.call('confirm', { params: { token: await desk.tokenFor(ida.email, 'confirm') } }),
    );
    expect(ok(await maren.call('sheet', { params: { number } })).consent).toEqual({ text: 'Yours.', version: 1 });
  });
});

describe('a device of who is not signed in', () => {
  /** Does what is asked by hand: the counter by which the key begins as it is wanted. */
  const worked = async (slug: string): Promise<string> => {
    const { work } = ok(await stranger.call('work', { params: { slug } }));
    const challenge = JSON.parse(Buffer.from(work, 'base64url').toString('utf8'));
    const { nonce, salt, cost, keyLength, keyPrefix } = challenge.parameters;
    for (let counter = 0; counter < 1_000; counter += 1) {
      const place = Buffer.alloc(4);
      place.writeUInt32BE(counter);
      const password = Buffer.concat([Buffer.from(nonce, 'hex'), place]);
      const key = pbkdf2Sync(password, Buffer.from(salt, 'hex'), cost, keyLength, 'sha256').toString('hex');
      if (key.startsWith(keyPrefix))
        return Buffer.from(JSON.stringify({ challenge, solution: { counter, derivedKey: key } })).toString('base64url');
    }
    throw new Error('More work than anybody was told.');
  };

  it('works before it sends, for this door, once, and not for ever', async () => {
    const slug = await door('Robots', { slowsRobots: true, unnamed: true });
    expect([ok(await at(slug)).form.work, ok(await at(slug, oskar)).form.work]).toEqual([true, false]);
    const send = (work?: string, key?: string): Promise<Answer> =>
      stranger.submit(slug, soon, { more: { work }, ...(key ? { key } : {}) });
    const without = await send();
    expect([without.status, without.body.type]).toEqual([422, expect.stringContaining('work')]);
    expect((await send('nonsense')).status).toBe(422);
    const key = crypto.randomUUID();
    const work = await worked(slug);
    const { number } = ok(await send(work, key));
    // Sent again by the same key it is the same request; as another one the work is spent.
    expect(ok(await send(work, key)).number).toBe(number);
    expect((await send(work)).status).toBe(422);
    const other = await door('Robots elsewhere', { slowsRobots: true, unnamed: true });
    expect((await send(await worked(other))).status).toBe(422);
    const old = await worked(slug);
    const wrong = await stranger.submit(slug, { ...soon, visitor: '' }, { more: { work: old } });
    expect(fieldsOf(wrong)).toEqual(['visitor']);
    // What was not taken can be sent with the same work once it is corrected.
    ok(await send(old));
    const stale = await worked(slug);
    await later(20);
    expect((await send(stale)).status).toBe(422);
    ok(await oskar.submit(slug, soon));
    expect(fieldsOf(await set('come-on-site', { slowsRobots: true }))).toEqual(['slowsRobots']);
  });
});

describe('what a door says and takes along', () => {
  it('is said once a request came in, with what was asked, and names only what there is', async () => {
    const text = 'We expect {visitor} of {institute}. Escort: {escort}.';
    const slug = await door('Words', { confirmation: text });
    ok(await stranger.submit(slug, soon, { contact: ida }));
    const token = await desk.tokenFor(ida.email, 'confirm');
    const { says } = ok(await stranger.call('confirm', { params: { token } }));
    expect(inEnglish(says as Words)).toBe('We expect Elke Marlowe of Corrin Institute. Escort: ….');
    const signedIn = ok(await oskar.submit(slug, soon));
    expect(inEnglish(signedIn.says as Words)).toBe('We expect Elke Marlowe of Corrin Institute. Escort: ….');
    expect(ok(await oskar.submit('come-on-site', soon)).says).toBeNull();
    expect(fieldsOf(await set(slug, { confirmation: 'See {nothing} and {visitor}.' }))).toEqual(['confirmation']);
    // What stores nobody repeats nothing.
    expect(fieldsOf(await set(slug, { unnamed: true }))).toEqual(['confirmation']);
    ok(await set(slug, { unnamed: true, confirmation: 'Thank you.' }));
    expect(ok(await stranger.submit(slug, soon)).says).toBe('Thank you.');
  });

  it('are answers of a link for questions that are asked and can be written', async () => {
    const slug = await door('Linked', { prefills: ['visitor', 'arrival'] });
    expect(ok(await at(slug)).form.prefills).toEqual(['visitor', 'arrival']);
    for (const lost of ['escort', 'nothing'])
      expect(fieldsOf(await set(slug, { prefills: [lost] }))).toEqual(['prefills']);
  });

  it('has words for each reason, and general ones where it has none', async () => {
    const says = { early: 'From May on.', full: 'All gone.', others: 'For divers.' };
    const slug = await door('Reasons', { says, opensAt: now() + 60 * MINUTE, closedMessage: 'Over.', unnamed: true });
    const refusal = async (): Promise<string> => inEnglish(ok(await at(slug)).refusal);
    expect(await refusal()).toBe('From May on.');
    ok(await set(slug, { says: { full: 'All gone.' } }));
    expect(await refusal()).toBe('Over.');
    ok(await set(slug, { closedMessage: '' }));
    expect(await refusal()).toMatch(/^This form is not open yet\. It opens /);
    ok(await set(slug, { opensAt: null, limits: [{ id: 'a', most: 1, of: 'all', days: 1 }] }));
    ok(await stranger.submit(slug, soon));
    expect(await refusal()).toBe('All gone.');
    ok(await set(slug, { says: undefined }));
    expect(await refusal()).toMatch(/^This form accepts no more requests for now\. It accepts new ones from /);
    ok(await set(slug, { open: false, says: { full: 'All gone.' } }));
    expect(await refusal()).toBe('This form is closed.');
  });
});

describe('a door that is removed', () => {
  it('lists what ends, ends that, and leaves requests as they are', async () => {
    const slug = await door('Removed');
    ok(await stranger.submit(slug, soon, { contact: ida }));
    const { follow, number } = ok(
      await stranger.call('confirm', { params: { token: await desk.tokenFor(ida.email, 'confirm') } }),
    );
    ok(await stranger.submit(slug, soon, { contact: { ...ida, email: 'waits@merrow.example' } }));
    const begun = { answers: soon, contact: { ...ida, email: 'begun@merrow.example' }, typedAt: now() };
    ok(await stranger.call('sendKept', { params: { slug }, body: begun }));
    const tokens = {
      confirm: await desk.tokenFor('waits@merrow.example', 'confirm'),
      kept: await desk.tokenFor('begun@merrow.example', 'go on'),
    };
    const { deadlines: __, ...before } = ok(await maren.call('sheet', { params: { number } }));
    expect(ok(await maren.call('doorRemoval', { params: { slug } }))).toEqual({
      waiting: 1,
      begun: 1,
      requests: 1,
      line: 0,
    });
    const leads = await door('Leads there', { instead: slug });
    const { version } = await state(slug);
    const remove = (on: number): Promise<Answer> =>
      maren.call('removeDoor', { params: { slug }, headers: onVersion(on) });
    expect((await remove(version - 1)).status).toBe(412);
    expect(ok(await remove(version))).toEqual({ waiting: 1, begun: 1, requests: 1, line: 0 });
    expect((await at(slug)).status).toBe(404);
    expect((await state(leads)).door.instead).toBeUndefined();
    expect((await remove(version + 1)).status).toBe(404);
    expect((await stranger.submit(slug, soon, { contact: ida })).status).toBe(404);
    for (const [route, token] of [
      ['confirmation', tokens.confirm],
      ['kept', tokens.kept],
    ] as const)
      expect([route, (await stranger.call(route, { params: { token } })).status]).toEqual([route, 404]);
    // But for the time that goes on.
    const { deadlines: _, ...after } = ok(await maren.call('sheet', { params: { number } }));
    expect(after).toEqual(before);
    expect(ok(await stranger.call('follow', { params: { token: follow } })).number).toBe(number);
    // Its address is nobody else’s: what was printed leads to no other form.
    const again = await maren.call('addDoor', {
      ...{ params: { key: 'site-access' }, headers: freshly() },
      body: { name: 'Again', proof: 'confirmed-address', slug },
    });
    expect(fieldsOf(again)).toEqual(['slug']);
    expect(fieldsOf(await set('visit', { instead: 'nowhere' }))).toEqual(['instead']);
  });
});
