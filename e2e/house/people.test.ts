import { groupsOn } from '@tolvek/core/people';
import { addPerson, by, write } from '@tolvek/server';
import { addresses, groupEntries, groups as groupRows, memberships, people } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk } from './desk.ts';

let desk: Desk;
let ada: Caller;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  ada = await desk.as('Ada Quillfeather');
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const idOf = (name: string): string =>
  desk.running.house.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
const change = async (by: Caller, name: string, body: object): Promise<Answer> => {
  const { version } = ok(await maren.call('person', { params: { id: idOf(name) } }));
  return by.call('changePerson', { params: { id: idOf(name) }, headers: onVersion(version), body });
};
const add = async (name: string, more: object = {}) => {
  const email = `${name.toLowerCase().replace(/\W+/g, '.')}@skerrow.example`;
  return ok(await maren.call('addPerson', { headers: key(), body: { kind: 'staff', name, email, ...more } })).id;
};

describe('somebody new', () => {
  it('is written to only when asked for, and comes in by the link of that email alone', async () => {
    const before = (await desk.letters()).length;
    const id = await add('Nell Hartwick', { groups: ['boats'] });
    expect((await desk.letters()).length).toBe(before);
    expect(await desk.by('nell.hartwick@skerrow.example', '')).toBeNull();
    expect(
      ok(await maren.call('invite', { body: { people: [id, idOf('Wim Haldane'), idOf('Bram Solheim')] } })),
    ).toEqual({
      sent: 1,
    });
    const token = await desk.tokenFor('nell.hartwick', 'welcome');
    const stranger = await desk.as();
    const accept = (password: string, way = token) =>
      stranger.call('acceptInvitation', { params: { token: way }, body: { password } });
    expect((await accept('nellhartwick')).body.problems[0].field).toBe('password');
    expect((await accept('gulls over grey water')).body).toEqual({ email: 'nell.hartwick@skerrow.example' });
    expect((await accept('some other password')).status).toBe(410);
    const nell = await desk.by('Nell.Hartwick@skerrow.example', 'gulls over grey water');
    expect(ok((await nell?.call('me')) as Answer).person.groups).toEqual(['boats', 'field_teams']);
    const told = ok(await maren.call('person', { params: { id } }));
    expect(told.history.map(({ words, by }: { words: string; by: string }) => `${by}: ${words}`)).toEqual([
      'Nell Hartwick: Chose a password',
      'Maren Okafor: Invited by email',
      'Maren Okafor: Nell Hartwick came into “Boats” ',
      'Maren Okafor: Added',
    ]);
  });

  it('has a name, and an address that finds nobody else, whatever its letters', async () => {
    const send = (body: object) => maren.call('addPerson', { headers: key(), body: { kind: 'staff', ...body } });
    const fields = async (body: object): Promise<readonly string[]> =>
      (await send(body)).body.problems.map(({ field }: { field: string }) => field);
    expect(await fields({ name: ' ', email: 'nobody' })).toEqual(['name', 'email']);
    expect(await fields({ name: 'Other', email: 'BRAM.solheim@skerrow.example' })).toEqual(['email']);
  });
});

describe('who somebody is', () => {
  it('changes on the version that was read; who is made inactive, or goes by another address, is signed out', async () => {
    const id = await add('Otto Vale');
    const { version } = ok(await maren.call('person', { params: { id } }));
    const first = { params: { id }, headers: onVersion(version), body: { name: 'Otto Vale-Roe' } };
    expect(ok(await maren.call('changePerson', first)).version).toBe(version + 1);
    expect((await maren.call('changePerson', { ...first, body: { name: 'Otto' } })).status).toBe(412);

    const hanne = await desk.anew('Hanne Istvan');
    expect(ok(await hanne.call('me')).person.name).toBe('Hanne Istvan');
    ok(await change(maren, 'Hanne Istvan', { email: 'hanne@skerrow.example' }));
    expect(ok(await hanne.call('me')).person).toBeNull();
    const again = await desk.by('hanne@skerrow.example', 'tolvek-demo');
    expect(ok((await again?.call('me')) as Answer).person.name).toBe('Hanne Istvan');
    ok(await change(maren, 'Hanne Istvan', { active: false }));
    expect(ok((await again?.call('me')) as Answer).person).toBeNull();
    expect((await desk.by('hanne@skerrow.example', 'tolvek-demo')) === null).toBe(true);
    // The address she had still finds her, and nobody else can have it.
    const taken = { kind: 'contact', name: 'Another', email: 'hanne.istvan@skerrow.example' };
    expect((await maren.call('addPerson', { headers: key(), body: taken })).status).toBe(422);
  });
});

