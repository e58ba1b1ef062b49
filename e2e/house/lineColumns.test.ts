import { RECIPES } from '@tolvek/core/form';
import type { ItemRow, RawRow } from '@tolvek/core/register';
import { english } from '@tolvek/words/english';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk } from './desk.ts';

// D25: the levels of single columns, for whoever works on a request and for whoever asked it.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let bram: Caller;
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const EVERYONE = { everyone: true as const };
/** Boats change quantities, read what is ordered, and never see prices; nor does whoever asked see what was found out. */
const RULES = [
  {
    ...{ id: 'prices', name: 'Prices stay with desk leads', fields: ['things.price'], level: 'hidden' as const },
    audience: { in: EVERYONE, outOf: ['desk-leads'], requester: 'out' as const },
  },
  {
    ...{ id: 'ordered', name: 'What is ordered stays', fields: ['things.what'], level: 'read' as const },
    audience: { in: { anyOf: ['boats'] }, outOf: [] },
  },
  {
    ...{ id: 'source', name: 'Where it comes from is ours', fields: ['things.source'], level: 'hidden' as const },
    audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
  },
];
const SENT = [
  { what: 'Rope', qty: '2', price: '7.50', source: 'Chandler' },
  { what: 'Hook', qty: '1', price: '3.00', source: '' },
];
let number = '';

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, bram] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Bram Solheim'),
  ];
  const simple = RECIPES.find((each) => each.key === 'simple')?.make({
    ...{ told: english, title: 'Orders', team: 'boats', approvers: 'duty-managers', calendar: 'desk' },
  });
  if (!simple) throw new Error('no recipe');
  const text = { kind: 'text' } as const;
  const money = { kind: 'money', currency: 'EUR' } as const;
  const things = {
    kind: 'line-items' as const,
    columns: [
      { key: 'what', label: 'Thing', type: text, required: true },
      { key: 'qty', label: 'Quantity', type: { kind: 'number' as const, places: 0 }, required: true },
      { key: 'price', label: 'Price', type: money, required: false },
      { key: 'source', label: 'Source', type: text, required: false },
      { key: 'costs', label: 'Costs', type: money, required: false, formula: 'qty * price' },
    ],
  };
  const draft = {
    ...simple,
    fields: [
      { key: 'things', label: 'Things', type: things, source: 'asked' as const },
      {
        key: 'pieces',
        label: 'Pieces',
        type: { kind: 'number' as const, places: 0 },
        source: 'computed' as const,
        formula: 'sum(things.qty)',
      },
      { key: 'sum', label: 'Sum', type: money, source: 'computed' as const, formula: 'sum(things.costs)' },
    ],
    parts: [{ part: 'question' as const, field: 'things', asks: '', help: '', required: false }],
    subject: 'Order',
  };
  const made = { prefix: 'OR', desk: 'boats', doors: { staff: true, outside: false }, draft, access: { rules: RULES } };
  const { key } = ok(
    await maren.call('createForm', { headers: { 'Idempotency-Key': crypto.randomUUID() }, body: made }),
  );
  const { version, doors } = ok(await maren.call('form', { params: { key } }));
  ok(await maren.call('releaseForm', { params: { key }, headers: { 'If-Match': `"${version}"` }, body: { note: '' } }));
  number = ok(await priya.submit(doors[0].slug, { things: SENT })).number;
});
afterAll(() => desk.close());

interface Seen {
  readonly value: readonly ItemRow[];
  readonly shown: unknown;
  readonly lines?: { columns: { key: string; writable: boolean; why?: string }[]; mayAdd: boolean; mayRemove: boolean };
}
const sheet = async (caller: Caller) => ok(await caller.call('sheet', { params: { number } }));
const seen = (view: { values: { fields: ({ key: string } & Seen)[] } }, key = 'things'): Seen | undefined =>
  view.values.fields.find((each) => each.key === key);
const change = (caller: Caller, version: number, things: readonly RawRow[]) =>
  caller.call('changeFields', {
    params: { number },
    headers: { 'If-Match': `"${version}"` },
    body: { changes: { things } },
  });
const says = ({ body }: Answer): string => JSON.stringify(body.problems);

