import type { HandlerRule } from '@tolvek/core/assignment';
import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let [maren, priya, hanne, tomas, ada]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };
/** Who is in Estates. */
const TEAM = ['Cormac Dewhurst', 'Ilse Brandvold', 'Nuala Fenwick'];

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, hanne, tomas, ada] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Hanne Istvan'),
    await desk.as('Tomas Achterberg'),
    await desk.as('Ada Quillfeather'),
  ];
  const rules: Readonly<Record<string, HandlerRule>> = {
    turn: { ways: [{ by: 'turn' }] },
    load: { ways: [{ by: 'load' }] },
    last: { ways: [{ by: 'last' }, { by: 'turn' }] },
    one: { ways: [{ by: 'person', person: desk.idOf('Nuala Fenwick') }] },
    full: { ways: [{ by: 'load' }], most: 1 },
  };
  const { draft, version } = ok(await (maren as Caller).call('form', of)) as { draft: FormDesign; version: number };
  const outcome = { ...draft.routing.otherwise, team: 'estates', path: null };
  const rows = Object.entries(rules).map(([id, handler]) => ({
    ...{ id: `row-${id}`, note: '', cells: { why: `"${id}"` }, outcome: { ...outcome, handler } },
  }));
  const wet = {
    ...{ id: 'row-wet', note: '', cells: { why: '"wet"' } },
    outcome: { ...outcome, path: 'path', handler: rules.turn as HandlerRule },
  };
  const routing = {
    columns: [{ id: 'why', label: 'Why', input: 'reason' }],
    rows: [...rows, wet],
    otherwise: outcome,
  };
  const saved = ok(
    await (maren as Caller).call('saveDraft', {
      ...{ ...of, headers: onVersion(version), body: { draft: { ...draft, routing } } },
    }),
  );
  release = ok(
    await (maren as Caller).call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  ).number;
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(by: Caller | undefined, reason: string, answers: object = VISIT): Promise<string> {
  visitors += 1;
  const more = { reason, visitor: `Visitor ${'x'.repeat(visitors)}` };
  return ok(await (by as Caller).submit('come-on-site', { ...answers, ...more }, { release })).number;
}
const sheetOf = (number: string): Promise<Answer['body']> => (maren as Caller).sheet(number);
const handlerOf = async (number: string): Promise<string | null> => (await sheetOf(number)).handler?.name ?? null;
const finished = async (number: string): Promise<void> => {
  for (const stage of ['in_hand', 'done']) {
    const { version } = await sheetOf(number);
    ok(await (maren as Caller).call('moveStage', { params: { number }, headers: onVersion(version), body: { stage } }));
  }
};

