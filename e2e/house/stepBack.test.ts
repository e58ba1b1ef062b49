import { grants, groundHistory, groupEntries, memberships, people } from '@tolvek/server/schema';
import { desc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok, onVersion } from './desk.ts';

let desk: Desk;
let ada: Caller;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  [ada, maren] = [await desk.as('Ada Quillfeather'), await desk.as('Maren Okafor')];
});
afterAll(() => desk.close());

const idOf = (name: string): string => desk.idOf(name);

/** People, groups and rights as they stand. */
function ground(): object {
  const { db } = desk.running.house;
  return {
    people: db
      .select()
      .from(people)
      .orderBy(people.id)
      .all()
      .map(({ version: _, leftAt: __, ...row }) => row),
    entries: db
      .select()
      .from(groupEntries)
      .all()
      .map(({ id: _, ...row }) => JSON.stringify(row))
      .sort(),
    grants: db
      .select()
      .from(grants)
      .all()
      .map((row) => JSON.stringify(row))
      .sort(),
    memberships: db
      .select()
      .from(memberships)
      .all()
      .map((row) => JSON.stringify(row))
      .sort(),
  };
}
/** The newest line of what was set. */
const newest = (about: 'person' | 'group' | 'everyone' | 'register'): string =>
  desk.running.house.db
    .select({ id: groundHistory.id })
    .from(groundHistory)
    .where(eq(groundHistory.about, about))
    .orderBy(desc(groundHistory.at), desc(groundHistory.id))
    .limit(1)
    .get()?.id ?? '';
const change = async (name: string, body: object): Promise<void> => {
  const { version } = ok(await maren.call('person', { params: { id: idOf(name) } }));
  ok(await maren.call('changePerson', { params: { id: idOf(name) }, headers: onVersion(version), body }));
};

