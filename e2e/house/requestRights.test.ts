import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let ada: Caller;
let maren: Caller;
let priya: Caller;
let hanne: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  ada = await desk.as('Ada Quillfeather');
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
  hanne = await desk.as('Hanne Istvan');
});
afterAll(() => desk.close());

const sent = async (answers: object = VISIT): Promise<string> =>
  ok(await priya.submit('come-on-site', answers)).number as string;
const to = (number: string) => ({ params: { number } });
const idIn = (number: string): string =>
  desk.running.house.db.select({ id: requests.id }).from(requests).where(eq(requests.number, number)).get()?.id ?? '';
const sharing = (number: string, whom: object, until: string | null = null): Promise<Answer> =>
  ada.call('shareRequest', { ...to(number), body: { with: whom, until } });
const shared = async (who: Caller): Promise<readonly string[]> =>
  ok(await who.call('ledger', { query: { tray: 'shared' } })).rows.map(({ number }: { number: string }) => number);
const found = async (who: Caller, find: string): Promise<readonly string[]> =>
  ok(await who.call('ledger', { query: { tray: 'all', find } })).rows.map(({ number }: { number: string }) => number);

/** Every place in the database where a text stands, whichever table it is: table and column. */
function placesOf(text: string): readonly string[] {
  const { $client } = desk.running.house.db;
  const tables = $client.prepare("select name from sqlite_master where type = 'table'").all() as { name: string }[];
  return tables.flatMap(({ name }) => {
    const columns = $client.prepare(`select name from pragma_table_info('${name}')`).all() as { name: string }[];
    return columns.flatMap((column) =>
      $client.prepare(`select 1 from "${name}" where instr("${column.name}", ?) > 0 limit 1`).get(text)
        ? [`${name}.${column.name}`]
        : [],
    );
  });
}

