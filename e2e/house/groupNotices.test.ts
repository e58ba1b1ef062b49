import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';
import { releaseAs, telling } from './releasing.ts';

// A notice about how many there are: of each skill those who can do it well enough.
let desk: Desk;
let maren: Caller;

interface Entry {
  readonly number: string;
  readonly values: { readonly skill: string; readonly level: number };
}
/** The entries of the register, as they are stored. */
const entries = (): readonly Entry[] =>
  desk.running.house.db.$client
    .prepare('select number, "values" as v from requests where number like \'SK-%\' and trial = 0 order by number')
    .all()
    .map((row) => {
      const { number, v } = row as { number: string; v: string };
      return { number, values: JSON.parse(v) };
    });
/** How many of a skill are at level 3 or above, counted by going through them. */
const able = (skill: string): readonly Entry[] =>
  entries().filter(({ values }) => values.skill === skill && values.level >= 3);

const released = async (rules: readonly object[]): Promise<readonly string[]> =>
  (await releaseAs(maren, 'my-skills', telling(rules, null))).found;
const rule = (to: string, change: object = {}) => ({
  ...{ key: 'few', name: 'Few', to: [{ person: desk.idOf(to) }], when: 'level >= 3', answers: false },
  on: { is: 'group', by: 'skill', counts: 'fewer', than: 2 },
  ...{ subject: 'Few: {group.name}', text: 'There are {group.count} for {group.name}.', goes: { goes: 'at-once' } },
  ...change,
});
const set = async ({ number }: Entry, changes: object): Promise<void> => {
  const { version } = await maren.sheet(number);
  ok(await maren.call('changeFields', { params: { number }, headers: onVersion(version), body: { changes } }));
  await desk.running.lettersSent();
};
const told = async (who = 'maren.okafor'): Promise<readonly string[]> => {
  const list = (await desk.letters()).filter(({ to, subject }) => to.includes(who) && subject.startsWith('Few'));
  return list.map(({ subject }) => subject);
};

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

