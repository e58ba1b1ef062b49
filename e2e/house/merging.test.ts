import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { allRows, without } from './allRows.ts';
import { type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let ada: Caller;
let priya: Caller;
let hanne: Caller;
beforeAll(async () => {
  desk = await Desk.open(20);
  [ada, priya] = [await desk.as('Ada Quillfeather'), await desk.as('Priya Nakamura-Lind')];
  hanne = await desk.as('Hanne Istvan');
});
afterAll(() => desk.close());

const to = (number: string) => ({ params: { number } });
const asked = async (who: Caller, answers: object): Promise<string> =>
  ok(await who.submit('come-on-site', answers)).number as string;
const sheet = async (number: string, who = ada) => ok(await who.call('sheet', to(number)));
const plan = async (number: string, into: string, who = ada) =>
  who.call('requestMergePlan', { ...to(number), query: { into } });
const merge = async (number: string, into: string, take: readonly string[], who = ada) => {
  const [of, other] = [await who.call('sheet', to(number)), await who.call('sheet', to(into))];
  const body = { into, intoVersion: other.body.version ?? 1, take };
  return who.call('mergeRequest', { ...to(number), headers: onVersion(of.body.version ?? 1), body });
};
const unmerge = (number: string, who = ada) => who.call('unmergeRequest', to(number));
const value = (of: { values: { fields: { key: string; value: unknown }[] } }, key: string): unknown =>
  of.values.fields.find((field) => field.key === key)?.value;
const letters = (to: string): readonly { subject: string; text: string }[] =>
  desk.running.house.db.$client
    .prepare('select subject, text from letters where "to" like ? order by received_at, id')
    .all(`%${to}%`) as { subject: string; text: string }[];

describe('two requests about the same', () => {
  it('become one: what was chosen, for both who asked, without learning of each other; and two again in one step', async () => {
    const of = await asked(priya, { ...WATER, visitor: 'Elke Marlowe', departure: '2026-12-04' });
    const into = await asked(hanne, { ...VISIT, visitor: 'Elke Marlowe (tides)' });
    await desk.running.lettersSent();
    const { into: told } = ok(await plan(of, into));
    const differ = told.fields.map(({ key }: { key: string }) => key);
    expect(differ).toEqual(expect.arrayContaining(['visitor', 'departure', 'works_on_water', 'survival_until']));
    // What says nothing takes what the other says.
    const takes = told.fields.filter((field: { takes: boolean }) => field.takes).map(({ key }: { key: string }) => key);
    expect(takes).toEqual(['survival_until']);
    expect(ok(await plan(of, '')).alike.map(({ number }: { number: string }) => number)).toContain(into);
    const before = await sheet(of);
    expect([before.stage.role, before.approval.state]).toEqual(['deciding', 'waiting']);
    ok(await merge(of, into, ['departure']));
    const [after, other] = [await sheet(of), await sheet(into)];
    expect([after.stage.phase, after.merged.into.number, other.merged.took[0].number]).toEqual(['finished', into, of]);
    expect([value(other, 'departure'), value(other, 'visitor')]).toEqual(['2026-12-04', 'Elke Marlowe (tides)']);
    expect(other.history.at(-1).what).toBe(`${of} was merged into this request`);
    // Nobody is asked to decide about what has ended, and it is no work of anybody.
    expect(after.approval.state).toBe('withdrawn');
    await desk.running.lettersSent();
    for (const [who, name] of [
      ['priya', 'Hanne'],
      ['hanne', 'Priya'],
    ] as const) {
      const last = letters(who).at(-1);
      expect(last?.subject).toMatch(/^Handled together with another request/);
      expect(last?.text).not.toContain(name);
    }
    // Whoever asked reads where the other one is, and nothing of it.
    const own = async () => ok(await priya.call('myRequest', to(of)));
    const stage = ok(await hanne.call('myRequest', to(into))).stage;
    expect(await own()).toMatchObject({ together: true, stage, finished: false });
    expect(JSON.stringify(await own())).not.toContain(into);
    expect((await priya.call('myRequest', to(into))).status).toBe(404);
    const mine = ok(await priya.call('frontDesk')).mine.find((each: { number: string }) => each.number === of);
    expect(mine).toMatchObject({ stage, finished: false });
    // When it is done, both hear of it, each of their own.
    const { version } = await sheet(into);
    ok(await ada.call('moveStage', { ...to(into), headers: onVersion(version), body: { stage: 'done' } }));
    await desk.running.lettersSent();
    for (const [who, number] of [
      ['priya', of],
      ['hanne', into],
    ] as const)
      expect([who, letters(who).at(-1)?.text]).toEqual([who, expect.stringContaining(number)]);
    expect(await own()).toMatchObject({ together: true, finished: true });
    ok(await unmerge(of));
    const back = await sheet(of);
    expect([back.stage, back.approval.state, back.approval.mayDecide]).toEqual([
      ...[before.stage, 'waiting', before.approval.mayDecide],
    ]);
    expect([value(await sheet(into), 'departure'), back.merged.into]).toEqual([VISIT.departure, null]);
    expect(await own()).toMatchObject({ together: false, stage: expect.not.stringMatching(/^Withdrawn/) });
  });

  it('are what they were when it is undone, in every table but their history and what was written of it', async () => {
    const of = await asked(priya, { ...WATER, visitor: 'Undone' });
    const into = await asked(hanne, { ...WATER, visitor: 'Undone too', reason: 'Another reason' });
    await desk.running.lettersSent();
    const before = allRows(desk);
    ok(await merge(of, into, ['visitor', 'reason']));
    ok(await unmerge(of));
    const [lost, more] = [without(before, allRows(desk)), without(allRows(desk), before)];
    const tables = (rows: readonly string[]) => [...new Set(rows.map((row) => row.split(' ')[0]))].sort();
    console.info('otherwise:', tables(lost), tables(more));
    /** A row without what every write raises. */
    const plain = (rows: readonly string[]) =>
      rows
        // A timer that was dropped stays as a record, beside the one that was set anew.
        .filter((row) => !/^(history|notices|timers .*"state":"dropped")/.test(row))
        .map((row) => row.replace(/"(version|updated_at|id)":("[^"]*"|\d+),?/g, '').replace(/"finished_at":\d+/, ''))
        .sort();
    expect(plain(more)).toEqual(plain(lost));
    // A decision is still asked for, and leads on.
    const { approval } = await sheet(of);
    const [tomas, edda] = [await desk.as('Tomas Achterberg'), await desk.as('Edda Kilbride')].map((who) => who);
    const decider = (await tomas?.call('sheet', to(of)))?.body?.approval?.mayDecide ? tomas : edda;
    expect(approval.state).toBe('waiting');
    const seen = (await decider?.call('sheet', to(of)))?.body?.approval?.seen;
    const said = await decider?.call('decide', {
      ...{ ...to(of), headers: freshly() },
      body: { verdict: 'approve', comment: '', seen },
    });
    expect(said?.status).toBe(200);
  });

  it('are what others refer to, one for the other, and back', async () => {
    const { $client } = desk.running.house.db;
    const pointed = $client
      .prepare(
        `select r.number, r.register_id as register, count(*) as n from pointers p join requests r on r.id = p.target_id
         where r.stage = 'in_use' group by r.id order by n desc limit 1`,
      )
      .get() as { number: string; register: string; n: number };
    const { number: other } = $client
      .prepare("select number from requests where register_id = ? and number <> ? and stage = 'in_use' limit 1")
      .get(pointed.register, pointed.number) as { number: string };
    const targets = (number: string): readonly string[] =>
      (
        $client
          .prepare(
            `select s.number from pointers p join requests r on r.id = p.target_id join requests s on s.id = p.request_id
             where r.number = ? order by s.number`,
          )
          .all(number) as { number: string }[]
      ).map((each) => each.number);
    const [before, others] = [targets(pointed.number), targets(other)];
    expect(before.length).toBeGreaterThan(0);
    expect(ok(await plan(pointed.number, other)).into.pointing).toBeGreaterThan(0);
    ok(await merge(pointed.number, other, []));
    expect(targets(pointed.number)).toEqual([]);
    expect(targets(other)).toEqual([...new Set([...before, ...others])].sort());
    const says = (await sheet(before[0] ?? '')).history.at(-1).what;
    expect(says).toBe(`Refers to ${other} from now on`);
    ok(await unmerge(pointed.number));
    expect([targets(pointed.number), targets(other)]).toEqual([before, others]);
  });

  it('are not merged with themselves, with something else, twice, or by who works on one only', async () => {
    const [one, two, three] = [await asked(priya, VISIT), await asked(hanne, VISIT), await asked(hanne, WATER)];
    const why = async (answer: Promise<{ status: number; body: { title?: string } }>) => {
      const { status, body } = await answer;
      return [status, body.title];
    };
    expect(await why(plan(one, one))).toEqual([409, `${one} cannot be merged into itself.`]);
    const thing = desk.running.house.db.$client.prepare("select number from requests where stage = 'in_use'").get();
    const { number: elsewhere } = thing as { number: string };
    expect(await why(merge(one, elsewhere, []))).toEqual([409, `${elsewhere} is in another register than ${one}.`]);
    expect((await plan(one, two, priya)).status).toBe(404);
    ok(await merge(one, two, []));
    expect((await merge(one, three, [])).status).toBe(409);
    expect((await merge(two, three, [])).status).toBe(409);
    expect((await merge(three, one, [])).status).toBe(409);
    expect((await unmerge(two)).status).toBe(409);
    // What others were merged into is not deleted.
    const { version } = await sheet(two);
    const gone = { ...to(two), headers: onVersion(version), body: { reason: 'Sold.' } };
    expect((await ada.call('deleteRequest', gone)).body.type).toBe('urn:tolvek:problem:pointed-to');
  });
});