describe('one step back', () => {
  it('undoes each thing that can be set of people, groups and rights, after saying what comes of it', async () => {
    const bram = idOf('Bram Solheim');
    const deeds: readonly [string, 'person' | 'group', () => Promise<unknown>, readonly RegExp[]][] = [
      ['name', 'person', () => change('Bram Solheim', { language: 'de' }), []],
      ['profile', 'person', () => change('Bram Solheim', { profile: { position: 'Captain' } }), []],
      ['active', 'person', () => change('Bram Solheim', { active: false }), [/Bram Solheim gets the right/]],
      [
        'a group',
        'group',
        async () => {
          const { version } = ok(await maren.call('group', { params: { key: 'boats' } }));
          const body = { about: 'Whoever goes out to sea' };
          ok(await maren.call('changeGroup', { params: { key: 'boats' }, headers: onVersion(version), body }));
        },
        [],
      ],
      [
        'a right',
        'group',
        async () =>
          ok(await ada.call('changeRights', { params: { subject: 'lab' }, body: { give: ['read:all'], take: [] } })),
        [/2 people lose the right: Read all requests \(Emeric Vantongeren and Tilda Okonjo-Reyes\)/],
      ],
      [
        'who comes in',
        'group',
        async () =>
          ok(
            await ada.call('enterGroup', {
              ...{ params: { key: 'desk-leads' }, headers: freshly() },
              body: { person: bram, from: null, until: null },
            }),
          ),
        [],
      ],
      [
        'an absence',
        'person',
        async () => {
          const body = { from: '2026-12-01', until: null, substitute: null };
          ok(await maren.call('addAbsence', { params: { id: bram }, headers: freshly(), body }));
        },
        [],
      ],
    ];
    for (const [what, about, deed, effects] of deeds) {
      const before = ground();
      await deed();
      const after = ground();
      const id = newest(about);
      const plan = ok(await ada.call('stepBackPlan', { params: { id } }));
      // Looking at it does nothing.
      expect([what, ground()]).toEqual([what, after]);
      const told = plan.effects.join('\n');
      for (const effect of effects) expect([what, told]).toEqual([what, expect.stringMatching(effect)]);
      ok(await ada.call('stepBack', { params: { id } }));
      expect([what, ground()]).toEqual([what, before]);
      // Back and forth: what was undone can be undone.
      ok(await ada.call('stepBack', { params: { id: newest(about) } }));
      expect([what, ground()]).toEqual([what, after]);
    }
    expect(ok(await maren.call('person', { params: { id: bram } })).absences).toHaveLength(1);
  });

  it('undoes what a register gave otherwise than the desk, all of it at once as well', async () => {
    const rights = async () => {
      const { apart, subjects } = ok(await ada.call('registerRights', { params: { key: 'site-access' } }));
      return JSON.stringify({ apart, subjects });
    };
    const inRegister = { register: 'site-access' };
    const acts: readonly (readonly ['everyone' | 'group' | 'register', () => ReturnType<Caller['call']>, RegExp])[] = [
      [
        'group',
        () =>
          ada.call('changeRights', {
            params: { subject: 'lab' },
            body: { give: ['share:all'], take: [], ...inRegister },
          }),
        /2 people lose the right: Share all requests/,
      ],
      [
        'everyone',
        () =>
          ada.call('changeRights', {
            params: { subject: '*' },
            body: { give: [], take: ['change:team'], ...inRegister },
          }),
        /people get the right: Change the requests of their teams/,
      ],
      [
        'register',
        () => ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'apart' } }),
        /get/,
      ],
      [
        'register',
        () => ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'desk' } }),
        /lose/,
      ],
      [
        'register',
        () => ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'beside' } }),
        /./,
      ],
    ];
    const seen: string[] = [];
    for (const [about, act, effect] of acts) {
      const before = await rights();
      ok(await act());
      const after = await rights();
      seen.push(before === after ? 'same' : 'other');
      if (before === after) continue;
      const id = newest(about);
      expect((await maren.call('stepBack', { params: { id } })).status).toBe(403);
      const plan = ok(await ada.call('stepBackPlan', { params: { id } }));
      expect(plan.effects.join(' ')).toMatch(effect);
      ok(await ada.call('stepBack', { params: { id } }));
      expect(await rights()).toBe(before);
      // And the undoing is undone.
      ok(await ada.call('stepBack', { params: { id: newest(about) } }));
      expect(await rights()).toBe(after);
    }
    expect(seen).toEqual(['other', 'other', 'other', 'other', 'same']);
  });

  it('says why, in the words of whoever set it, and of nobody else', async () => {
    await change('Signe Halvard', { language: 'de' });
    const id = newest('person');
    expect((await ada.call('sayWhy', { params: { id }, body: { why: 'I think so.' } })).status).toBe(404);
    ok(await maren.call('sayWhy', { params: { id }, body: { why: 'She asked for it.' } }));
    ok(await maren.call('sayWhy', { params: { id }, body: { why: 'She asked for it on Monday.' } }));
    const { history } = ok(await ada.call('person', { params: { id: idOf('Signe Halvard') } }));
    expect([history[0].id, history[0].why]).toEqual([id, 'She asked for it on Monday.']);
    expect(history.filter(({ why }: { why: string }) => why !== '')).toHaveLength(1);
    const { changes } = ok(await ada.call('rightsOnDay', { params: { day: '2026-11-23' } }));
    expect(changes.every(({ words }: { words: string }) => words !== 'She asked for it.')).toBe(true);
  });

  it('is refused where it is another by now, for what can’t be undone, and beyond one’s own rights', async () => {
    await change('Signe Halvard', { name: 'Signe Halvard-Roe' });
    const id = newest('person');
    await change('Signe Halvard-Roe', { name: 'Signe Roe' });
    expect((await ada.call('stepBackPlan', { params: { id } })).status).toBe(409);
    expect((await ada.call('stepBack', { params: { id } })).status).toBe(409);
    const nell = { kind: 'staff', name: 'Nell Hartwick', email: 'nell.hartwick@skerrow.example' };
    ok(await maren.call('addPerson', { headers: freshly(), body: nell }));
    expect((await ada.call('stepBack', { params: { id: newest('person') } })).status).toBe(404);
    ok(await ada.call('changeRights', { params: { subject: '*' }, body: { give: ['export:team'], take: [] } }));
    expect((await maren.call('stepBack', { params: { id: newest('everyone') } })).status).toBe(403);
    const bram = await desk.as('Tomas Achterberg');
    expect((await bram.call('stepBack', { params: { id } })).status).toBe(403);
  });
});