describe('what somebody may do', () => {
  it('is changed by administrators alone: nobody raises their own rights, or keeps administrators out', async () => {
    for (const [by, name, body] of [
      [maren, 'Maren Okafor', { role: 'administrator' }],
      [maren, 'Bram Solheim', { role: 'coordinator' }],
      [maren, 'Ada Quillfeather', { role: 'member' }],
      [maren, 'Ada Quillfeather', { active: false }],
      [maren, 'Ada Quillfeather', { email: 'maren.okafor+ada@skerrow.example' }],
    ] as const) {
      const answer = await change(by, name, body);
      expect([name, body, answer.status, answer.body.type]).toEqual([
        name,
        body,
        403,
        'urn:tolvek:problem:not-allowed',
      ]);
    }
    const made = { kind: 'staff', name: 'Made Up', email: 'made.up@skerrow.example', role: 'administrator' };
    expect((await maren.call('addPerson', { headers: key(), body: made })).status).toBe(403);
    expect(idOf('Made Up')).toBe('');
    const bram = await desk.as('Bram Solheim');
    expect((await bram.call('people')).status).toBe(403);
    expect((await change(ada, 'Wim Haldane', { role: 'coordinator' })).status).toBe(409);
  });

  it('leaves one administrator at least, who can come in', async () => {
    for (const body of [{ role: 'member' }, { active: false }, { role: 'coordinator', active: false }])
      expect((await change(ada, 'Ada Quillfeather', body)).body.type).toBe('urn:tolvek:problem:last-administrator');
    ok(await change(ada, 'Edda Kilbride', { role: 'administrator' }));
    ok(await change(ada, 'Ada Quillfeather', { role: 'coordinator' }));
    const edda = await desk.as('Edda Kilbride');
    expect((await change(edda, 'Edda Kilbride', { active: false })).status).toBe(409);
    ok(await change(edda, 'Ada Quillfeather', { role: 'administrator' }));
    ok(await change(ada, 'Edda Kilbride', { role: 'member' }));
  });
});