describe('a request gets its handler by the rule of its row', () => {
  it('by turn: each of the team before anybody again; they alone are written to, and the sheet says why', async () => {
    const numbers = [await sent(priya, 'turn'), await sent(priya, 'turn'), await sent(priya, 'turn')];
    const handlers = await Promise.all(numbers.map(handlerOf));
    expect([...handlers].sort()).toEqual(TEAM);
    expect(await handlerOf(await sent(priya, 'turn'))).toBe(handlers[0]);
    const [number = ''] = numbers;
    const sheet = await sheetOf(number);
    expect(sheet.handlerWhy[0]).toBe('It was their turn in the team.');
    expect(sheet.history.at(-1).what).toBe(`${handlers[0]} is the handler, as it is their turn`);
    const told = (await desk.letters()).filter(({ subject, text }) => `${subject} ${text}`.includes(number));
    expect(
      told.map(({ subject }) => subject).filter((subject) => /^You are now the handler/.test(subject)),
    ).toHaveLength(1);
    expect(told.filter(({ subject }) => /^New request for/.test(subject))).toEqual([]);
  });

  it('whoever has the least to do: over many, nobody gets two more than another', async () => {
    const counts = new Map<string, number>();
    for (let times = 0; times < 7; times += 1) {
      const handler = (await handlerOf(await sent(priya, 'load'))) ?? '';
      counts.set(handler, (counts.get(handler) ?? 0) + 1);
    }
    expect([...counts.keys()].sort()).toEqual(TEAM);
    const open = ok(await (maren as Caller).call('ledger', { query: { tray: 'all' } })).rows;
    const handles = TEAM.map(
      (name) => open.filter(({ handler }: { handler: string | null }) => handler === name).length,
    );
    expect(Math.max(...handles) - Math.min(...handles)).toBeLessThan(2);
  });

  it('whoever had the last of the same person, and else by turn', async () => {
    const first = await handlerOf(await sent(hanne, 'last'));
    expect(TEAM).toContain(first);
    for (let times = 0; times < 2; times += 1) await sent(priya, 'turn');
    const again = await sent(hanne, 'last');
    expect(await handlerOf(again)).toBe(first);
    expect((await sheetOf(again)).handlerWhy).toEqual(['They handled the last request of the same person.']);
  });

  it('after the decision, where there is one; and who was chosen by hand stays', async () => {
    const [wet, byHand] = [await sent(priya, 'wet', WATER), await sent(priya, 'wet', WATER)];
    expect(await handlerOf(wet)).toBe(null);
    const { version } = await sheetOf(byHand);
    const ilse = desk.idOf('Ilse Brandvold');
    ok(
      await (maren as Caller).call('assign', {
        ...{ params: { number: byHand }, headers: onVersion(version), body: { person: ilse } },
      }),
    );
    for (const number of [wet, byHand])
      ok(
        await (tomas as Caller).call('decide', {
          ...{ params: { number }, headers: freshly() },
          body: { verdict: 'approve', comment: '', seen: await (tomas as Caller).seen(number) },
        }),
      );
    expect(TEAM).toContain(await handlerOf(wet));
    const sheet = await sheetOf(byHand);
    expect([sheet.handler.name, sheet.handlerWhy]).toEqual(['Ilse Brandvold', []]);
  });

  it('nobody who is away, asked for it, or has no room: then the leads hear of it, and the team takes it', async () => {
    const nuala = desk.idOf('Nuala Fenwick');
    ok(
      await (ada as Caller).call('addAbsence', {
        ...{ params: { id: nuala }, headers: freshly() },
        body: { from: '2026-11-23', until: '2026-11-27', substitute: null },
      }),
    );
    const one = await sent(priya, 'one');
    const sheet = await sheetOf(one);
    expect([sheet.handler, sheet.handlerWhy]).toEqual([null, []]);
    expect(sheet.history.at(-1).what).toBe('Nobody of Estates could be made the handler. The leads got an email');
    const letters = (await desk.letters()).filter(({ subject }) => subject.includes(one));
    expect(letters.map(({ subject }) => subject)).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^Nobody can take it: /),
        expect.stringMatching(/^New request for/),
      ]),
    );
    // Everybody handles more than one by now.
    expect(await handlerOf(await sent(priya, 'full'))).toBe(null);
    const { rows } = ok(await (maren as Caller).call('ledger', { query: { tray: 'all' } }));
    for (const { number, handler } of rows) if (handler === 'Cormac Dewhurst') await finished(number);
    const free = await sent(priya, 'full');
    expect(await handlerOf(free)).toBe('Cormac Dewhurst');
    expect((await sheetOf(free)).handlerWhy).toEqual(
      expect.arrayContaining(['Not here: Nuala Fenwick', 'No room for more: Ilse Brandvold']),
    );
  });

  it('is found wrong where it names nobody', async () => {
    const { draft, version } = ok(await (maren as Caller).call('form', of));
    const handler = { ways: [{ by: 'field', field: 'visitor' }] };
    const routing = { ...draft.routing, otherwise: { ...draft.routing.otherwise, handler } };
    ok(
      await (maren as Caller).call('saveDraft', {
        ...{ ...of, headers: onVersion(version), body: { draft: { ...draft, routing } } },
      }),
    );
    const { findings } = ok(await (maren as Caller).call('form', of));
    expect(findings.map(({ message }: { message: string }) => message)).toEqual(
      expect.arrayContaining([
        'This row makes whoever a field names the handler, and it is no field for a person. Choose another field.',
        'An answer or an earlier request may name nobody, and then nobody is the handler. Add another way.',
      ]),
    );
  });
});
