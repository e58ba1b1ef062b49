import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';

// What will probably be late: told to whoever works on it, by what is known of how long such requests take.
let desk: Desk;
let maren: Caller;

beforeAll(async () => {
  desk = await Desk.open(160);
  maren = await desk.as('Maren Okafor');
}, 120_000);
afterAll(() => desk.close());

type Told = Answer['body'];
const told = async (who = maren): Promise<Told> => ok(await who.call('forecast'));
const numbersIn = ({ requests }: Told): readonly string[] => requests.map(({ number }: { number: string }) => number);
const lineOf = (forecast: Told, number: string): Told =>
  forecast.requests.find((each: { number: string }) => each.number === number);

/** All that stands in a tray of somebody. */
async function trayOf(who: Caller, tray: 'all' | 'mine' | 'team'): Promise<readonly Told[]> {
  const rows: Told[] = [];
  for (let after = ''; ; ) {
    const page = ok(await who.call('ledger', { query: { tray, ...(after ? { after } : {}) } }));
    rows.push(...page.rows);
    if (page.next === null) return rows;
    after = page.next;
  }
}

describe('the forecast', () => {
  it('counts all that is open and due to be finished, and tells of each as its sheet does', async () => {
    const forecast = await told();
    const rows = await trayOf(maren, 'all');
    const open = rows.filter(({ stage, due }) => stage.phase !== 'finished' && due !== null);
    expect(forecast.open).toBe(open.length);
    expect(forecast.late + forecast.likely + forecast.inTime + forecast.beyond).toBe(forecast.open);
    expect(forecast.from).toBe(rows.filter(({ stage, thing }) => stage.phase === 'finished' && !thing).length);
    const now = Date.parse(forecast.at);
    expect(forecast.requests.length).toBeGreaterThan(3);
    const chances = forecast.requests.map(({ chance }: { chance: number }) => chance);
    expect(chances).toEqual(chances.toSorted((a: number, b: number) => b - a));
    for (const request of forecast.requests) {
      const sheet = await maren.sheet(request.number);
      const deadline = sheet.deadlines.find(({ key, name }: Told) =>
        request.dueFor === null ? key === 'finish' : JSON.stringify(name) === JSON.stringify(request.dueFor),
      );
      expect([request.number, request.due ?? deadline.due]).toEqual([request.number, deadline.due]);
      // What stands still moves on: its moment is not told.
      if (request.due === null) expect(sheet.stage.phase).toBe('paused');
      expect(request.handler).toBe(sheet.handler?.name ?? null);
      const ends = ['early', 'likely', 'late'].map((each) => Date.parse(request.finish[each] ?? '2100-01-01'));
      expect([now, ...ends]).toEqual([now, ...ends].toSorted((a, b) => a - b));
      expect(request.reasons.length).toBeGreaterThan(0);
    }
  });

  it('says of one request what its list says, and of a finished one nothing', async () => {
    const forecast = await told();
    for (const request of forecast.requests.slice(0, 5)) {
      const { number, dueFor, chance, due, finish, reasons } = request;
      const { promised } = ok(await maren.call('requestForecast', { params: { number } }));
      const each = promised.find((one: Told) => JSON.stringify(one.dueFor) === JSON.stringify(dueFor));
      expect(each).toEqual({ dueFor, chance, due, finish, reasons, late: false });
    }
    const done = (await trayOf(maren, 'all')).find(({ stage, thing }) => stage.phase === 'finished' && !thing);
    expect(ok(await maren.call('requestForecast', { params: { number: done.number } })).promised).toEqual([]);
    const priya = await desk.as('Priya Nakamura-Lind');
    const [first] = numbersIn(forecast);
    expect((await priya.call('requestForecast', { params: { number: first ?? '' } })).status).toBe(404);
  });

  it('is of what somebody works on: others hear of nothing, and of no team', async () => {
    const yusuf = await desk.as('Yusuf Marchetti');
    const theirs = new Set((await trayOf(yusuf, 'all')).map(({ number }) => number));
    const forecast = await told(yusuf);
    const whole = await told();
    expect(forecast.open).toBeGreaterThan(0);
    expect(forecast.open).toBeLessThan(whole.open);
    expect(numbersIn(forecast).filter((number) => !theirs.has(number))).toEqual([]);
    // One and the same forecast, whoever looks.
    for (const request of forecast.requests)
      expect(request.chance).toBe(lineOf(whole, request.number)?.chance ?? request.chance);
    const helps = ok(await yusuf.call('forecastHelps')).changes;
    for (const { helped } of helps) for (const { number } of helped) expect(theirs.has(number)).toBe(true);
    const elsewhere = whole.teams.find(
      ({ key }: { key: string }) => !forecast.teams.some((team: { key: string }) => team.key === key),
    );
    const query = { team: elsewhere.key, day: elsewhere.days[0], hours: '2' };
    const refused = await yusuf.call('forecastTried', { query });
    expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'team']);
    expect(ok(await maren.call('forecastTried', { query })).fewer).toBeGreaterThan(-1);
    const priya = await desk.as('Priya Nakamura-Lind');
    expect(await told(priya)).toMatchObject({ open: 0, requests: [], teams: [] });
    expect(ok(await priya.call('forecastHelps')).changes).toEqual([]);
    expect(ok(await priya.call('forecastScore')).forecasts).toBe(0);
  });

  it('refuses a day on which the team does not work, and says which field that is', async () => {
    const [team] = (await told()).teams;
    const query = { team: team.key, day: '2026-11-28', hours: '2' };
    const refused = await maren.call('forecastTried', { query });
    expect(team.days).not.toContain('2026-11-28');
    expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'day']);
    expect((await maren.call('forecastTried', { query: { ...query, hours: '9' } })).status).toBe(400);
  });

  it('says who is away, that others could take over, and is better when they have', async () => {
    const number = ok(await maren.submit('come-on-site', { ...VISIT, reason: 'A long stay' })).number;
    const handler = 'Nuala Fenwick';
    const give = async (to: string): Promise<void> => {
      const { version } = await maren.sheet(number);
      const body = {
        requests: [{ number, version }],
        team: 'estates',
        handler: { person: desk.idOf(to) },
        reason: 'x',
        apply: true,
      };
      expect(ok(await maren.call('rerouteMany', { body })).changed).toBe(1);
    };
    await give(handler);
    const before = lineOf(await told(), number)?.chance ?? 0;
    const away = { from: '2026-11-23', until: '2026-12-20', substitute: null };
    const nuala = await desk.as(handler);
    const { id } = ok(await nuala.call('addOwnAbsence', { headers: freshly(), body: away }));
    const line = lineOf(await told(), number);
    expect(line.chance).toBeGreaterThan(Math.max(0.95, before));
    expect(line.finish.likely).toBeNull();
    expect(line.reasons.join(' ')).toContain(`${handler} is away until`);
    const change = ok(await maren.call('forecastHelps')).changes.find(
      ({ what }: Told) => what === `Others in the team take over what ${handler} has in hand`,
    );
    expect(change.fewer).toBeGreaterThan(0.3);
    const [most] = change.helped.filter((each: Told) => each.number === number);
    expect(most.before).toBe(line.chance);

    const other = ok(await maren.call('forecast')).teams.find(({ key }: Told) => key === 'estates');
    expect(other.here).toBe(other.members - 1);
    await give('Ilse Brandvold');
    const after = lineOf(await told(), number)?.chance ?? 0;
    expect(after).toBeLessThan(line.chance - 0.2);
    // Back again, they do it as before.
    await give(handler);
    ok(await nuala.call('endOwnAbsence', { params: { absence: id } }));
    expect(lineOf(await told(), number)?.chance ?? 0).toBeLessThan(0.95);
    // Away without a last day is not gone for good.
    ok(await nuala.call('addOwnAbsence', { headers: freshly(), body: { ...away, until: null } }));
    expect(lineOf(await told(), number).reasons.join(' ')).toContain(`${handler} is away, without a last day yet.`);
  });

  it('counts the time of those who work by a roster as they are on duty, and only where it says so', async () => {
    const before = await told();
    const chances = ({ requests }: Told, handler: string): number =>
      requests.reduce((sum: number, each: Told) => sum + (each.handler === handler ? each.chance : 0), 0);
    const handlers = before.requests.flatMap(({ handler }: Told) => handler ?? []) as readonly string[];
    const [busy = ''] = [...new Set(handlers)].sort(
      (a, b) => handlers.filter((each) => each === b).length - handlers.filter((each) => each === a).length,
    );
    const ada = await desk.as('Ada Quillfeather');
    // An hour on Mondays is all the time there is for what they have in hand.
    const hour = { id: 'hour', name: '', days: [1], from: '09:00', to: '10:00', since: '2026-11-23' };
    const roster = {
      ...{ name: 'Hardly there', zone: 'Europe/Dublin', calendar: 'desk', needed: 'never', swaps: [] },
      shifts: [{ ...hour, people: [desk.idOf(busy)], passes: { every: 1, of: 'weeks' } }],
    };
    const { key } = ok(await ada.call('createRoster', { headers: freshly(), body: { roster } }));
    const same = await told();
    expect(chances(same, busy)).toBeCloseTo(chances(before, busy), 9);
    const { version } = ok(await ada.call('roster', { params: { key } }));
    const change = {
      params: { key },
      headers: onVersion(version),
      body: { roster: { ...roster, onlyOnDuty: true }, note: '' },
    };
    ok(await ada.call('changeRoster', change));
    const after = await told();
    expect(chances(after, busy)).toBeGreaterThan(chances(before, busy) + 0.2);
    ok(await ada.call('deleteGround', { params: { kind: 'roster', key } }));
  });

  it('is compared with what became of it', async () => {
    const { bands, ...score } = ok(await maren.call('forecastScore'));
    const sum = (of: 'count' | 'late'): number => bands.reduce((all: number, band: Told) => all + band[of], 0);
    expect(score.forecasts).toBeGreaterThan(20);
    expect([sum('count'), sum('late')]).toEqual([score.forecasts, score.late]);
    expect(score.noneLate).toBeCloseTo(score.late / score.forecasts, 9);
    // What was said is never worse than its bands: the mean of each, taken as if all of it had been said.
    const least = bands.reduce(
      (all: number, { count, late }: Told) => all + (count > 0 ? (late * (count - late)) / count : 0),
      0,
    );
    expect(score.score).toBeGreaterThanOrEqual(least / score.forecasts - 0.01);
    expect(score.score).toBeLessThanOrEqual(Math.min(score.noneLate, score.asUsual) + 1e-9);
  });
});