describe('a request that is shared', () => {
  it('is read by whom it is shared with, and by nobody else; nothing can be done with it', async () => {
    const [number, other] = [await sent(), await sent()];
    expect((await hanne.call('sheet', to(number))).status).toBe(404);
    ok(await sharing(number, { person: desk.idOf('Hanne Istvan') }));
    const sheet = ok(await hanne.call('sheet', to(number)));
    expect(sheet.may).toEqual({
      ...{ change: false, move: false, assign: false, delete: false, share: false, history: false },
    });
    expect(sheet.values.fields.every(({ writable }: { writable: boolean }) => !writable)).toBe(true);
    expect(sheet.history).toEqual([]);
    expect(sheet.givers).toEqual(['Ada Quillfeather']);
    const change = { ...to(number), headers: onVersion(1), body: { changes: { escort: 'Signe Halvard' } } };
    expect((await hanne.call('changeFields', change)).status).toBe(403);
    expect((await hanne.call('comment', { ...to(number), body: { text: 'No', visibility: 'internal' } })).status).toBe(
      403,
    );
    expect((await hanne.call('sheet', to(other))).status).toBe(404);
    expect([await shared(hanne), await found(hanne, number), await found(hanne, other)]).toEqual([
      [number],
      [number],
      [],
    ]);
    const { trays } = ok(await hanne.call('trays', {}));
    const counts = Object.fromEntries(trays.map(({ key, count }: { key: string; count: number }) => [key, count]));
    // It is not their work: it is counted in the tray of what is shared with them, and in no other.
    expect([counts.shared, counts.all, counts.arrived]).toEqual([1, 0, 0]);
    const { params } = to(number);
    ok(await ada.call('unshareRequest', { params: { ...params, holder: `@${desk.idOf('Hanne Istvan')}` } }));
    expect([(await hanne.call('sheet', to(number))).status, await shared(hanne)]).toEqual([404, []]);
    const history = ok(await ada.call('sheet', to(number))).history.map(({ what }: { what: string }) => what);
    expect(history.slice(-2)).toEqual(['Shared with Hanne Istvan', 'No longer shared with Hanne Istvan']);
  });

  it('is shared with a group, until its last day is over', async () => {
    const number = await sent();
    const emeric = await desk.as('Emeric Vantongeren');
    ok(await sharing(number, { group: 'lab' }, '2026-11-24'));
    expect((await emeric.call('sheet', to(number))).status).toBe(200);
    expect(ok(await ada.call('sheet', to(number))).shares).toEqual([
      { holder: 'lab', name: 'Analytical Lab', until: '2026-11-24' },
    ]);
    ok(await ada.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    expect((await emeric.call('sheet', to(number))).status).toBe(200);
    ok(await ada.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    expect([(await emeric.call('sheet', to(number))).status, await shared(emeric)]).toEqual([404, []]);
    expect(ok(await ada.call('sheet', to(number))).shares).toEqual([]);
  });

  it('is shared by whoever may, with somebody who is there, until a day to come', async () => {
    const number = await sent();
    const tomas = await desk.as('Tomas Achterberg');
    const oskar = await desk.as('Oskar Veldhuis');
    const reading = [];
    for (const who of [tomas, oskar]) reading.push((await who.call('sheet', to(number))).status);
    const body = { with: { person: desk.idOf('Hanne Istvan') }, until: null };
    const refused = await (reading[0] === 200 ? tomas : oskar).call('shareRequest', { ...to(number), body });
    expect([refused.status, refused.body.title]).toEqual([
      ...(reading.includes(200)
        ? [403, 'You do not have this right: Share the requests of their teams with other staff.']
        : [404, refused.body.title]),
    ]);
    const fields = async (answer: Promise<Answer>) =>
      (await answer).body.problems.map(({ field }: { field: string }) => field);
    expect(await fields(sharing(number, { person: 'nobody' }))).toEqual(['with']);
    expect(await fields(sharing(number, { person: desk.idOf('Wim Haldane') }))).toEqual(['with']);
    expect(await fields(sharing(number, { group: 'lab' }, '2026-01-01'))).toEqual(['until']);
    const targets = ok(await ada.call('shareTargets', { ...to(number), query: { find: 'lab' } }));
    expect(targets.groups).toEqual([{ key: 'lab', name: 'Analytical Lab', members: 2 }]);
  });
});

describe('a decision for somebody else', () => {
  it('counts as theirs, says why, and stands in the history by name', async () => {
    const number = await sent(WATER);
    const before = ok(await ada.call('sheet', to(number)));
    expect([before.approval.mayDecide, before.approval.mayDecideFor]).toEqual([false, true]);
    const deciding = async (who: Caller, comment: string) =>
      who.call('decide', {
        ...{ ...to(number), headers: freshly() },
        body: { verdict: 'approve', comment, seen: await who.seen(number) },
      });
    const bare = await deciding(ada, ' ');
    expect([bare.status, bare.body.problems[0].field]).toEqual([422, 'comment']);
    // Who may read and not decide for others is told who is asked.
    const bram = await desk.as('Bram Solheim');
    expect(ok(await bram.call('sheet', to(number))).approval.mayDecideFor).toBe(false);
    expect((await deciding(bram, 'I would like to.')).status).toBe(403);
    ok(await deciding(ada, 'All duty managers are at sea.'));
    const after = ok(await ada.call('sheet', to(number)));
    expect([after.approval.state, after.approval.decidedBy]).toEqual(['approved', 'Ada Quillfeather']);
    expect(after.history.map(({ what }: { what: string }) => what)).toContain(
      `Approved for ${before.approval.group}: ${before.approval.label}`,
    );
  });

  it('is nobody’s on their own request', async () => {
    const number = ok(await ada.submit('come-on-site', WATER)).number as string;
    const { approval } = ok(await maren.call('sheet', to(number)));
    expect(approval.mayDecideFor).toBe(true);
    expect(ok(await ada.call('sheet', to(number))).approval.mayDecideFor).toBe(false);
    const own = await ada.call('decide', {
      ...{ ...to(number), headers: freshly() },
      body: { verdict: 'approve', comment: 'I am in a hurry.', seen: await ada.seen(number) },
    });
    expect(own.status).toBe(403);
  });
});

describe('a request that is deleted', () => {
  it('is gone from everywhere; its number, who, when and why stay', async () => {
    const number = await sent(WATER);
    const id = idIn(number);
    ok(await sharing(number, { person: desk.idOf('Hanne Istvan') }));
    ok(await ada.call('comment', { ...to(number), body: { text: 'A note of no use.', visibility: 'internal' } }));
    await desk.running.lettersSent();
    const seats = desk.running.house.db.$client
      .prepare('select id from seats where request_id = ?')
      .all(id) as readonly { id: string }[];
    expect(placesOf(id).length).toBeGreaterThan(4);
    const plan = ok(await ada.call('deletionPlan', to(number)));
    expect([plan.lines.length > 4, plan.pointing.count]).toEqual([true, 0]);
    const { version } = ok(await ada.call('sheet', to(number)));
    const remove = (who: Caller, on: number, reason = 'Sent twice by mistake.') =>
      who.call('deleteRequest', { ...to(number), headers: onVersion(on), body: { reason } });
    // Coordinators have not got this right by their package.
    const closed = await remove(maren, version);
    expect([closed.status, closed.body.title]).toEqual([
      403,
      'You do not have this right: Delete the requests of their teams.',
    ]);
    expect((await remove(ada, version + 1)).status).toBe(412);
    expect((await remove(ada, version, ' ')).status).toBe(400);
    const before = ok(await ada.call('trays', {})).trays;
    ok(await remove(ada, version));
    const after = ok(await ada.call('trays', {})).trays;
    const all = (trays: { key: string; count: number }[]) => trays.find(({ key }) => key === 'all')?.count ?? 0;
    expect(all(after)).toBe(all(before) - 1);
    // All there was is kept in one place, to be put back.
    const kept = ['deleted_requests.laid'];
    for (const gone of [...seats.map((seat) => seat.id), 'A note of no use.']) expect(placesOf(gone)).toEqual(kept);
    expect(placesOf(id)).toEqual(['deleted_requests.request_id', ...kept]);
    for (const who of [ada, hanne, priya]) expect((await who.call('sheet', to(number))).status).toBe(404);
    expect((await priya.call('myRequest', to(number))).status).toBe(404);
    const { deleted } = ok(await ada.call('deletedIn', { params: { key: 'site-access' } }));
    const [{ id: line, at, until }] = deleted;
    const said = { number, at, by: 'Ada Quillfeather', reason: 'Sent twice by mistake.' };
    expect(deleted).toEqual([{ id: line, ...said, until, putBack: null }]);
    // For good, nothing of it stays but that.
    ok(await ada.call('deleteForGood', { params: { id: line } }));
    for (const gone of [...seats.map((seat) => seat.id), 'A note of no use.']) expect(placesOf(gone)).toEqual([]);
    expect(placesOf(id)).toEqual(['deleted_requests.request_id']);
    expect(ok(await ada.call('deletedIn', { params: { key: 'site-access' } })).deleted[0]).toMatchObject({
      ...said,
      until: null,
    });
    // Its number is nobody’s any more, for good.
    expect(await sent()).not.toBe(number);
    expect(desk.running.house.db.$client.pragma('foreign_key_check')).toEqual([]);
  });

  it('is not what others point to', async () => {
    const vessel = desk.things().get('RV Merrow') ?? [...desk.things().values()][0] ?? '';
    const row = desk.running.house.db.select().from(requests).where(eq(requests.id, vessel)).get();
    const { $client } = desk.running.house.db;
    const number = await sent();
    $client.prepare('insert into pointers values (?, ?, ?)').run(idIn(number), 'vessel', vessel);
    const thing = row?.number ?? '';
    const plan = ok(await ada.call('deletionPlan', to(thing)));
    expect([plan.pointing.count, plan.pointing.some.map((each: { number: string }) => each.number)]).toEqual([
      1,
      [number],
    ]);
    const body = { reason: 'It is sold.' };
    const refused = await ada.call('deleteRequest', { ...to(thing), headers: onVersion(row?.version ?? 0), body });
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:tolvek:problem:pointed-to']);
    expect(idIn(thing)).toBe(vessel);
  });
});

describe('the history of a request', () => {
  it('is seen by whoever has the right to; notes and messages by all who read it', async () => {
    const number = await sent();
    ok(await ada.call('comment', { ...to(number), body: { text: 'Ask for the key.', visibility: 'internal' } }));
    ok(await ada.call('changeRights', { params: { subject: '*' }, body: { give: [], take: ['history:team'] } }));
    const ilse = await desk.as('Ilse Brandvold');
    const sheet = ok(await ilse.call('sheet', to(number)));
    expect(sheet.history.map(({ comment }: { comment: { text: string } | null }) => comment?.text)).toEqual([
      'Ask for the key.',
    ]);
    expect(sheet.may.history).toBe(false);
    ok(await ada.call('changeRights', { params: { subject: '*' }, body: { give: ['history:team'], take: [] } }));
    expect(ok(await ilse.call('sheet', to(number))).history.length).toBeGreaterThan(1);
  });
});
