import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

// A12, D2: who asked can’t be otherwise; on whose behalf can be said, and it is theirs as well.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let edda: Caller;
let number = '';
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const ask = (onBehalf: string, answers: object = VISIT) =>
  priya.call('submit', {
    params: { slug: 'come-on-site' },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    body: { release: 1, answers, onBehalf },
  });

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, edda] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Edda Kilbride'),
  ];
  number = ok(
    await ask(desk.idOf('Edda Kilbride'), { ...VISIT, works_on_water: true, survival_until: '2027-05-01' }),
  ).number;
});
afterAll(() => desk.close());

const fields = (view: { values: { fields: { key: string }[] } }): string[] => view.values.fields.map(({ key }) => key);

test('it stands among the own requests of both, and each is told who the other is', async () => {
  const own = async (caller: Caller) =>
    ok(await caller.call('frontDesk')).mine.filter((each: { number: string }) => each.number === number).length;
  expect([await own(priya), await own(edda), await own(await desk.as('Bram Solheim'))]).toEqual([1, 1, 0]);
  const [asked, theirs] = [
    ok(await priya.call('myRequest', { params: { number } })),
    ok(await edda.call('myRequest', { params: { number } })),
  ];
  expect([asked.askedBy, asked.onBehalf]).toEqual([null, 'Edda Kilbride']);
  expect([theirs.askedBy, theirs.onBehalf]).toEqual(['Priya Nakamura-Lind', null]);
  expect(fields(theirs)).toEqual(fields(asked));
  expect(fields(theirs)).toContain('visitor');
  const sheet = ok(await maren.call('sheet', { params: { number } }));
  expect([sheet.requester.name, sheet.onBehalf]).toEqual(['Priya Nakamura-Lind', 'Edda Kilbride']);
  ok(await edda.call('myMessage', { params: { number }, body: { text: 'It is for me.' } }));
});

test('nobody decides on what is asked on their behalf', async () => {
  const trays = ok(await edda.call('ledger', { query: { tray: 'deciding' } }));
  expect(trays.rows.map((row: { number: string }) => row.number)).not.toContain(number);
  const decided = await edda.call('decide', {
    params: { number },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    body: { verdict: 'approve', comment: '', seen: 'x' },
  });
  expect(decided.status).not.toBe(200);
  expect(decided.text).toContain('notYourOwn');
});

test('rules speak of whom it is asked for, and of who typed it in', async () => {
  const { access } = desk.register('site-access');
  const rule = (id: string, word: string, field: string) => ({
    ...{ id, name: id, fields: [field], level: 'hidden' as const },
    audience: { in: { anyOf: [word] }, outOf: [] },
  });
  desk.protect('site-access', {
    ...access,
    rules: [...access.rules, rule('for', '~behalf', 'reason'), rule('typed', '~entered', 'institute')],
  });
  const [asked, theirs] = [
    ok(await priya.call('myRequest', { params: { number } })),
    ok(await edda.call('myRequest', { params: { number } })),
  ];
  expect([fields(asked).includes('reason'), fields(theirs).includes('reason')]).toEqual([true, false]);
  // What is taken in as a row is typed in by who takes it in.
  const rows = [
    {
      cells: { ...VISIT, works_on_water: 'no', institute: 'Corrin Institute' },
      requester: 'priya.nakamura.lind@skerrow.example',
    },
  ];
  const taken = ok(
    await maren.call('takeInRows', {
      params: { key: 'site-access' },
      headers: { 'Idempotency-Key': crypto.randomUUID() },
      body: { rows, apply: true },
    }),
  );
  const typed = taken.rows[0]?.number;
  expect(JSON.stringify(taken)).toContain('AC-');
  const [own, other] = [
    ok(await maren.call('sheet', { params: { number: typed } })),
    ok(await maren.call('sheet', { params: { number } })),
  ];
  expect([fields(own).includes('institute'), fields(other).includes('institute')]).toEqual([false, true]);
  desk.protect('site-access', access);
});

test('it is asked for one of the staff who is here, and for nobody else', async () => {
  const wrong = await ask('nobody');
  expect([wrong.status, wrong.body.problems[0].field]).toEqual([422, 'onBehalf']);
  // For oneself, it is asked for nobody else.
  const { number: own } = ok(await ask(desk.idOf('Priya Nakamura-Lind')));
  expect(ok(await maren.call('sheet', { params: { number: own } })).onBehalf).toBe(null);
});
