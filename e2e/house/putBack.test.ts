import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keepHouse } from '../../server/src/house/keeping.ts';
import { allRows, without } from './allRows.ts';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let ada: Caller;
let priya: Caller;
beforeAll(async () => {
  desk = await Desk.open(60);
  ada = await desk.as('Ada Quillfeather');
  priya = await desk.as('Priya Nakamura-Lind');
});
afterAll(() => desk.close());

const to = (number: string) => ({ params: { number } });
const back = (who: Caller, id: string) => who.call('putBackRequest', { params: { id } });
const deletedIn = async (key: string) => ok(await ada.call('deletedIn', { params: { key } })).deleted;

const remove = async (number: string, who = ada) => {
  const { version } = ok(await who.call('sheet', to(number)));
  return who.call('deleteRequest', { ...to(number), headers: onVersion(version), body: { reason: 'By mistake.' } });
};

describe('a request that is put back', () => {
  it('is what it was in every table, but for a line in its history and what was missed', async () => {
    const shared = ok(await priya.submit('come-on-site', VISIT)).number as string;
    const hanne = { person: desk.idOf('Hanne Istvan') };
    ok(await ada.call('shareRequest', { ...to(shared), body: { with: hanne, until: null } }));
    ok(await ada.call('followRequest', { ...to(shared), body: { follows: true } }));
    await desk.running.lettersSent();
    await desk.running.jobsDone();
    // What is past keeping goes before, and not meanwhile.
    for (let round = 0; round < 4; round += 1) await keepHouse(desk.running.house);
    const all = desk.running.house.db.select().from(requests).where(eq(requests.trial, false)).all();
    const covered = new Map<string, number>();
    let refused = 0;
    for (const { number, id } of all) {
      const before = allRows(desk);
      const done = await remove(number);
      if (done.status === 409) {
        refused += 1;
        continue;
      }
      const gone = allRows(desk);
      // Something of it went, and nothing that names it stayed, but for emails and files that wait to be forgotten.
      expect(without(before, gone).length).toBeGreaterThan(2);
      const still = [...gone].filter(
        (row) => row.includes(id) && !/^(uploads|incoming_emails|group_turns|notice_turns) /.test(row),
      );
      expect(still).toEqual([]);
      ok(await back(ada, ok(done).id));
      const after = allRows(desk);
      const lost = without(new Set(without(before, gone)), after);
      const more = without(new Set(without(after, gone)), before);
      expect(
        lost.filter((row) => !/^(notices|timers) .*"state":"(waiting|sending|failed|gathering)"/.test(row)),
      ).toEqual([]);
      const put = more.filter((row) => !/^(notices|timers) .*"state":"dropped"/.test(row));
      const isPutBack = (row: string): boolean => row.startsWith('history ') && row.includes('put-back');
      expect([put.filter(isPutBack).length, put.filter((row) => !isPutBack(row))]).toEqual([1, []]);
      for (const row of without(before, gone)) {
        const [table = ''] = row.split(' ', 1);
        covered.set(table, (covered.get(table) ?? 0) + 1);
      }
    }
    console.info(`put back ${all.length - refused} of ${all.length}:`, Object.fromEntries(covered));
    expect(desk.running.house.db.$client.pragma('foreign_key_check')).toEqual([]);
    const wanted = [
      ...[
        'requests',
        'history',
        'shares',
        'followers',
        'claims',
        'pointers',
        'timers',
        'deadlines',
        'notices',
        'links',
      ],
      ...['approval_rounds', 'approval_steps', 'seats', 'goings', 'owed_forms', 'proposals', 'tallies', 'dues'],
    ];
    expect(wanted.filter((table) => !covered.has(table))).toEqual([]);
    expect(refused).toBeGreaterThan(0);
  });

  it('is put back by whoever deleted it, or sets up its register; once, and while it can be', async () => {
    const number = ok(await priya.submit('come-on-site', VISIT)).number as string;
    const { id } = ok(await remove(number));
    expect((await back(priya, id)).status).toBe(404);
    expect((await deletedIn('site-access'))[0]).toMatchObject({ number, putBack: null, until: expect.any(String) });
    expect(ok(await back(await desk.as('Maren Okafor'), id))).toEqual({ number });
    expect((await back(ada, id)).body.type).toBe('urn:tolvek:problem:gone');
    expect((await deletedIn('site-access'))[0]).toMatchObject({ until: null, putBack: { by: 'Maren Okafor' } });
    const { history } = ok(await ada.call('sheet', to(number)));
    expect(history.at(-1).what).toMatch(/^Restored after it was deleted/);
    // Once more, and for good.
    const again = ok(await remove(number)).id as string;
    ok(await ada.call('deleteForGood', { params: { id: again } }));
    expect((await back(ada, again)).body.type).toBe('urn:tolvek:problem:gone');
  });

  it('tells nobody, whatever was missed, and its links lead to it again', async () => {
    const number = ok(await priya.submit('come-on-site', VISIT)).number as string;
    await desk.running.lettersSent();
    const { id } = ok(await remove(number));
    const { $client } = desk.running.house.db;
    const sent = () => ($client.prepare('select count(*) as n from letters').get() as { n: number }).n;
    const before = sent();
    ok(await back(ada, id));
    await desk.running.lettersSent();
    expect([sent(), (await priya.call('myRequest', to(number))).status]).toEqual([before, 200]);
  });
});