describe('groups', () => {
  it('hold groups and people between days, say by which way, and make no circle', async () => {
    const group = async (name: string) =>
      ok(await maren.call('addGroup', { headers: key(), body: { name, isTeam: false } })).key as string;
    const [afloat, ashore, all] = [await group('Afloat'), await group('Ashore'), await group('Everybody here')];
    const enter = (into: string, body: object) =>
      maren.call('enterGroup', { params: { key: into }, headers: key(), body: { from: null, until: null, ...body } });
    const priya = idOf('Priya Nakamura-Lind');
    ok(await enter(afloat, { person: priya, from: '2026-11-01' }));
    ok(await enter(ashore, { group: afloat }));
    ok(await enter(all, { group: ashore, until: '2026-12-31' }));
    const circle = await enter(afloat, { group: all });
    expect([circle.status, circle.body.title]).toEqual([
      409,
      'These groups would then contain each other in a circle: Everybody here, Ashore and Afloat.',
    ]);
    const told = ok(await maren.call('person', { params: { id: priya } }));
    expect(told.ways.map(({ name, ways }: { name: string; ways: object[] }) => [name, ways])).toEqual([
      ['Afloat', [{ through: [], days: 'since 1 Nov 2026', entry: expect.any(String) }]],
      ['Ashore', [{ through: ['Afloat'], days: 'since 1 Nov 2026', entry: null }]],
      ['Everybody here', [{ through: ['Afloat', 'Ashore'], days: 'from 1 Nov 2026 to 31 Dec 2026', entry: null }]],
    ]);
    expect(
      (await enter(afloat, { person: priya, from: '2026-12-02', until: '2026-12-01' })).body.problems[0].field,
    ).toBe('until');
    expect((await enter(afloat, {})).status).toBe(422);
    expect((await maren.call('addGroup', { headers: key(), body: { name: 'AFLOAT', isTeam: true } })).status).toBe(422);
  });

  it('begin and end with the day at the desk: who is in them sees and loses with it', async () => {
    const { key: watch } = ok(await maren.call('addGroup', { headers: key(), body: { name: 'Watch', isTeam: true } }));
    const declan = idOf('Declan Oyelaran');
    const body = { person: declan, from: '2026-11-24', until: '2026-11-25' };
    ok(await maren.call('enterGroup', { params: { key: watch }, headers: key(), body }));
    const isIn = async () => {
      await desk.running.dayTurned();
      return ok(await (await desk.as('Declan Oyelaran')).call('me')).person.groups.includes(watch);
    };
    const on = [await isIn()];
    for (let day = 0; day < 3; day += 1) {
      ok(await ada.call('advanceClock', { body: { minutes: 24 * 60 } }));
      on.push(await isIn());
    }
    expect(on).toEqual([false, true, true, false]);
  });

  it('say how many are in them as groups come into others and go', async () => {
    const made = async (name: string) =>
      ok(await maren.call('addGroup', { headers: key(), body: { name, isTeam: false } })).key as string;
    const [outer, inner] = [await made('Outer ring'), await made('Inner ring')];
    const enter = async (group: string, body: object) =>
      ok(
        await maren.call('enterGroup', {
          params: { key: group },
          headers: key(),
          body: { from: null, until: null, ...body },
        }),
      );
    const counts = async () =>
      ok(await maren.call('groups'))
        .groups.filter((each: { key: string }) => [outer, inner].includes(each.key))
        .map(({ name, members }: { name: string; members: number }) => [name, members]);
    await enter(inner, { person: idOf('Ruadhan Pell') });
    await enter(inner, { person: idOf('Saoirse Lindqvist') });
    const { id } = await enter(outer, { group: inner });
    expect(await counts()).toEqual([
      ['Inner ring', 2],
      ['Outer ring', 2],
    ]);
    ok(await maren.call('leaveGroup', { params: { key: outer, entry: id } }));
    expect(await counts()).toEqual([
      ['Inner ring', 2],
      ['Outer ring', 0],
    ]);
  });

  it('are settled for today as their entries say, whatever is entered, ended, and whichever day it is', async () => {
    const { db } = desk.running.house;
    const names = ['Alpha', 'Beta', 'Gamma', 'Delta'];
    const groups = await Promise.all(
      names.map(
        async (name) =>
          ok(await maren.call('addGroup', { headers: key(), body: { name, isTeam: false } })).key as string,
      ),
    );
    const members = ['Ruadhan Pell', 'Mireille Thorsby', 'Saoirse Lindqvist'].map(idOf);
    const today = () => ok2(desk.running.house.clock.now());
    const ok2 = (now: number): string => new Date(now).toISOString().slice(0, 10);
    const counts = { in: 0, out: 0, entered: 0, refused: 0, ended: 0, days: 0 };
    const pick = fc.nat({ max: 9_999 });
    const steps = fc.array(
      fc.record({
        what: fc.constantFrom('person', 'person', 'group', 'end', 'day'),
        a: pick,
        b: pick,
        c: pick,
        d: pick,
      }),
      {
        minLength: 10,
        maxLength: 18,
      },
    );
    const dayNear = (n: number): string | null =>
      n % 3 === 0
        ? null
        : new Date(desk.running.house.clock.now() + ((n % 5) - 2) * 86_400_000).toISOString().slice(0, 10);
    await fc.assert(
      fc.asyncProperty(steps, async (all) => {
        for (const { what, a, b, c, d } of all) {
          const into = groups[a % groups.length] ?? '';
          if (what === 'day') {
            ok(await ada.call('advanceClock', { body: { minutes: 24 * 60 } }));
            await desk.running.dayTurned();
            counts.days += 1;
          } else if (what === 'end') {
            const entries = db.select().from(groupEntries).where(eq(groupEntries.groupKey, into)).all();
            const entry = entries[b % Math.max(1, entries.length)];
            if (!entry) continue;
            ok(await maren.call('leaveGroup', { params: { key: into, entry: entry.id } }));
            counts.ended += 1;
          } else {
            const [from, until] = [dayNear(c), dayNear(d)];
            const member =
              what === 'person' ? { person: members[b % members.length] } : { group: groups[b % groups.length] };
            const body = { ...member, from, until: from !== null && until !== null && until < from ? null : until };
            const { status } = await maren.call('enterGroup', { params: { key: into }, headers: key(), body });
            counts[status === 200 ? 'entered' : 'refused'] += 1;
          }
          const entries = db
            .select()
            .from(groupEntries)
            .all()
            .map((entry) => ({
              ...{ group: entry.groupKey, from: entry.fromDay, until: entry.untilDay },
              member: entry.memberGroup === null ? { person: entry.personId ?? '' } : { group: entry.memberGroup },
            }));
          for (const { key, members } of db.select().from(groupRows).all())
            expect([key, members]).toEqual([
              key,
              db.select().from(memberships).where(eq(memberships.groupKey, key)).all().length,
            ]);
          for (const person of members) {
            const wanted = groupsOn(entries, person, today());
            for (const group of groups) {
              const which = and(eq(memberships.groupKey, group), eq(memberships.personId, person));
              const isIn = db.select().from(memberships).where(which).get() !== undefined;
              expect([group, person, isIn]).toEqual([group, person, wanted.has(group)]);
              counts[isIn ? 'in' : 'out'] += 1;
            }
          }
        }
      }),
      { numRuns: often(30) },
    );
    console.log('groups settled for today:', counts);
    expect(Math.min(counts.in, counts.out, counts.entered, counts.refused, counts.ended, counts.days)).toBeGreaterThan(
      3,
    );
  }, 180_000);
});

