import type { FormDesign } from '@tolvek/core/form';
import type { RoutingOutcome, RoutingTable } from '@tolvek/core/routing';
import { english } from '@tolvek/words/english';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let [maren, priya, tomas]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };

const released = async (routing: (before: RoutingTable) => RoutingTable): Promise<Answer> => {
  const { draft, version } = ok(await (maren as Caller).call('form', of)) as { draft: FormDesign; version: number };
  const saved = ok(
    await (maren as Caller).call('saveDraft', {
      ...{ ...of, headers: onVersion(version), body: { draft: { ...draft, routing: routing(draft.routing) } } },
    }),
  );
  return (maren as Caller).call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } });
};

/** A table in which each thing is said for itself, partly by formulas. */
const table = ({ otherwise }: RoutingTable): RoutingTable => {
  const { formulas: _, ...plain } = otherwise;
  const last: RoutingOutcome = { ...plain, team: 'estates', path: null, priority: 'normal', workingDays: 4 };
  const row = (id: string, cells: Readonly<Record<string, string>>, outcome: Partial<RoutingOutcome>) => ({
    ...{ id, note: `By ${id}`, cells, outcome: { ...last, ...outcome } },
  });
  return {
    hits: 'each',
    wishes: { priority: 'reason', due: 'departure' },
    columns: [
      { id: 'why', label: 'Why', input: 'reason' },
      { id: 'water', label: 'On the water', input: 'works_on_water' },
      { id: 'from', label: 'From', input: 'institute' },
    ],
    rows: [
      // Who may read it follows whatever happens on the water, whoever takes it: Boats may not.
      {
        ...row('wet', { water: 'true' }, { followers: [{ group: 'boats' }, { group: 'desk-leads' }] }),
        leaves: ['team', 'priority', 'workingDays', 'path', 'handler', 'stage'],
      },
      {
        ...row(
          'urgent',
          { from: '"haldane"' },
          { formulas: { priority: 'if fee > 100 then "high" else if fee > 10 then "low" else null' } },
        ),
        leaves: ['team', 'workingDays', 'path', 'handler', 'stage'],
      },
      {
        ...row('papers', { why: '"papers", "asked"' }, { stage: 'papers', workingDays: 9 }),
        leaves: ['team', 'priority', 'path', 'handler'],
      },
      {
        ...row('asked', { why: '"asked"' }, { path: 'path' }),
        leaves: ['team', 'priority', 'handler', 'stage', 'workingDays'],
      },
    ],
    otherwise: last,
  };
};

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, tomas] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Tomas Achterberg'),
  ];
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(answers: object): Promise<string> {
  visitors += 1;
  const more = { visitor: `Visitor ${'y'.repeat(visitors)}` };
  return ok(await (priya as Caller).submit('come-on-site', { ...VISIT, ...answers, ...more }, { release })).number;
}
const sheetOf = (number: string): Promise<Answer['body']> => (maren as Caller).sheet(number);

