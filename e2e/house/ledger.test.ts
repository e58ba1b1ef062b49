import { relationTo } from '@tolvek/core/access';
import { viewerOf } from '@tolvek/server';
import { people, registers, requests } from '@tolvek/server/schema';
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
    const deskGroups = new Map(
      db
        .select()
        .from(registers)
        .all()
        .map((register) => [register.id, register.deskGroups]),
    );
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
          (request) => relationTo({ ...request, deskGroups: deskGroups.get(request.registerId) ?? [] }, viewer).isDesk,
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

  it('puts the earliest deadline first', async () => {
    const maren = await desk.as('Maren Okafor');
    const { body } = await maren.call('ledger', { query: { tray: 'arrived' } });
    const dues = body.rows.map((row: { due: string }) => row.due);
    expect(dues.length).toBeGreaterThan(1);
    expect(dues).toEqual([...dues].sort());
  });
});
