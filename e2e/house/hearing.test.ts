import { withStepsOf } from '@tolvek/core/approval';
import type { FormDesign } from '@tolvek/core/form';
import type { Hearing } from '@tolvek/core/notice';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { notices } from '../../server/src/notice/tables.ts';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let [maren, priya, ilse, ada]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };
const HOUR = 3_600_000;
const MORNINGS: Hearing = { ways: { team: 'digest' }, digest: { at: '08:00', days: [1, 2, 3, 4, 5] }, quiet: null };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, ilse, ada] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ilse Brandvold'),
    await desk.as('Ada Quillfeather'),
  ];
  const { draft, version } = ok(await (maren as Caller).call('form', of)) as { draft: FormDesign; version: number };
  const outcome = { ...draft.routing.otherwise, team: 'estates', path: null, workingDays: 10 };
  const rows = [
    { id: 'urgent', note: '', cells: { why: '"urgent"' }, outcome: { ...outcome, priority: 'high' } },
    { id: 'today', note: '', cells: { why: '"today"' }, outcome: { ...outcome, workingDays: 0 } },
    { id: 'decide', note: '', cells: { why: '"decide"' }, outcome: { ...outcome, path: 'path' } },
  ] as const;
  const routing = { columns: [{ id: 'why', label: 'Why', input: 'reason' }], rows, otherwise: outcome };
  const limit = { within: 3 * HOUR, silence: 'tell' } as const;
  const approval = withStepsOf(draft.approval, (step) => ({ ...step, limit }));
  const body = { draft: { ...draft, routing, approval } };
  const saved = ok(await (maren as Caller).call('saveDraft', { ...of, headers: onVersion(version), body }));
  release = ok(
    await (maren as Caller).call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  ).number;
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(reason = 'plain'): Promise<string> {
  visitors += 1;
  const answers = { ...VISIT, arrival: '2027-02-01', departure: '2027-02-02', reason };
  const visitor = `Visitor ${'z'.repeat(visitors)}`;
  return ok(await (priya as Caller).submit('come-on-site', { ...answers, visitor }, { release })).number;
}
const choose = async (hearing: Hearing, by = ilse): Promise<void> =>
  void ok(await (by as Caller).call('setOwnEmails', { body: hearing }));
const lettersTo = async (name: string, words = '') =>
  (await desk.letters()).filter(({ to, subject, text }) => to.includes(name) && `${subject} ${text}`.includes(words));
/** Time passes until a clock at the desk, in winter time, shows a moment: `2026-11-24T08:00`. */
const until = async (moment: string): Promise<void> => {
  const minutes = Math.ceil((Date.parse(`${moment}:00Z`) - desk.running.house.clock.now()) / 60_000);
  if (minutes > 0) ok(await (maren as Caller).call('advanceClock', { body: { minutes } }));
};
const dayAfter = (days: number): string =>
  new Date(desk.running.house.clock.now() + days * 24 * HOUR).toISOString().slice(0, 10);
const statesOf = async (number: string, name: string): Promise<readonly string[]> =>
  ok(await (maren as Caller).call('requestEmails', { params: { number } })).emails.flatMap(
    ({ person, state }: { person: string; state: string }) => (person === name ? [state] : []),
  );