test('of lines each is given the columns that are theirs, and what is made of others is not', async () => {
  const view = await sheet(bram);
  const lines = seen(view);
  expect(lines?.value).toEqual([
    { what: 'Rope', qty: 2, source: 'Chandler' },
    { what: 'Hook', qty: 1 },
  ]);
  expect(lines?.lines).toEqual({
    columns: [
      { key: 'what', writable: false, why: 'What is ordered stays' },
      { key: 'qty', writable: true },
      { key: 'source', writable: true },
    ],
    ...{ mayAdd: false, mayRemove: false },
  });
  expect(view.fieldTypes.things.columns.map(({ key }: { key: string }) => key)).toEqual(['what', 'qty', 'source']);
  expect(view.values.withheld.map(({ label }: { label: string }) => label)).toEqual([
    'Things · Price',
    'Things · Costs',
    'Sum',
  ]);
  expect([seen(view, 'pieces')?.value, seen(view, 'sum')]).toEqual([3, undefined]);
  const own = ok(await priya.call('myRequest', { params: { number } }));
  expect(seen(own)?.value[0]).toEqual({
    what: 'Rope',
    qty: 2,
    price: { minor: 750, currency: 'EUR' },
    costs: { minor: 1500, currency: 'EUR' },
  });
  expect(own.values.withheld).toEqual([]);
});

test('lines are changed in the columns that are theirs: the rest stays, and is refused by name or in the words for what is not there', async () => {
  const view = await sheet(bram);
  const [rope, hook] = (seen(view)?.value ?? []).map((row) => ({ what: `${row.what}` })) as RawRow[];
  const changed = await change(bram, view.version, [
    { ...rope, '#': '1-0', qty: '4', source: 'Chandler' },
    { ...hook, '#': '1-1', qty: '1', source: 'Loft' },
  ]);
  const { version } = ok(changed);
  // A desk lead reads all there is.
  expect(seen(await sheet(maren))?.value).toEqual([
    {
      what: 'Rope',
      qty: 4,
      price: { minor: 750, currency: 'EUR' },
      source: 'Chandler',
      costs: { minor: 3000, currency: 'EUR' },
    },
    {
      what: 'Hook',
      qty: 1,
      price: { minor: 300, currency: 'EUR' },
      source: 'Loft',
      costs: { minor: 300, currency: 'EUR' },
    },
  ]);
  const keeps = { ...rope, '#': '1-0', qty: '4', source: 'Chandler' };
  const stays = { ...hook, '#': '1-1', qty: '1', source: 'Loft' };
  const refusals = [
    await change(bram, version, [keeps]),
    await change(bram, version, [keeps, stays, { what: 'Net', qty: '1' }]),
    await change(bram, version, [{ ...keeps, what: 'Cable' }, stays]),
    await change(bram, version, [{ ...keeps, price: '1.00' }, stays]),
    await change(bram, version, [{ ...keeps, ghost: '1.00' }, stays]),
  ];
  expect(refusals.map(({ status }) => status)).toEqual([422, 422, 422, 422, 422]);
  expect(says(refusals[2] as Answer)).toContain('Thing');
  // What is hidden is refused as what is not there.
  expect(says(refusals[3] as Answer).replaceAll('price', '…')).toBe(
    says(refusals[4] as Answer).replaceAll('ghost', '…'),
  );
  expect((await sheet(maren)).version).toBe(version);
  // Only the change of what can be read stands in the history of each.
  const told = (caller: Caller) => sheet(caller).then(({ history }) => JSON.stringify(history));
  expect(await told(bram)).toContain('Loft');
  expect((await told(bram)).includes('30.00')).toBe(false);
});

test('what becomes otherwise only in hidden columns is not told of', async () => {
  const before = await sheet(maren);
  const rows = (seen(before)?.value ?? []).map((row, place) => ({
    ...{ '#': `1-${place}`, what: `${row.what}`, qty: `${row.qty}`, source: `${row.source ?? ''}`, price: '9.99' },
  }));
  const entries = (view: { history: readonly unknown[] }): number => view.history.length;
  const had = entries(await sheet(bram));
  ok(await change(maren, before.version, rows));
  expect(entries(await sheet(maren))).toBe(entries(before) + 1);
  expect(entries(await sheet(bram))).toBe(had);
});
