import type { DoorDesign } from '@tolvek/core/door';
import { doorLines, people, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';

// C4: whoever comes when the places are taken can wait for one.
let desk: Desk;
let maren: Caller;
let stranger: Caller;
const NAMES = ['Priya Nakamura-Lind', 'Declan Oyelaran', 'Hanne Istvan', 'Bram Solheim', 'Tomas Achterberg'] as const;
const callers = new Map<string, Caller>();

beforeAll(async () => {
  desk = await Desk.open();
  [maren, stranger] = [await desk.as('Maren Okafor'), await desk.as()];
  for (const name of NAMES) callers.set(name, await desk.as(name));
});
afterAll(() => desk.close());

const as = (name: string): Caller => callers.get(name) as Caller;
const later = async (hours: number): Promise<void> =>
  void ok(await stranger.call('advanceClock', { body: { minutes: Math.round(hours * 60) } }));
const set = async (slug: string, change: Partial<DoorDesign>): Promise<Answer> => {
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug } }));
  return maren.call('changeDoor', {
    params: { slug },
    headers: onVersion(version),
    body: { door: { ...door, ...change }, note: '' },
  });
};
/** A door with some places, at which one waits. */
async function door(name: string, places: number, change: Partial<DoorDesign> = {}): Promise<string> {
  const body = { name, proof: 'confirmed-address' };
  const { slug } = ok(await maren.call('addDoor', { params: { key: 'site-access' }, headers: freshly(), body }));
  const limits = [{ id: 'all', most: places, of: 'all' as const, days: null }];
  ok(await set(slug, { limits, waits: 24, withdraws: 'finished', ...change }));
  return slug;
}
const look = async (by: Caller, slug: string, place?: string) =>
  ok(await by.call('door', { params: { slug }, ...(place ? { query: { place } } : {}) }));
const submit = async (by: Caller, slug: string, more: object = {}): Promise<Answer> =>
  by.submit(slug, { ...VISIT, arrival: '2027-06-01', departure: '2027-06-02' }, more);
const withdraw = async (by: Caller, number: string): Promise<Answer> => {
  const { version } = ok(await by.call('myRequest', { params: { number } }));
  return by.call('withdrawMine', { params: { number }, headers: onVersion(version), body: { reason: '' } });
};
/** Who waits, in their order, with whether a place is held for them. */
const line = async (slug: string): Promise<readonly (readonly [string, boolean])[]> =>
  ok(await maren.call('doorDesign', { params: { slug } })).line.map(
    ({ name, until }: { name: string; until: string | null }) => [name, until !== null],
  );
/** The house looks for places each second. */
const settled = async (): Promise<void> => later(1 / 60);