describe('a notice about a group', () => {
  it('is told once when it becomes too small, and again when it was large enough in between', async () => {
    expect(await released([rule('Maren Okafor')])).toEqual([]);
    const skill =
      [...new Set(entries().map(({ values }) => values.skill))].find((each) => able(each).length >= 2) ?? '';
    const others = able(skill).slice(2);
    for (const each of others) await set(each, { level: '1' });
    expect(await told()).toEqual([]);
    const [one, two] = able(skill) as [Entry, Entry];
    await set(one, { level: '2' });
    expect(able(skill)).toHaveLength(1);
    const [first, ...rest] = await told();
    expect([first?.startsWith('Few: '), rest]).toEqual([true, []]);
    const letter = (await desk.letters()).find(({ subject }) => subject === first);
    expect(letter?.text).toContain('There are 1 for');
    // It is too small still: that is no news.
    await set(two, { level: '1' });
    expect(await told()).toHaveLength(1);
    await set(one, { level: '3' });
    await set(two, { level: '4' });
    expect(await told()).toHaveLength(1);
    // Something else of it changes nothing.
    await set(two, { level: '5' });
    await set(one, { level: '1' });
    expect(await told()).toHaveLength(2);
  });

  it('is told of both groups where something goes from one to the other', async () => {
    const skills = [...new Set(entries().map(({ values }) => values.skill))];
    const [skill = ''] = skills.filter((each) => able(each).length >= 1);
    const other = skills.find((each) => each !== skill) ?? '';
    const n = able(skill).length;
    const m = able(other).length;
    const few = rule('Maren Okafor', { on: { is: 'group', by: 'skill', counts: 'fewer', than: n } });
    const many = {
      ...rule('Maren Okafor', { on: { is: 'group', by: 'skill', counts: 'more', than: m } }),
      key: 'many',
      name: 'Many',
      subject: 'Few no more: {group.name}',
    };
    expect(await released([few, many])).toEqual([]);
    const before = (await told()).length;
    await set(able(skill)[0] as Entry, { skill: other });
    const news = (await told()).slice(before);
    expect(news.map((subject) => subject.split(':')[0]).sort()).toEqual(['Few', 'Few no more']);
  });

  it('is told when the days alone make it so, once', async () => {
    const [one] = entries() as [Entry];
    const { now } = ok(await maren.call('me')).desk;
    const tomorrow = new Date(Date.parse(now) + 86_400_000).toISOString().slice(0, 10);
    await set(one, { since: tomorrow, level: '5' });
    const counts = (day: string): number =>
      (
        desk.running.house.db.$client
          .prepare(
            "select count(*) as n from requests where number like 'SK-%' and json_extract(\"values\", '$.since') <= ?",
          )
          .get(day) as { n: number }
      ).n;
    const than = counts(new Date(Date.parse(now)).toISOString().slice(0, 10));
    const days = rule('Maren Okafor', {
      ...{ on: { is: 'group', by: null, counts: 'more', than }, when: 'since <= today' },
      ...{ subject: 'Few days: {group.count}', text: 'So many: {group.count}.' },
    });
    expect(await released([days])).toEqual([]);
    ok(await maren.call('advanceClock', { body: { minutes: 1 } }));
    await desk.running.dayTurned();
    const before = (await told()).length;
    ok(await maren.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    await desk.running.lettersSent();
    expect((await told()).slice(before)).toEqual([`Few days: ${than + 1}`]);
    ok(await maren.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    await desk.running.lettersSent();
    expect((await told()).length).toBe(before + 1);
  });

  it('tells whoever may read all that is counted, and nobody who reads a part of it', async () => {
    const than = (
      desk.running.house.db.$client
        .prepare("select count(*) as n from requests where number like 'AC-%' and trial = 0 and phase <> 'finished'")
        .get() as { n: number }
    ).n;
    const many = {
      ...rule('Maren Okafor', { on: { is: 'group', by: null, counts: 'more', than }, when: 'visitor != null' }),
      to: ['Maren Okafor', 'Bram Solheim'].map((name) => ({ person: desk.idOf(name) })),
      ...{ subject: 'Few: many visits, {group.count}', text: 'So many: {group.count}.' },
    };
    const { release } = await releaseAs(maren, 'site-access', telling([many]));
    const priya = await desk.as('Priya Nakamura-Lind');
    const { number } = ok(await priya.submit('come-on-site', VISIT, { release: release ?? 0 }));
    await desk.running.lettersSent();
    // Bram reads this one, as it is of his team, and not all there are.
    expect((await (await desk.as('Bram Solheim')).call('sheet', { params: { number } })).status).toBe(200);
    expect([(await told()).at(-1), await told('bram.solheim')]).toEqual([`Few: many visits, ${than + 1}`, []]);
  });

  it('tells nobody who may not read any of it', async () => {
    // Priya asks here and there, and reads none of the register.
    expect(
      await released([rule('Priya Nakamura-Lind', { on: { is: 'group', by: null, counts: 'fewer', than: 99 } })]),
    ).toEqual([]);
    const all = entries().filter(({ values }) => values.level >= 3);
    const most = rule('Priya Nakamura-Lind', { on: { is: 'group', by: null, counts: 'fewer', than: all.length } });
    expect(await released([most])).toEqual([]);
    await set(all[0] as Entry, { level: '1' });
    expect(await told('priya.nakamura')).toEqual([]);
    const kept = desk.running.house.db.$client
      .prepare("select state, why from notices where rule = 'few' order by created_at desc limit 1")
      .get();
    expect(kept).toMatchObject({ state: 'dropped', why: 'hidden' });
  });

  /** Rows of a sheet, taken in by the house beside everything else. */
  const takeIn = async (rows: readonly object[]): Promise<void> => {
    ok(
      await maren.call('takeInRows', {
        ...{ params: { key: 'my-skills' }, headers: { 'Idempotency-Key': crypto.randomUUID() } },
        body: { rows: rows.map((cells) => ({ cells, requester: '' })), apply: true },
      }),
    );
    await desk.running.jobsDone();
    await desk.running.lettersSent();
  };
  /** One more who has a skill: somebody who was not there yet. */
  const people = (): readonly string[] =>
    desk.running.house.db.$client
      .prepare(
        "select name from people where kind = 'staff' and active = 1 and id not in (select json_extract(\"values\", '$.person') from requests where number like 'SK-%') order by name",
      )
      .all()
      .map((each) => (each as { name: string }).name);
  const rowsOf = (skill: string, levels: readonly number[]) => {
    const free = people();
    return levels.map((level, at) => row(free[at] ?? '', skill, level));
  };
  const row = (person: string, skill: string, level: number) => ({
    ...{ person, skill, level: String(level), since: '2026-01-01', paper: 'Of 2026' },
  });
  const goes = async ({ number }: Pick<Entry, 'number'>): Promise<void> => {
    const ada = await desk.as('Ada Quillfeather');
    const { version } = await ada.sheet(number);
    const body = { reason: 'No longer here' };
    ok(await ada.call('deleteRequest', { params: { number }, headers: onVersion(version), body }));
    await desk.running.jobsDone();
    await desk.running.lettersSent();
  };

  it('is told once, when it is over, of what many rows at once make of it', async () => {
    const skill = entries()[0]?.values.skill ?? '';
    const than = able(skill).length + 2;
    const many = rule('Maren Okafor', { on: { is: 'group', by: 'skill', counts: 'more', than } });
    expect(await released([many])).toEqual([]);
    const before = (await told()).length;
    await takeIn(rowsOf(skill, [3, 2, 4]));
    expect([able(skill).length, (await told()).length]).toEqual([than, before]);
    // Over it with the first of these rows, it is told with the number that all have made of it.
    await takeIn(rowsOf(skill, [1, 2, 3, 4, 5]));
    const letters = (await desk.letters()).filter(({ subject }) => subject.startsWith('Few'));
    expect([letters.length, letters.at(-1)?.text.includes(`There are ${than + 3} for`)]).toEqual([before + 1, true]);
    await takeIn(rowsOf(skill, [5]));
    expect((await told()).length).toBe(before + 1);
  });

  it('is told when deleting makes it too small, of another request', async () => {
    const skill = entries()[0]?.values.skill ?? '';
    const few = rule('Maren Okafor', { on: { is: 'group', by: 'skill', counts: 'fewer', than: able(skill).length } });
    expect(await released([few])).toEqual([]);
    const before = (await told()).length;
    await takeIn(rowsOf(skill, [1]));
    await goes(entries().at(-1) as Entry);
    expect((await told()).length).toBe(before);
    const gone = able(skill)[0] as Entry;
    await goes(gone);
    const letters = (await desk.letters()).filter(({ subject }) => subject.startsWith('Few'));
    expect([letters.length, letters.at(-1)?.text.includes(gone.number)]).toEqual([before + 1, false]);
    expect(letters.at(-1)?.text).toContain(`There are ${able(skill).length} for`);
    await goes(able(skill)[0] as Entry);
    expect((await told()).length).toBe(before + 1);
    const left = desk.running.house.db.$client.prepare('select count(*) as n from notice_turns').get();
    expect(left).toEqual({ n: 0 });
  });

  it('is told of what another form of the register does to it', async () => {
    const skill = entries()[0]?.values.skill ?? '';
    const than = able(skill).length;
    expect(await released([rule('Maren Okafor', { on: { is: 'group', by: 'skill', counts: 'more', than } })])).toEqual(
      [],
    );
    const made = await maren.call('askInto', {
      ...{ params: { key: 'my-skills' }, headers: { 'Idempotency-Key': crypto.randomUUID() } },
      body: { title: 'A skill, quickly', asks: ['skill', 'level'], doors: { staff: true, outside: false } },
    });
    const { key } = ok(made);
    const { release } = await releaseAs(maren, key, telling([], null));
    const before = (await told()).length;
    ok(await maren.submit(key, { skill, level: '4' }, { release: release ?? 0 }));
    await desk.running.jobsDone();
    await desk.running.lettersSent();
    expect(able(skill)).toHaveLength(than + 1);
    const letters = (await desk.letters()).filter(({ subject }) => subject.startsWith('Few'));
    expect([letters.length, letters.at(-1)?.text.includes(`There are ${than + 1} for`)]).toEqual([before + 1, true]);
  });

  it('is not released where a field can’t part anything', async () => {
    expect(
      await released([rule('Maren Okafor', { on: { is: 'group', by: 'paper', counts: 'fewer', than: 2 } })]),
    ).toEqual(['A field that “Few” names does not exist, or is of another kind. Choose another field.']);
  });
});
