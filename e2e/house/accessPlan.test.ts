import type { AccessLevel, AccessRule, PlanRules } from '@tolvek/core/access';
import { people, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ada: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  ada = await desk.as('Ada Quillfeather');
  const askers = await Promise.all(
    ['Priya Nakamura-Lind', 'Ilse Brandvold', 'Maren Okafor'].map((name) => desk.as(name)),
  );
  for (const [n, asker] of askers.entries())
    for (let each = 0; each <= n; each += 1)
      ok(await asker.submit('come-on-site', { ...(each === 1 ? WATER : VISIT), visitor: `Visitor ${n} ${each}` }));
  // They stand at different stages, and some are somebody’s.
  const ways = [
    { stage: 'in_hand', phase: 'working', handlerId: desk.idOf('Ilse Brandvold') },
    { stage: 'papers', phase: 'paused', handlerId: desk.idOf('Oskar Veldhuis') },
    { stage: 'done', phase: 'finished' },
    {},
  ] as const;
  for (const [index, number] of numbers().entries()) {
    const way = ways[index % ways.length] ?? {};
    if (Object.keys(way).length > 0)
      desk.running.house.db.update(requests).set(way).where(eq(requests.number, number)).run();
  }
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const of = { params: { key: 'site-access' } };
const read = async (by = maren) => ok(await by.call('accessPlan', of));
const keep = async (plan: PlanRules, by = maren): Promise<Answer> => {
  const { version } = await read(by);
  return by.call('keepAccessPlan', { ...of, headers: onVersion(version), body: plan });
};
const put = async (by = maren, body: object = {}): Promise<Answer> => {
  const { version } = await read(by);
  const said = { note: '', closesToMyself: false, ...body };
  return by.call('putAccessPlan', { ...of, headers: onVersion(version), body: said });
};
const effect = async (by = maren) => ok(await by.call('accessPlanEffect', of));
const rule = (id: string, more: Partial<AccessRule> = {}): AccessRule => ({
  ...{ id, name: `Rule ${id}`, fields: ['escort'], level: 'hidden' },
  audience: { in: { anyOf: ['estates'] }, outOf: [] },
  ...more,
});
const numbers = (): readonly string[] =>
  desk.running.house.db
    .select({ number: requests.number })
    .from(requests)
    .where(eq(requests.registerId, desk.register('site-access').id))
    .all()
    .map(({ number }) => number);

/** What somebody may do with each field of each request, as the pages that they are given say. */
async function levels(who: Caller): Promise<ReadonlyMap<string, AccessLevel>> {
  const found = new Map<string, AccessLevel>();
  for (const number of numbers()) {
    const sheet = await who.call('sheet', { params: { number } });
    const seen = sheet.status === 200 ? sheet : await who.call('myRequest', { params: { number } });
    if (seen.status !== 200) continue;
    for (const { key, writable } of seen.body.values.fields) found.set(`${number} ${key}`, writable ? 'write' : 'read');
  }
  return found;
}

let begins: PlanRules;
beforeEach(async () => {
  begins ??= (await read()).inForce;
  desk.protect('site-access', { rules: begins.rules });
  ok(await keep({ rules: begins.rules, resting: [] }));
});

describe('an access plan', () => {
  it('is written in a draft, and protects when it is put in force; one step back it is as before', async () => {
    const ilse = await desk.as('Ilse Brandvold');
    const before = await levels(ilse);
    const told = ok(await keep({ rules: [...begins.rules, rule('a')], resting: [] }));
    expect(told.changes).toEqual({
      ...{ added: ['Rule a'], changed: [], removed: [], switchedOff: [], switchedOn: [] },
      ...{ noted: [], notNoted: [], placed: [], base: false, readers: false },
    });
    expect(told.told.a.names).toContain('Ilse Brandvold');
    expect(await levels(ilse)).toEqual(before);
    ok(await put(maren, { note: 'Escorts are nobody’s business' }));
    const after = await levels(ilse);
    expect([...before.keys()].filter((key) => !after.has(key)).every((key) => key.endsWith(' escort'))).toBe(true);
    expect(before.size - after.size).toBeGreaterThan(0);
    const { before: was, inForce } = await read();
    expect([was.own, was.rules, inForce.rules.length]).toEqual([true, begins.rules, begins.rules.length + 1]);
    ok(await keep({ rules: was.rules, resting: was.resting }));
    ok(await put());
    expect(await levels(ilse)).toEqual(before);
    const { planHistory } = ok(await maren.call('form', { params: { key: 'site-access' } }));
    expect(
      planHistory.slice(0, 2).map(({ words, who }: { words: unknown; who: string }) => [who, JSON.stringify(words)]),
    ).toEqual([
      ['Maren Okafor', expect.stringContaining('Deleted: “Rule a”')],
      ['Maren Okafor', expect.stringContaining('Escorts are nobody')],
    ]);
  });

  it('keeps rules that are switched off, which protect nothing', async () => {
    ok(await keep({ rules: [...begins.rules, rule('a')], resting: [] }));
    ok(await put());
    const told = ok(await keep({ rules: begins.rules, resting: [rule('a')] }));
    expect(told.changes.switchedOff).toEqual(['Rule a']);
    ok(await put());
    const ilse = await levels(await desk.as('Ilse Brandvold'));
    expect([...ilse.keys()].some((key) => key.endsWith(' escort'))).toBe(true);
    expect((await read()).inForce.resting).toEqual([rule('a')]);
  });

  it('opens nothing further than it is open to whoever puts it in force, but for who may give rights', async () => {
    const open = begins.rules.map((each) =>
      each.id === 'medical-closed' ? { ...each, level: 'read' as const } : each,
    );
    for (const rules of [
      open,
      [],
      [
        ...begins.rules,
        rule('b', { fields: 'all', overriding: true, level: 'read', audience: { in: { everyone: true }, outOf: [] } }),
      ],
    ]) {
      ok(await keep({ rules, resting: [] }));
      expect((await effect()).mayNotOpen).toContain('Medical note');
      const refused = await put();
      expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('administrator')]);
    }
    ok(await keep({ rules: open, resting: [] }));
    expect((await effect(ada)).mayNotOpen).toEqual([]);
    ok(await put(ada));
    // What somebody else changed is not taken back past what one reads.
    ok(await keep({ rules: begins.rules, resting: [] }));
    ok(await put(maren, { closesToMyself: true }));
    ok(await keep({ rules: open, resting: [] }));
    // One’s own last change is: whoever closed something by mistake is not kept out by it.
    ok(await put());
  });

  it('takes nothing from whoever puts it in force that they did not give up', async () => {
    ok(
      await keep({
        rules: [...begins.rules, rule('a', { audience: { in: { everyone: true }, outOf: [] } })],
        resting: [],
      }),
    );
    expect((await effect()).yours).toEqual([{ field: 'escort', label: 'Escort', before: 'write', after: 'hidden' }]);
    const refused = await put();
    expect([refused.status, refused.body.title]).toEqual([409, expect.stringContaining('Escort')]);
    ok(await put(maren, { closesToMyself: true }));
  });

  it('says what is wrong with each rule, and stays as it was', async () => {
    const wrong = [
      rule('n', { name: ' ' }),
      rule('f', { fields: [] }),
      rule('l', { fields: ['long_gone'] }),
      rule('w', { audience: { in: { anyOf: [] }, outOf: ['estates'] } }),
      rule('g', { audience: { in: { anyOf: ['nowhere'] }, outOf: [] } }),
      rule('t', { name: 'Rule f' }),
    ];
    const told = ok(await keep({ rules: wrong, resting: [rule('r', { name: '', fields: [] })] }));
    expect(told.problems.map(({ field }: { field: string }) => field).sort()).toEqual(
      ['access', 'rules f fields', 'rules l fields', 'rules n name', 'rules t name', 'rules w audience'].sort(),
    );
    expect((await put()).status).toBe(422);
    expect((await read()).inForce.rules).toEqual(begins.rules);
  });

  it('is kept by two at once only on what each has read', async () => {
    const { version } = await read();
    const body = { rules: begins.rules, resting: [] };
    const first = await maren.call('keepAccessPlan', { ...of, headers: onVersion(version), body });
    const second = await ada.call('keepAccessPlan', { ...of, headers: onVersion(version), body });
    expect([first.status, second.status]).toEqual([200, 412]);
    expect((await (await desk.as('Bram Solheim')).call('accessPlan', of)).status).toBe(403);
  });

  it('says otherwise in lists, files and letters than on the sheet, and each says so', async () => {
    const everyone = { in: { everyone: true as const }, outOf: [] };
    const inHouse = { id: 'e', level: 'none' as const, activities: ['working' as const, 'searching' as const] };
    const plan = [
      ...begins.rules,
      rule('out', { fields: ['visitor'], audience: everyone, exceptions: [inHouse] }),
      rule('file', {
        fields: ['reason'],
        audience: { ...everyone, requester: 'out' },
        level: 'write',
        exceptions: [{ ...inHouse, level: 'hidden', activities: ['taking-out'] }],
      }),
    ];
    ok(await keep({ rules: plan, resting: [] }));
    const said = (await effect()).fields.map(
      ({ activity, field, after }: { activity: string; field: string; after: string }) =>
        `${activity} ${field} ${after}`,
    );
    expect(said).toEqual(
      expect.arrayContaining([
        'browsing visitor hidden',
        'letters visitor hidden',
        'taking-out visitor hidden',
        'taking-out reason hidden',
      ]),
    );
    expect(said.filter((each: string) => each.startsWith('working'))).toEqual([]);
    ok(await put());
    const priya = await desk.as('Priya Nakamura-Lind');
    const { number } = ok(
      await priya.submit('come-on-site', { ...VISIT, visitor: 'Planted Guest', reason: 'Planted reason' }),
    );
    const sheet = await maren.sheet(number);
    expect(sheet.values.fields.find(({ key }: { key: string }) => key === 'visitor')?.shown).toBe('Planted Guest');
    expect(JSON.stringify(ok(await maren.call('ledger', { query: {} })))).not.toContain('Planted Guest');
    const file = await fetch(`${desk.running.url}/api/forms/site-access/requests.csv?among=all`, {
      headers: { cookie: maren.cookie },
    });
    const csv = await file.text();
    expect([file.status, csv.includes(number), csv.includes('Planted')]).toEqual([200, true, false]);
    const letters = (await desk.letters()).filter(({ subject, text }) => (subject + text).includes(number));
    expect(letters.length).toBeGreaterThan(0);
    expect(letters.filter(({ subject, text }) => (subject + text).includes('Planted Guest'))).toEqual([]);
    // Whoever asked is told of it as before: it is not on their own page that it is left out.
    expect(JSON.stringify(await priya.call('myRequest', { params: { number } }))).toContain('Planted Guest');
  });

  it('lets a field be corrected within its time, and refuses it afterwards', async () => {
    const set = rule('once', {
      ...{ fields: ['reason'], level: 'read', audience: { in: { everyone: true }, outOf: ['site-safety'] } },
      exceptions: [{ id: 'grace', level: 'none', when: 'now < request.arrived + duration("PT30M")' }],
    });
    ok(await keep({ rules: [...begins.rules, set], resting: [] }));
    ok(await put(maren, { closesToMyself: true }));
    const { number } = ok(await maren.submit('come-on-site', { ...VISIT, visitor: 'Set once' }));
    const change = async (by: Caller, reason: string): Promise<Answer> => {
      const { version } = await by.sheet(number);
      return by.call('changeFields', {
        params: { number },
        headers: onVersion(version),
        body: { changes: { reason } },
      });
    };
    const ilse = await desk.as('Ilse Brandvold');
    const canWrite = async (by: Caller): Promise<boolean> =>
      (await by.sheet(number)).values.fields.find(({ key }: { key: string }) => key === 'reason').writable;
    expect([await canWrite(ilse), (await change(ilse, 'Corrected')).status]).toEqual([true, 200]);
    (desk.running.house.clock as unknown as { advance(ms: number): void }).advance(31 * 60_000);
    expect(await canWrite(ilse)).toBe(false);
    const refused = await change(ilse, 'Too late');
    expect([refused.status, refused.text.includes('Reason') || refused.text.includes('reason')]).toEqual([422, true]);
    const shown = (await ilse.sheet(number)).values.fields.find(({ key }: { key: string }) => key === 'reason').shown;
    expect(shown).toBe('Corrected');
  });

  it('holds from one day to another, and hides so that it looks empty where that is wanted', async () => {
    const today = new Date(desk.running.house.clock.now()).toISOString().slice(0, 10);
    const plan = (days: Partial<AccessRule>) => ({
      rules: [...begins.rules, rule('d', { fields: ['escort'], looksEmpty: true, ...days })],
      resting: [],
    });
    const ilse = await desk.as('Ilse Brandvold');
    const number = numbers()[0] as string;
    const escort = async () => {
      const { values } = await ilse.sheet(number);
      const field = values.fields.find(({ key }: { key: string }) => key === 'escort');
      const told = values.withheld.some(({ label }: { label: string }) => label === 'Escort');
      return field ? [field.writable, told] : ['not there', told];
    };
    for (const [days, seen] of [
      [{ from: today }, [false, false]],
      [{ until: '2026-01-01' }, [true, false]],
      [{ from: '2030-01-01' }, [true, false]],
      [{ until: today }, [false, false]],
    ] as const) {
      ok(await keep(plan(days)));
      ok(await put());
      expect([days, await escort()]).toEqual([days, seen]);
    }
    const told = ok(await keep(plan({ from: '2026-05-02', until: '2026-05-01' })));
    expect(told.problems.map(({ field }: { field: string }) => field)).toEqual(['rules d days']);
  });

  it('says what holds without a rule, for the desk and for whoever asked, and counts what changes by it', async () => {
    const base = { desk: 'read', requester: { answers: 'read', made: 'read', staffOnly: 'read' } };
    const told = ok(await keep({ rules: begins.rules, resting: [], base } as PlanRules));
    expect(told.changes.base).toBe(true);
    const row = told.grid.rows.find(({ field }: { field: string }) => field === 'escort');
    expect(row.cells.map(({ level, was }: { level: string; was: string }) => `${level} ${was}`)).toEqual([
      'read hidden',
      ...Array(row.cells.length - 1).fill('read write'),
    ]);
    expect((await effect()).yours).toContainEqual({ field: 'escort', label: 'Escort', before: 'write', after: 'read' });
    const [priya, ilse] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Ilse Brandvold')];
    ok(await put(ada, { closesToMyself: true }));
    expect([...new Set((await levels(ilse)).values())]).toEqual(['read']);
    expect([...(await levels(priya)).keys()].some((key) => key.endsWith(' escort'))).toBe(true);
    ok(await keep({ rules: begins.rules, resting: [] }));
    // By the draft it is as usual again, before it is put in force.
    const draft = ok(await maren.call('fieldReaders', { ...of, query: { field: 'escort', plan: 'draft' } }));
    const force = ok(await maren.call('fieldReaders', { ...of, query: { field: 'escort' } }));
    expect([force.counts.write, draft.counts.write > 0]).toEqual([0, true]);
    ok(await put(ada));
    expect([...(await levels(priya)).keys()].some((key) => key.endsWith(' escort'))).toBe(false);
  });

  it('is refused where a condition would tell of what is hidden, hangs on nothing, or on a stage that is not there', async () => {
    const wrong = [
      rule('t', { exceptions: [{ id: 'a', level: 'read', when: 'medical_note != null' }] }),
      rule('n', { exceptions: [{ id: 'b', level: 'read' }] }),
      rule('e', { exceptions: [{ id: 'g', level: 'read', stages: [], when: 'institute = "corrin"' }] }),
      rule('s', { exceptions: [{ id: 'c', level: 'read', stages: ['long-gone'] }] }),
      rule('u', { exceptions: [{ id: 'd', level: 'read', when: 'nothing_like_it = 1' }] }),
      rule('m', { exceptions: [{ id: 'e', level: 'read', when: 'me.person = request.handler' }] }),
      rule('p', { audience: { in: { anyOf: ['@nobody'] }, outOf: [] } }),
      rule('fine', { exceptions: [{ id: 'f', level: 'read', when: 'institute = "corrin"', stages: ['arrived'] }] }),
    ];
    const told = ok(await keep({ rules: [...begins.rules, ...wrong], resting: [] }));
    expect(told.problems.map(({ field }: { field: string }) => field).sort()).toEqual(
      [
        'access',
        'rules e exception g',
        'rules m exceptions',
        'rules n exception b',
        'rules s exception c',
        'rules t exceptions',
        'rules u exceptions',
      ].sort(),
    );
    expect((await put()).status).toBe(422);
  });

  it('says who can see and change what as their pages do, by which rule, and for a day that is over', async () => {
    const plan = [
      ...begins.rules,
      rule('who', {
        ...{ fields: ['escort', 'reason'], level: 'read' },
        audience: { in: { anyOf: ['~handler', 'estates', `@${desk.idOf('Tomas Achterberg')}`] }, outOf: [] },
        exceptions: [{ id: 'e', level: 'hidden', stages: ['done'] }],
      }),
    ];
    ok(await keep({ rules: plan, resting: [] }));
    const before = ok(await maren.call('fieldReaders', { ...of, query: { field: 'escort' } }));
    const draft = ok(await maren.call('fieldReaders', { ...of, query: { field: 'escort', plan: 'draft' } }));
    expect(before.counts.write).toBeGreaterThan(draft.counts.write);
    ok(await put(maren, { closesToMyself: true }));
    const counts = { write: 0, read: 0, hidden: 0, examples: 0 };
    for (const name of [
      'Maren Okafor',
      'Ilse Brandvold',
      'Oskar Veldhuis',
      'Priya Nakamura-Lind',
      'Tomas Achterberg',
    ]) {
      const who = await desk.as(name);
      const seen = await levels(who);
      const told = ok(await maren.call('personReads', { ...of, query: { person: desk.idOf(name) } }));
      for (const { field, levels: said } of told.fields) {
        const sums = { write: 0, read: 0 };
        for (const [key, level] of seen) if (key.endsWith(` ${field}`)) sums[level as 'read'] += 1;
        for (const level of ['write', 'read'] as const) {
          const n = said
            .filter((each: { level: string }) => each.level === level)
            .reduce((sum: number, each: { requests: number }) => sum + each.requests, 0);
          expect([name, field, level, n]).toEqual([name, field, level, sums[level]]);
          counts[level] += n;
        }
        for (const { level, example } of said) {
          if (level === 'hidden') counts.hidden += 1;
          if (example === null) continue;
          counts.examples += 1;
          expect([name, field, seen.get(`${example} ${field}`) ?? 'hidden']).toEqual([name, field, level]);
        }
        const readers = ok(await maren.call('fieldReaders', { ...of, query: { field } }));
        const same = readers.people.find(({ id }: { id: string }) => id === desk.idOf(name));
        expect(same?.levels ?? []).toEqual(said);
      }
    }
    console.log('who can see and change what:', counts);
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(3);
    const rules = ok(await maren.call('personReads', { ...of, query: { person: desk.idOf('Ilse Brandvold') } }));
    expect(JSON.stringify(rules.fields.find(({ field }: { field: string }) => field === 'escort'))).toContain(
      'Rule who',
    );
    // Before anything was written down, nothing is made up.
    const past = ok(await maren.call('fieldReaders', { ...of, query: { field: 'escort', day: '2020-01-01' } }));
    expect([past.people, typeof past.since]).toEqual([[], 'string']);
    const coming = await maren.call('fieldReaders', { ...of, query: { field: 'escort', day: '2099-01-01' } });
    expect(coming.status).toBe(422);
  });

  it('says what was on a day by the plan, the groups and the rights of then', async () => {
    const clock = desk.running.house.clock as unknown as { now(): number; advance(ms: number): void };
    const dayOf = (): string => new Date(clock.now()).toISOString().slice(0, 10);
    const tomas = desk.idOf('Tomas Achterberg');
    ok(
      await keep({
        rules: [
          ...begins.rules,
          rule('then', { audience: { in: { anyOf: ['site-safety'] }, outOf: [] }, level: 'read' }),
        ],
        resting: [],
      }),
    );
    ok(await put(maren, { closesToMyself: true }));
    const first = dayOf();
    const ask = async (day?: string) => {
      const told = ok(await maren.call('personReads', { ...of, query: { person: tomas, ...(day ? { day } : {}) } }));
      return told.fields
        .filter(({ field }: { field: string }) => field === 'medical_note' || field === 'escort')
        .map(
          ({ field, levels: said }: { field: string; levels: readonly { level: string }[] }) =>
            `${field} ${[...new Set(said.map(({ level }) => level))].join('/')}`,
        );
    };
    const was = await ask();
    clock.advance(24 * 3_600_000);
    const headers = { 'Idempotency-Key': 'tomas-joins' };
    ok(
      await ada.call('enterGroup', {
        params: { key: 'site-safety' },
        headers,
        body: { person: tomas, from: null, until: null },
      }),
    );
    const joined = await ask();
    clock.advance(24 * 3_600_000);
    desk.protect('site-access', { rules: begins.rules });
    ok(await keep({ rules: begins.rules, resting: [] }));
    const now = await ask();
    expect([was, joined, now].map((each) => each.join(', '))).toEqual([
      'medical_note hidden, escort write',
      'medical_note read, escort read',
      'medical_note read, escort write',
    ]);
    const second = new Date(Date.parse(first) + 24 * 3_600_000).toISOString().slice(0, 10);
    expect([await ask(first), await ask(second)]).toEqual([was, joined]);
  });

  it('draws where a field goes, and whom a draft would tell, by which way; what it closes is said as well', async () => {
    const reach = async (field: string, plan = 'force') =>
      ok(await maren.call('fieldReach', { ...of, query: { field, plan } }));
    const water = await reach('works_on_water');
    const places = water.forms[0].places.map(({ says }: { says: string }) => says);
    expect(places.some((says: string) => says.includes('routing table'))).toBe(true);
    expect(water.forms[0].places.every(({ leaksTo }: { leaksTo: unknown }) => leaksTo === null)).toBe(true);
    const medical = await reach('medical_note');
    expect([medical.forms, medical.inEmails, medical.isCalled]).toEqual([[], false, false]);
    const visitor = await reach('visitor');
    expect([visitor.isCalled, visitor.inEmails]).toEqual([true, true]);
    // Closed to Boats, the routing table would tell them.
    const closed = rule('w', { fields: ['works_on_water'], audience: { in: { anyOf: ['boats'] }, outOf: [] } });
    ok(await keep({ rules: [...begins.rules, closed], resting: [] }));
    const draft = await reach('works_on_water', 'draft');
    expect(
      draft.forms[0].places.filter(({ leaksTo }: { leaksTo: unknown }) => leaksTo !== null).length,
    ).toBeGreaterThan(0);
    expect(draft.inEmails).toBe(false);
    const { opens, closes } = await effect();
    expect([opens.length > 0, opens.every(({ way }: { way: unknown[] }) => way.length > 0), closes]).toEqual([
      true,
      true,
      [],
    ]);
    expect((await put()).status).toBe(422);
    desk.protect('site-access', { rules: [...begins.rules, closed] });
    ok(await keep({ rules: begins.rules, resting: [] }));
    const after = await effect();
    expect([after.opens, after.closes.length]).toEqual([[], opens.length]);
  });

  it('says before what everybody is given afterwards, field by field and request by request', async () => {
    const who = [
      'Maren Okafor',
      'Ada Quillfeather',
      'Priya Nakamura-Lind',
      'Oskar Veldhuis',
      'Ilse Brandvold',
      'Tomas Achterberg',
    ];
    const callers = await Promise.all(who.map((name) => desk.as(name)));
    const fields = ['escort', 'medical_note', 'institute', 'reason'];
    const groups = ['estates', 'site-safety', 'duty-managers', 'boats'];
    const words = [...groups, `@${desk.idOf('Ilse Brandvold')}`, '~handler', '~team', '~decider'];
    const some = (of_: readonly string[]) => fc.subarray([...of_], { minLength: 1, maxLength: 3 });
    const exceptions = fc.array(
      fc.record(
        {
          id: fc.constantFrom('e1', 'e2'),
          level: fc.constantFrom('hidden' as const, 'read' as const, 'write' as const, 'none' as const),
          stages: fc.subarray(['arrived', 'in_hand', 'done'], { minLength: 1 }),
          when: fc.constantFrom(
            'request.decision = "waiting"',
            'request.handler = null',
            'now < request.arrived + duration("PT30M")',
          ),
        },
        { requiredKeys: ['id', 'level', 'stages'] },
      ),
      { maxLength: 2 },
    );
    const audience = fc.record({
      in: fc.oneof(
        fc.constant({ everyone: true as const }),
        some(words).map((anyOf) => ({ anyOf })),
        some(words).map((allOf) => ({ allOf })),
      ),
      outOf: fc.subarray(words, { maxLength: 1 }),
      requester: fc.constantFrom(undefined, 'in' as const, 'out' as const),
    });
    const rules = fc.array(
      fc.record({
        fields: some(fields),
        audience,
        level: fc.constantFrom('hidden' as const, 'read' as const, 'write' as const),
        overriding: fc.boolean(),
        exceptions,
      }),
      { minLength: 1, maxLength: 4 },
    );
    const counts = { gained: 0, lost: 0, same: 0, people: 0, byCircumstance: 0 };
    await fc.assert(
      fc.asyncProperty(rules, async (made) => {
        const plan = made.map(({ audience: { requester, ...whom }, overriding, ...each }, index) => ({
          ...{ id: `r${index}`, name: `Rule ${index}`, ...each },
          audience: requester ? { ...whom, requester } : whom,
          ...(overriding ? { overriding: true } : {}),
        }));
        counts.byCircumstance += made.filter((each) => each.exceptions.length > 0).length;
        desk.protect('site-access', { rules: begins.rules });
        ok(await keep({ rules: plan, resting: [] }));
        const said = await effect(ada);
        // What forms would tell too freely is not what is looked at here.
        if (said.opens.length > 0) return;
        const before = await Promise.all(callers.map(levels));
        ok(await put(ada, { closesToMyself: true }));
        const after = await Promise.all(callers.map(levels));
        for (const [index, name] of who.entries()) {
          const [was, is] = [before[index] ?? new Map(), after[index] ?? new Map()];
          const sums = new Map<string, number>();
          for (const key of new Set<string>([...was.keys(), ...is.keys()])) {
            const [had, has] = [was.get(key) ?? 'hidden', is.get(key) ?? 'hidden'];
            const gained = had === 'hidden' || (had === 'read' && has === 'write');
            counts[had === has ? 'same' : gained ? 'gained' : 'lost'] += 1;
            const change = `${key.split(' ')[1]} ${had} ${has}`;
            if (had !== has) sums.set(change, (sums.get(change) ?? 0) + 1);
          }
          const id = desk.running.house.db
            .select({ id: people.id })
            .from(people)
            .where(eq(people.name, name))
            .get()?.id;
          const told = said.people.find((each: { id: string }) => each.id === id)?.fields ?? [];
          if (told.length > 0) counts.people += 1;
          expect([
            name,
            told
              .filter((each: { activity: string }) => each.activity === 'working')
              .map((each: { field: string; before: string; after: string; requests: number }) => [
                `${each.field} ${each.before} ${each.after}`,
                each.requests,
              ])
              .sort(),
          ]).toEqual([name, [...sums].sort()]);
        }
      }),
      { numRuns: often(25) },
    );
    console.log('what a plan would change:', counts);
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(5);
  }, 180_000);
});