describe('waiting for a place', () => {
  it('keeps one for whoever came first, for as long as was said, and then for the next', async () => {
    const slug = await door('Waiting', 1);
    const [priya, declan, hanne] = [as(NAMES[0]), as(NAMES[1]), as(NAMES[2])];
    expect((await priya.call('joinLine', { params: { slug }, body: {} })).body.title).toBe(
      'Nobody waits for a place here.',
    );
    const { number } = ok(await submit(priya, slug));
    expect([(await look(declan, slug)).why, (await look(declan, slug)).line]).toEqual([
      'full',
      { is: 'open', until: null },
    ]);
    ok(await declan.call('joinLine', { params: { slug }, body: {} }));
    // Twice is once.
    ok(await declan.call('joinLine', { params: { slug }, body: {} }));
    const contact = { name: 'Greta Moss', email: 'Greta.Moss@haldane.example' };
    expect((await stranger.call('joinLine', { params: { slug }, body: {} })).body.problems.length).toBe(2);
    ok(await stranger.call('joinLine', { params: { slug }, body: { contact } }));
    expect(await line(slug)).toEqual([
      ['Declan Oyelaran', false],
      ['Greta Moss', false],
    ]);
    expect((await look(declan, slug)).line).toEqual({ is: 'in', until: null });
    // A refusal tells nothing of how many wait, nor who.
    expect(JSON.stringify(await look(hanne, slug))).not.toMatch(/Declan|Greta|"ahead"/);

    ok(await withdraw(priya, number));
    await settled();
    expect(await line(slug)).toEqual([
      ['Declan Oyelaran', true],
      ['Greta Moss', false],
    ]);
    expect((await look(declan, slug)).line.is).toBe('held');
    // The place that is free is nobody’s else.
    expect((await submit(hanne, slug)).status).toBe(409);
    expect((await submit(priya, slug)).status).toBe(409);
    const letter = (await desk.letters()).filter(({ to }) => to.includes('declan.oyelaran')).at(-1);
    expect(letter?.subject).toBe('A place is free: Come on site');
    expect(letter?.text).toMatch(/we hold it for you until/);

    await later(25);
    await settled();
    expect(await line(slug)).toEqual([['Greta Moss', true]]);
    expect((await submit(declan, slug)).status).toBe(409);
    const token =
      /\?place=([\w-]+)/.exec(
        (await desk.letters()).filter(({ to }) => to.includes('greta.moss')).at(-1)?.text ?? '',
      )?.[1] ?? '';
    const held = await look(stranger, slug, token);
    expect([held.line.is, held.form === null]).toEqual(['held', false]);
    // Without the link a stranger reads that it is full; with one that is made up, nothing.
    expect((await look(stranger, slug)).why).toBe('full');
    expect((await stranger.call('door', { params: { slug }, query: { place: 'made-up' } })).status).toBe(404);
    expect((await stranger.call('door', { params: { slug: 'visit' }, query: { place: token } })).status).toBe(410);
    ok(await submit(stranger, slug, { contact, more: { place: token } }));
    const confirming = { params: { token: await desk.tokenFor('greta.moss', 'confirm') } };
    ok(await stranger.call('confirm', confirming));
    expect(await line(slug)).toEqual([]);
    expect((await stranger.call('door', { params: { slug }, query: { place: token } })).status).toBe(410);
    expect((await submit(hanne, slug)).status).toBe(409);
  });

  it('is left by whoever waits, and ends with the door', async () => {
    const slug = await door('Left', 1);
    ok(await submit(as(NAMES[0]), slug));
    for (const name of NAMES.slice(1, 4)) ok(await as(name).call('joinLine', { params: { slug }, body: {} }));
    ok(await as(NAMES[2]).call('leaveLine', { params: { slug }, body: {} }));
    expect((await line(slug)).map(([name]) => name)).toEqual([NAMES[1], NAMES[3]]);
    expect((await stranger.call('leaveLine', { params: { slug }, body: {} })).status).toBe(401);
    const doorId = desk.running.house.db.select().from(doorLines).all().at(-1)?.doorId ?? '';
    const removal = ok(await maren.call('doorRemoval', { params: { slug } }));
    expect(removal.line).toBe(2);
    const { version } = ok(await maren.call('doorDesign', { params: { slug } }));
    ok(await maren.call('removeDoor', { params: { slug }, headers: onVersion(version) }));
    expect(desk.running.house.db.select().from(doorLines).where(eq(doorLines.doorId, doorId)).all()).toEqual([]);
  });

  it('is set where there are places for all, and somebody to write to', async () => {
    const slug = await door('Set', 3);
    for (const wrong of [{ limits: [] }, { limits: [{ id: 'each', most: 1, of: 'each' as const, days: null }] }]) {
      const refused = await set(slug, wrong);
      expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'waits']);
    }
    expect((await set(slug, { unnamed: true })).body.problems.map(({ field }: { field: string }) => field)).toContain(
      'waits',
    );
    expect((await set(slug, { waits: 0 })).status).toBe(400);
  });

  it('goes with two records that become one', async () => {
    const slug = await door('Merged', 1);
    ok(await submit(as(NAMES[0]), slug));
    const ada = await desk.as('Ada Quillfeather');
    const one = { kind: 'contact', name: 'Nola Twice', email: 'nola.line@twice.example' };
    const { id: first } = ok(await ada.call('addPerson', { headers: freshly(), body: one }));
    const { id: second } = ok(
      await ada.call('addPerson', { headers: freshly(), body: { ...one, email: 'n.line@twice.example' } }),
    );
    const db = desk.running.house.db;
    const doorId = db.select().from(requests).all().at(-1)?.doorId ?? '';
    for (const [at, id, email] of [
      [2, first, 'nola.line@twice.example'],
      [1, second, 'n.line@twice.example'],
    ] as const)
      db.insert(doorLines)
        .values({ id: `line-${at}`, doorId, personId: id, name: 'Nola Twice', email, since: at })
        .run();
    ok(await ada.call('mergePeople', { params: { id: second }, body: { other: first } }));
    const left = db.select().from(doorLines).where(eq(doorLines.doorId, doorId)).all();
    expect(left.map(({ id, personId, email }) => [id, personId, email])).toEqual([
      ['line-1', second, 'n.line@twice.example'],
    ]);
    expect(db.select().from(people).where(eq(people.id, first)).get()?.mergedInto).toBe(second);
    ok(await set(slug, { waits: undefined }));
  });
});