describe('somebody hears of what happens when they chose to', () => {
  it('together in the morning, in one email that leads to each; others at once, and so what is urgent', async () => {
    await until('2026-11-23T11:00');
    await choose(MORNINGS);
    const numbers = [await sent(), await sent(), await sent()];
    for (const number of numbers) {
      expect(await lettersTo('Ilse Brandvold', number)).toEqual([]);
      expect(await lettersTo('Nuala Fenwick', number)).toHaveLength(1);
    }
    const [urgent, today] = [await sent('urgent'), await sent('today')];
    expect(await lettersTo('Ilse Brandvold', urgent)).toHaveLength(1);
    expect(await lettersTo('Ilse Brandvold', today)).toHaveLength(1);
    await until('2026-11-24T07:59');
    expect(await lettersTo('Ilse Brandvold', numbers[0])).toEqual([]);
    await until('2026-11-24T08:00');
    const [digest, ...more] = await lettersTo('Ilse Brandvold', numbers[0]);
    expect([digest?.subject, more]).toEqual([
      expect.stringMatching(/^3 things from your requests: New request for /),
      [],
    ]);
    for (const number of numbers) {
      expect(digest?.text).toContain(number);
      expect(digest?.html).toContain(`/floor/all/${number}"`);
    }
    expect(await statesOf(numbers[1] ?? '', 'Ilse Brandvold')).toEqual(['together']);
    expect(await statesOf(numbers[1] ?? '', 'Nuala Fenwick')).toEqual(['sent']);
  });

  it('at once where the time to decide is over before', async () => {
    const tomas = await desk.as('Tomas Achterberg');
    await choose({ ...MORNINGS, ways: { decide: 'digest' } }, tomas);
    const number = await sent('decide');
    expect(await lettersTo('Tomas Achterberg', number)).toHaveLength(1);
    const { coming } = ok(await (maren as Caller).call('requestEmails', { params: { number } }));
    const [step] = (await (maren as Caller).sheet(number)).approval.steps;
    expect(coming.find(({ about }: { about: string }) => about === step.label)).toEqual({
      ...{ at: step.until, about: step.label, what: 'email to those who have said nothing, and to the leads' },
    });
  });

  it('not at all where they want none and the desk lets them; else as the desk has it', async () => {
    await choose({ ...MORNINGS, ways: { team: 'never', decide: 'never' } });
    const silent = await sent();
    await until(`${dayAfter(1)}T09:00`);
    expect(await lettersTo('Ilse Brandvold', silent)).toEqual([]);
    expect(await statesOf(silent, 'Ilse Brandvold')).toEqual(['unwanted']);
    const { version, desk: settings } = ok(await (ada as Caller).call('deskSettings', {}));
    const { hears } = settings;
    const put = async (team: object, on: number): Promise<number> =>
      ok(
        await (ada as Caller).call('changeDesk', {
          headers: onVersion(on),
          body: { desk: { ...settings, hears: { ...hears, team } }, note: '' },
        }),
      ).version;
    const now = await put({ way: 'at-once', choice: 'when' }, version);
    expect(await lettersTo('Ilse Brandvold', await sent())).toHaveLength(1);
    await put({ way: 'digest', choice: 'none' }, now);
    await choose({ ...MORNINGS, ways: { team: 'at-once' } });
    expect(await lettersTo('Ilse Brandvold', await sent())).toEqual([]);
    const { version: last } = ok(await (ada as Caller).call('deskSettings', {}));
    await put(hears.team, last);
  });

  it('after their quiet hours, in one, over midnight; and nothing of what is settled by then', async () => {
    await choose({ ...MORNINGS, ways: {}, quiet: { from: '19:00', to: '07:00' } });
    const day = dayAfter(1);
    await until(`${day}T20:00`);
    const [one, other, gone] = [await sent(), await sent(), await sent()];
    expect(await lettersTo('Ilse Brandvold', one)).toEqual([]);
    const next = dayAfter(1);
    const before = (await lettersTo('Ilse Brandvold')).length;
    expect(await statesOf(gone, 'Ilse Brandvold')).toEqual(['later']);
    const { version } = await (ada as Caller).sheet(gone);
    ok(
      await (ada as Caller).call('deleteRequest', {
        ...{ params: { number: gone }, headers: onVersion(version), body: { reason: 'Twice' } },
      }),
    );
    await until(`${next}T07:01`);
    const came = (await lettersTo('Ilse Brandvold')).slice(before);
    expect(came).toHaveLength(1);
    expect([came[0]?.text.includes(one), came[0]?.text.includes(other), came[0]?.text.includes(gone)]).toEqual([
      ...[true, true, false],
    ]);
  });

  it('is told before: what will ring, for whom and when; and what was to be told of a request that is gone is kept nowhere', async () => {
    const number = await sent();
    const { coming, emails } = ok(await (maren as Caller).call('requestEmails', { params: { number } }));
    const { deadlines } = await (maren as Caller).sheet(number);
    expect(coming).toEqual(
      deadlines[0].rings.map(({ at, what }: { at: string; what: string }) => ({ at, about: 'To be finished', what })),
    );
    expect(coming.length).toBe(2);
    expect(emails.length).toBeGreaterThan(2);
    const rows = () => desk.running.house.db.select().from(notices).where(eq(notices.kind, 'digest')).all();
    const kept = rows().filter((row) => row.said !== null);
    expect(kept.length).toBeGreaterThan(0);
    const [named = ''] = /AC-\d+/.exec(JSON.stringify(kept[0]?.said)) ?? [];
    const { version } = await (ada as Caller).sheet(named);
    ok(
      await (ada as Caller).call('deleteRequest', {
        ...{ params: { number: named }, headers: onVersion(version), body: { reason: 'Twice' } },
      }),
    );
    expect(rows().filter(({ said: words }) => JSON.stringify(words).includes(named))).toEqual([]);
    expect((await (ilse as Caller).call('requestEmails', { params: { number: named } })).status).toBe(404);
  });

  it('is refused with the field where a time is none', async () => {
    const wrong = await (ilse as Caller).call('setOwnEmails', {
      body: { ...MORNINGS, digest: { at: '25:00', days: [1] } },
    });
    expect([wrong.status, wrong.text.includes('digest.at')]).toEqual([400, true]);
    const own = ok(await (ilse as Caller).call('ownEmails', {}));
    expect(own.hearing.quiet).toEqual({ from: '19:00', to: '07:00' });
  });
});