describe('the list of people', () => {
  it('finds by parts of name, address and group, and goes on where it stopped', async () => {
    const find = async (query: Record<string, string>) =>
      ok(await maren.call('people', { query })).people.map(({ name }: { name: string }) => name);
    expect(await find({ find: 'solheim', kind: 'staff' })).toEqual(['Bram Solheim']);
    expect(await find({ find: 'BOATS sig' })).toEqual(['Signe Halvard']);
    expect(await find({ find: '%' })).toEqual([]);
    expect(await find({ find: '_' })).toEqual([]);
    expect(await find({ find: '@corrin ar' })).toEqual(['Dilys Hart', 'Einar Sund', 'Piet Arrowsmith']);
    expect(await find({ kind: 'contact', state: 'inactive', find: 'merrow' })).toEqual([
      'Kasper Lund-Weir',
      'Rhona Lisle',
    ]);
    const contacts = await Promise.all(
      Array.from({ length: 130 }, (_, n) =>
        maren.call('addPerson', {
          headers: key(),
          body: { kind: 'contact', name: `Contact ${n % 7}`, email: `contact.${n}@many.example` },
        }),
      ),
    );
    expect(contacts.every(({ status }) => status === 200)).toBe(true);
    const met: string[] = [];
    let after: string | null = '';
    while (after !== null) {
      const page: { people: { id: string; namesake: boolean }[]; total: number; next: string | null } = ok(
        await maren.call('people', { query: { find: 'many.example', ...(after ? { after } : {}) } }),
      );
      expect([page.total, page.people.every(({ namesake }) => namesake)]).toEqual([130, true]);
      met.push(...page.people.map(({ id }) => id));
      after = page.next;
    }
    expect([met.length, new Set(met).size]).toEqual([130, 130]);
  });

  it('finds whoever a slow reading finds, in whatever letters, whatever became of them', async () => {
    const { db } = desk.running.house;
    const collator = new Intl.Collator('en', { sensitivity: 'base' });
    /** Whether a word stands in a text for whoever has no accents: each part of the text beside it, letter by letter. */
    const standsIn = (text: string, word: string): boolean =>
      Array.from(text).some((_, from) =>
        [-2, -1, 0, 1, 2].some((more) => {
          const part = Array.from(text).slice(from, from + Array.from(word).length + more);
          return part.length > 0 && collator.compare(part.join(''), word) === 0;
        }),
      );
    const names = [
      'Søren Ærø',
      'Łucja Đorđević',
      'ÅSE Strauß',
      'Zoë Núñez',
      'Marlo [Quay]',
      'Ida * Berg',
      'Noé Œuvrard',
    ];
    const made = await Promise.all(
      names.map(async (name, n) =>
        ok(
          await maren.call('addPerson', {
            headers: key(),
            body: { kind: n % 2 === 0 ? 'staff' : 'contact', name, email: `found.${n}@letters.example` },
          }),
        ),
      ),
    );
    const [first = '', , third = '', , fifth = ''] = made.map(({ id }: { id: string }) => id);
    const version = async (id: string) => ok(await maren.call('person', { params: { id } })).version as number;
    const put = async (id: string, body: object) =>
      ok(await maren.call('changePerson', { params: { id }, headers: onVersion(await version(id)), body }));
    await put(first, { name: 'Sören Ærø-Lind' });
    await put(third, { email: 'aase.strauss@letters.example' });
    ok(await maren.call('mergePeople', { params: { id: third }, body: { other: fifth } }));
    const foundBy = async (find: string) =>
      ok(await maren.call('people', { query: { find } })).people.map(({ id }: { id: string }) => id);
    expect([await foundBy('found.4'), await foundBy('found.2'), await foundBy('SOREN')]).toEqual([
      [third],
      [third],
      [first],
    ]);
    const all = db.select().from(people).all();
    const groupsBy = new Map(
      db
        .select()
        .from(groupRows)
        .all()
        .map(({ key, name }) => [key, name]),
    );
    const isInNow = db.select().from(memberships).all();
    const found = db.select().from(addresses).all();
    const textsOf = new Map(
      all.map(({ id, name }) => [
        id,
        [
          name,
          ...found.flatMap(({ address, personId }) => (personId === id ? [address] : [])),
          ...isInNow.flatMap(({ groupKey, personId }) => (personId === id ? [groupsBy.get(groupKey) ?? ''] : [])),
        ],
      ]),
    );
    const whose = [...textsOf.values()];
    const nat = fc.nat({ max: 99_999 });
    const letters = fc.constantFrom<(text: string) => string>(
      (text) => text,
      (text) => text.toUpperCase(),
      (text) => text.normalize('NFD').replace(/\p{M}/gu, ''),
      (text) => text.split('').reverse().join(''),
    );
    const word = fc.tuple(nat, nat, fc.integer({ min: 2, max: 5 }), letters);
    /** Words out of what one person is found by, as somebody might type them. */
    const words = fc.tuple(nat, fc.array(word, { maxLength: 2 })).map(([who, parts]) =>
      parts.map(([which, from, length, as]) => {
        const texts = whose[who % whose.length] ?? [];
        const text = Array.from(texts[which % texts.length] ?? '');
        const at = from % Math.max(1, text.length - length);
        return as(text.slice(at, at + length).join('')).trim();
      }),
    );
    const own = fc.constantFrom(
      'soren',
      'lucja',
      'strauss',
      'nunez',
      '[quay]',
      '*',
      'aero',
      'oeuv',
      'đor',
      'letters.',
      '?',
    );
    const query = fc.record({
      find: fc
        .oneof({ weight: 3, arbitrary: words }, { weight: 1, arbitrary: own.map((each) => [each]) })
        .map((each) => each.join(' ')),
      kind: fc.constantFrom(undefined, undefined, 'staff', 'contact'),
      state: fc.constantFrom(undefined, undefined, 'active', 'inactive'),
      group: fc.option(fc.constantFrom(...isInNow.map(({ groupKey }) => groupKey)), { nil: undefined, freq: 2 }),
    });
    const counts = { nobody: 0, some: 0, byWords: 0, inGroup: 0, both: 0 };
    await fc.assert(
      fc.asyncProperty(query, async ({ find, kind, state, group }) => {
        const words = find.split(/\s+/).filter(Boolean);
        const wanted = all
          .filter((person) => person.mergedInto === null && person.removedAt === null)
          .filter(
            (person) =>
              (kind === undefined || person.kind === kind) &&
              (state === undefined || person.active === (state === 'active')),
          )
          .filter(({ id }) => !group || isInNow.some((each) => each.groupKey === group && each.personId === id))
          .filter(({ id }) => words.every((each) => textsOf.get(id)?.some((text) => standsIn(text, each))))
          .map(({ id }) => id)
          .sort();
        const met: string[] = [];
        let after: string | null = '';
        while (after !== null) {
          const asked = { find, kind, state, group, after: after || undefined };
          const given = Object.fromEntries(
            Object.entries(asked).filter(([, each]) => each !== undefined && each !== ''),
          );
          const page: { people: { id: string }[]; total: number; next: string | null } = ok(
            await maren.call('people', { query: given as Record<string, string> }),
          );
          expect([asked, page.total]).toEqual([asked, wanted.length]);
          met.push(...page.people.map(({ id }) => id));
          after = page.next;
        }
        expect([find, met.sort()]).toEqual([find, wanted]);
        counts[wanted.length === 0 ? 'nobody' : 'some'] += 1;
        if (wanted.length > 0) {
          if (words.length > 0) counts.byWords += 1;
          if (group) counts.inGroup += 1;
          if (words.length > 0 && group) counts.both += 1;
        }
      }),
      { numRuns: often(750) },
    );
    console.log('people looked for:', counts);
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(1);
  }, 120_000);

  it('counts a thousand of those who are found by words, and says where they are more', async () => {
    const total = async (query: Record<string, string>) => ok(await maren.call('people', { query })).total;
    write(desk.running.house, (work) => {
      for (let n = 0; n < 1_001; n += 1)
        addPerson(by(work, idOf('Maren Okafor')), {
          kind: 'contact',
          name: `Throng ${n}`,
          email: `throng.${n}@throng.example`,
        });
    });
    expect(await total({ find: 'throng' })).toBe(null);
    expect(await total({ find: 'throng.1' })).toBe(112);
    expect(await total({ find: 'throng', kind: 'staff' })).toBe(null);
    expect(await total({ find: 'throng 10' })).toBe(21);
    expect(await total({ kind: 'contact', state: 'active' })).toBeGreaterThan(1_000);
  }, 60_000);
});