describe('a table in which each thing is said for itself, and partly computed', () => {
  it('is refused with what is wrong in it: results that are not written out, or are not there', async () => {
    const bad = await released((before) => ({
      ...table(before),
      otherwise: {
        ...before.otherwise,
        formulas: { team: 'reason', priority: 'if fee > 1 then "urgent" else "low"', workingDays: 'reason' },
      },
    }));
    expect(bad.status).toBe(422);
    const { findings } = ok(await (maren as Caller).call('form', of)) as Answer['body'];
    const told = (findings as readonly { at: string; message: string }[])
      .filter(({ at }) => at === 'otherwise')
      .map(({ message }) => message);
    expect(told).toEqual(
      expect.arrayContaining([
        expect.stringContaining('its results must be written out'),
        expect.stringContaining('“urgent” does not exist'),
        expect.stringContaining('must give a number'),
      ]),
    );
  });

  it('says each thing by the first row that says it: the stage, the days and the priority, and why', async () => {
    ok(
      await released(table).then((answer) => {
        release = answer.body.number;
        return answer;
      }),
    );
    const number = await sent({ ...WATER, reason: 'papers', institute: 'haldane', fee: '250' });
    const sheet = await sheetOf(number);
    expect([sheet.stage.key, sheet.team, sheet.priority]).toEqual(['papers', 'Estates', 'high']);
    // Its deadline stands still from the start, as it waits for papers.
    expect(sheet.deadlines.map(({ fuse }: { fuse: { state: string } }) => fuse.state)).toEqual(['paused']);
    expect(sheet.hops.find(({ is }: { is: string }) => is === 'routed').detail).toBe(
      'Rows 2, 3 and 5 of the routing table',
    );
    const rows = sheet.routing.rows as readonly {
      row: number;
      won: boolean;
      says?: readonly string[];
      cells: readonly { words: string }[];
    }[];
    expect(rows.map(({ row, won, says = [] }) => [row, won, says])).toEqual([
      [1, true, []],
      [2, true, ['priority']],
      [3, true, ['workingDays', 'stage']],
      [4, false, []],
      [5, true, ['team', 'path', 'handler']],
    ]);
    // That nobody of Boats will hear of it is found before.
    const { findings } = ok(await (maren as Caller).call('form', of)) as Answer['body'];
    expect(findings.map(({ at, message }: { at: string; message: string }) => [at, message])).toContainEqual([
      'wet',
      'Nobody of “Boats” can read these requests, so they would hear of none. Name them as readers in the access plan, or remove them.',
    ]);
    expect(rows[1]?.cells.at(-1)?.words).toBe('Priority is computed from Fee: 250 EUR.');
    const finish = sheet.deadlines.find(({ key }: { key: string }) => key === 'finish');
    expect(finish.why.join(' ')).toContain('Row 3');
  });

  it('keeps what was wished for beside what the desk sets, for who may read the answer', async () => {
    const { wishes } = await sheetOf(await sent({ reason: 'papers', fee: '250' }));
    expect([english(wishes.priority), english(wishes.due)]).toEqual(['papers', expect.stringContaining('1 Dec')]);
  });

  it('takes what stands beside a formula that says nothing', async () => {
    for (const [fee, priority] of [
      ['50', 'low'],
      ['5', 'normal'],
      [undefined, 'normal'],
    ] as const) {
      const sheet = await sheetOf(await sent({ reason: 'x', institute: 'haldane', ...(fee ? { fee } : {}) }));
      expect([fee, sheet.priority]).toEqual([fee, priority]);
    }
  });

  it('comes to the stage of its row once it is decided, and waits there for papers', async () => {
    const number = await sent({ reason: 'asked' });
    expect((await sheetOf(number)).stage.key).toBe('deciding');
    const { approval } = ok(await (tomas as Caller).call('sheet', { params: { number } }));
    const body = { verdict: 'approve', comment: '', seen: approval.seen } as const;
    ok(await (tomas as Caller).call('decide', { params: { number }, headers: freshly(), body }));
    const after = await sheetOf(number);
    expect([after.stage.key, after.approval.state]).toEqual(['papers', 'approved']);
  });

  it('has those follow who are named by any row that holds and may read it, and tells them once', async () => {
    const number = await sent({ ...WATER, reason: 'x' });
    const { followers, history } = await sheetOf(number);
    expect(followers).toEqual({ others: [], mine: true });
    expect(history.map(({ what }: { what: string }) => what)).toContain(
      'By the routing table, this request is followed by Maren Okafor',
    );
    const told = (await desk.letters()).filter(({ subject, text }) => `${subject} ${text}`.includes(number));
    expect(told.filter(({ to, subject }) => to.includes('Maren') && subject.startsWith('News: '))).toHaveLength(1);
    expect(told.some(({ to }) => to.includes('Bram'))).toBe(false);
    const dry = await sent({ reason: 'x' });
    expect((await sheetOf(dry)).followers).toEqual({ others: [], mine: false });
  });
});
