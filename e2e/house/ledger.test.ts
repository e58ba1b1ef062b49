import { relationTo } from '@tolvek/core/access';
import { allRegisters, viewerOf } from '@tolvek/server';
import { people, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Desk } from './desk.ts';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open(130);
});
afterAll(() => desk.close());

const WORKING = [
  'Maren Okafor',
  'Ilse Brandvold',
  'Tomas Achterberg',
  'Priya Nakamura-Lind',
  'Oskar Veldhuis',
  'Bram Solheim',
];

async function allPages(name: string, tray: string): Promise<readonly string[]> {
  const caller = await desk.as(name);
  const numbers: string[] = [];
  let after = '';
  do {
    const { body } = await caller.call('ledger', { query: { tray, ...(after ? { after } : {}) } });
    numbers.push(...body.rows.map((row: { number: string }) => row.number));
    after = body.next ?? '';
    if (!after) expect(numbers).toHaveLength(body.total);
  } while (after);
  return numbers;
}

describe('the ledger', () => {
  it('holds for everybody exactly the requests that core says they work on, each once over all pages', async () => {
    const { db } = desk.running.house;
    const deskGroups = new Map(allRegisters(db).map((register) => [register.id, register.deskGroups]));
    for (const name of WORKING) {
      const person = db
        .select()
        .from(people)
        .all()
        .find((each) => each.name === name);
      const viewer = viewerOf(db, person?.id ?? '');
      if (!viewer) throw new Error(`${name} is not there.`);
      const expected = db
        .select()
        .from(requests)
        .all()
        .filter(
          (request) =>
            relationTo(
              {
                ...request,
                register: request.registerId,
                deciders: request.deciders?.split(' ') ?? [],
                deskGroups: deskGroups.get(request.registerId) ?? [],
                followers: [],
              },
              viewer,
            ).isDesk,
        )
        .map((request) => request.number);
      const numbers = [...(await allPages(name, 'all')), ...(await allPages(name, 'things'))].sort();
      expect([...numbers].sort(), name).toEqual(expected.sort());
    }
  });

  it('gives each tray the count it shows', async () => {
    for (const name of WORKING) {
      const { body } = await (await desk.as(name)).call('trays');
      for (const tray of body.trays)
        expect(await allPages(name, tray.key), `${name}, ${tray.key}`).toHaveLength(tray.count);
    }
  });

  it('counts what is due on each of the next days, day by day at the desk', async () => {
    const { house } = desk.running;
    const now = house.clock.now();
    const { body: me } = await (await desk.as('Maren Okafor')).call('me');
    const dayOf = new Intl.DateTimeFormat('en-CA', { timeZone: me.desk.zone, dateStyle: 'short' });
    let counted = 0;
    for (const name of WORKING) {
      const caller = await desk.as(name);
      const numbers = new Set(await allPages(name, 'all'));
      const dues = house.db
        .select()
        .from(requests)
        .all()
        .filter(({ number, phase }) => numbers.has(number) && (phase === 'arrived' || phase === 'working'))
        .flatMap(({ due }) => due ?? []);
      const { horizon } = (await caller.call('trays')).body;
      const [late, ...days] = horizon.map((day: { count: number }) => day.count);
      expect([name, late]).toEqual([name, dues.filter((due) => due <= now).length]);
      const ahead = dues.filter((due) => due > now);
      const byDay = [...new Set(ahead.map((due) => dayOf.format(due)))]
        .sort()
        .map((day) => ahead.filter((due) => dayOf.format(due) === day).length);
      // A day on which nothing is due has no number of its own in what is counted by hand.
      const filled = days.filter((count: number) => count > 0);
      expect([name, filled]).toEqual([name, byDay.slice(0, filled.length)]);
      counted += filled.length;
    }
    expect(counted).toBeGreaterThan(5);
  });

  it('finds by how a number begins, with its letters or without, and by requester', async () => {
    const maren = await desk.as('Maren Okafor');
    const all = desk.running.house.db
      .select({ number: requests.number, requester: people.name })
      .from(requests)
      .innerJoin(people, eq(people.id, requests.requesterId))
      .where(eq(requests.trial, false))
      .all();
    const [some] = all;
    if (!some) throw new Error('There is no request.');
    const digits = some.number.slice(some.number.indexOf('-') + 1);
    const [, family = ''] = some.requester.split(' ');
    const cases: readonly (readonly [find: string, fits: (each: (typeof all)[number]) => boolean])[] = [
      [some.number, (each) => each.number.startsWith(some.number)],
      [some.number.toLowerCase().slice(0, -2), (each) => each.number.startsWith(some.number.slice(0, -2))],
      [digits, (each) => each.number.endsWith(`-${digits}`)],
      [String(Number(digits)), (each) => each.number.endsWith(`-${digits}`)],
      [family.toUpperCase(), (each) => each.requester.includes(family)],
      ['100% nobody_', () => false],
    ];
    for (const [find, fits] of cases) {
      const { body } = await maren.call('ledger', { query: { tray: 'all', find } });
      const things = (await maren.call('ledger', { query: { tray: 'things', find } })).body;
      const expected = all.filter(fits).length;
      expect(body.total + things.total, find).toBe(expected);
      expect([body.newest, things.newest], find).toEqual([false, false]);
      if (find !== '100% nobody_') expect(expected, find).toBeGreaterThan(0);
    }
  });

  it('puts the earliest deadline first', async () => {
    const maren = await desk.as('Maren Okafor');
    const { body } = await maren.call('ledger', { query: { tray: 'arrived' } });
    const dues = body.rows.map((row: { due: string }) => row.due);
    expect(dues.length).toBeGreaterThan(1);
    expect(dues).toEqual([...dues].sort());
  });
});