describe('places and those who wait for them', () => {
  it('are as a list that is kept by hand, whatever comes after what', async () => {
    const PLACES = 2;
    const slug = await door('By hand', PLACES);
    // The list: who is in, and who waits, the first first, with the hours left of a place that is held.
    const inside = new Map<string, string>();
    let waits: { readonly name: string; readonly left: number | null }[] = [];
    const settle = (hours: number): void => {
      waits = waits.flatMap((each) => {
        const left = each.left === null ? null : each.left - hours;
        return left !== null && left <= 0 ? [] : [{ ...each, left }];
      });
      for (const [at, each] of waits.entries()) {
        const held = waits.filter(({ left }) => left !== null).length;
        if (each.left === null && inside.size + held < PLACES) waits[at] = { ...each, left: 24 };
      }
    };
    const did: Record<string, number> = {};
    const step = fc.record({
      does: fc.constantFrom('send', 'send', 'wait', 'wait', 'leave', 'withdraw', 'hours'),
      name: fc.constantFrom(...NAMES),
      hours: fc.constantFrom(1, 9, 26),
    });
    for (const { does, name, hours } of fc.sample(step, { numRuns: 120, seed: 20_261_129 })) {
      const own = waits.find((each) => each.name === name);
      const isFree = inside.size + waits.length < PLACES;
      let wanted = 200;
      let got = 200;
      if (does === 'send') {
        wanted = isFree || (own !== undefined && own.left !== null) ? 200 : 409;
        const answer = await submit(as(name), slug);
        got = answer.status;
        if (got === 200) {
          inside.set(`${name} ${answer.body.number}`, answer.body.number);
          waits = waits.filter((each) => each.name !== name);
        }
      } else if (does === 'wait') {
        // Whoever a place is held for has one.
        wanted = isFree || (own !== undefined && own.left !== null) ? 409 : 200;
        got = (await as(name).call('joinLine', { params: { slug }, body: {} })).status;
        if (got === 200 && !own) waits.push({ name, left: null });
      } else if (does === 'leave') {
        got = (await as(name).call('leaveLine', { params: { slug }, body: {} })).status;
        waits = waits.filter((each) => each.name !== name);
      } else if (does === 'withdraw') {
        const mine = [...inside].find(([key]) => key.startsWith(name));
        if (mine) {
          got = (await withdraw(as(name), mine[1])).status;
          inside.delete(mine[0]);
        }
      } else await later(hours);
      expect([does, name, got]).toEqual([does, name, wanted]);
      did[`${does} ${got}`] = (did[`${does} ${got}`] ?? 0) + 1;
      settle(does === 'hours' ? hours : 0);
      await settled();
      settle(1 / 60);
      expect([does, await line(slug)]).toEqual([does, waits.map((each) => [each.name, each.left !== null])]);
      // Never more are in than there are places, with those that are held.
      expect(inside.size + waits.filter(({ left }) => left !== null).length).toBeLessThanOrEqual(PLACES);
    }
    console.log('places kept by hand:', JSON.stringify(did));
    for (const each of ['send 200', 'send 409', 'wait 200', 'wait 409', 'leave 200', 'withdraw 200', 'hours 200'])
      expect([each, (did[each] ?? 0) > 2]).toEqual([each, true]);
  });
});
