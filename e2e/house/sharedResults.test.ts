import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

// D16, D17: exactly these fields of these requests, for these people or by a link, until a day.
let desk: Desk;
let maren: Caller;
let tomas: Caller;
let oskar: Caller;
let stranger: Caller;
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const EVERYONE = { in: { everyone: true as const }, outOf: [] };
const SHARED = {
  ...{ name: 'Who comes', register: 'site-access', facts: ['number', 'stage'], fields: ['visitor', 'reason'] },
  ...{ when: 'works_on_water = true', audience: EVERYONE, until: '2026-12-24', takesOut: true },
};
type Shared = Omit<typeof SHARED, 'audience'> & { audience: object | null };
const share = (caller: Caller, more: Partial<Shared> = {}) =>
  caller.call('shareResult', { headers: key(), body: { ...SHARED, ...more } });
const asLink = async (): Promise<string> => {
  const { id } = ok(await share(maren, { audience: null, name: 'By link' }));
  const found = ok(await maren.call('sharedResults')).mine.find((each: { id: string }) => each.id === id);
  return found.path.replace('/shared/link/', '');
};
const NUMBERS: string[] = [];

beforeAll(async () => {
  desk = await Desk.open();
  [maren, tomas, oskar, stranger] = [
    await desk.as('Maren Okafor'),
    await desk.as('Tomas Achterberg'),
    await desk.as('Oskar Veldhuis'),
    await desk.as(),
  ];
  for (const [index, sent] of [VISIT, WATER, VISIT, WATER].entries()) {
    const priya = await desk.as('Priya Nakamura-Lind');
    const note = index > 1 ? { medical_note: 'zq-note-1' } : {};
    NUMBERS.push(ok(await priya.submit('come-on-site', { ...sent, ...note, visitor: `Visitor ${index}` })).number);
  }
});
afterAll(() => desk.close());

interface Page {
  readonly rows: readonly { readonly facts: readonly unknown[]; readonly cells: readonly unknown[] }[];
  readonly columns: readonly { readonly key: string }[];
  readonly total: number;
}
const page = async (caller: Caller, id: string): Promise<Page> =>
  ok(await caller.call('sharedResult', { params: { id } }));

test('it holds exactly its fields of its requests; what joins the form later is not among them', async () => {
  const { id } = ok(await share(maren));
  const seen = await page(tomas, id);
  expect(seen.columns.map((column) => column.key)).toEqual(['visitor', 'reason']);
  expect(seen.rows.map(({ facts, cells }) => [facts[0], ...cells])).toEqual([
    [NUMBERS[3], 'Visitor 3', WATER.reason],
    [NUMBERS[1], 'Visitor 1', WATER.reason],
  ]);
  expect(seen.total).toBe(2);
  // Another question, released, changes nothing of it.
  const params = { key: 'site-access' };
  const { draft, version } = ok(await maren.call('form', { params }));
  const field = { key: 'badge_colour', label: 'Badge', type: { kind: 'text' }, source: 'asked' };
  const part = { part: 'question', field: 'badge_colour', asks: '', help: '', required: false };
  const body = { draft: { ...draft, fields: [...draft.fields, field], parts: [...draft.parts, part] } };
  const saved = ok(await maren.call('saveDraft', { params, headers: { 'If-Match': `"${version}"` }, body }));
  ok(await maren.call('placeFields', { params, body: { fields: ['badge_colour'] } }));
  const headers = { 'If-Match': `"${saved.version}"` };
  ok(await maren.call('releaseForm', { params, headers, body: { note: '' } }));
  expect((await page(tomas, id)).columns).toHaveLength(2);
  const taken = async (as: string) => {
    const response = await fetch(`${desk.running.url}/api/shared-results/${as}/rows.csv`, {
      headers: { cookie: tomas.cookie },
    });
    return { status: response.status, text: await response.text() };
  };
  const file = await taken(id);
  expect(file.text.split('\r\n').filter(Boolean)).toHaveLength(3);
  expect(file.text).toContain('Visitor 3');
  const kept = ok(await share(maren, { takesOut: false }));
  expect((await taken(kept.id)).status).toBe(404);
});

test('nothing is shared that who shares it may not read, and nothing is asked that is hidden from anybody', async () => {
  const hidden = await share(maren, { fields: ['visitor', 'medical_note'] });
  const ghost = await share(maren, { fields: ['visitor', 'no_such_field'] });
  expect([hidden.status, ghost.status]).toEqual([422, 422]);
  expect(JSON.stringify(hidden.body.problems)).toBe(JSON.stringify(ghost.body.problems));
  const asks = await share(maren, { when: 'medical_note != null' });
  expect([asks.status, asks.body.problems[0].field]).toEqual([422, 'when']);
  const wrongs: readonly [string, Partial<Shared>][] = [
    ['name', { name: ' ' }],
    ['until', { until: '2026-01-01' }],
    ['audience', { audience: { in: { anyOf: [] }, outOf: [] } }],
    ['fields', { fields: [], facts: [] }],
    ['when', { when: 'visitor = = 1' }],
  ];
  for (const [field, wrong] of wrongs)
    expect((await share(maren, wrong)).body.problems.map((each: { field: string }) => each.field)).toEqual([field]);
  // Whoever may share nothing is told which right is missing.
  expect((await share(tomas)).status).toBe(403);
});

test('it is for those who are named, and ends for everybody on its day, by hand, and with the right to share', async () => {
  const { id } = ok(await share(maren, { audience: { in: { anyOf: ['site-safety'] }, outOf: [] } }));
  const [named, other] = [
    await oskar.call('sharedResult', { params: { id } }),
    await tomas.call('sharedResult', { params: { id } }),
  ];
  const none = await tomas.call('sharedResult', { params: { id: 'none' } });
  expect([named.status, other.status, none.status]).toEqual([200, 404, 404]);
  expect(other.text.replaceAll(id, '')).toBe(none.text.replaceAll('none', ''));
  expect(ok(await oskar.call('sharedResults')).forMe.map((each: { id: string }) => each.id)).toContain(id);
  const { register: _, ...shared } = SHARED;
  expect((await tomas.call('changeShared', { params: { id }, body: shared })).status).toBe(404);
  const link = await asLink();
  expect(ok(await stranger.call('sharedByLink', { params: { token: link } })).rows).toHaveLength(2);
  const status = async () => [
    (await oskar.call('sharedResult', { params: { id } })).status,
    (await stranger.call('sharedByLink', { params: { token: link } })).status,
  ];
  // Whoever shared it can’t share any more: it is shown to nobody.
  const ada = await desk.as('Ada Quillfeather');
  const change = (give: readonly string[], take: readonly string[]) =>
    ada.call('changeRights', { params: { subject: `@${desk.idOf('Maren Okafor')}` }, body: { give, take } });
  const had = ['share:all'];
  ok(await change([], had));
  expect(await status()).toEqual([410, 410]);
  ok(await change(had, []));
  expect(await status()).toEqual([200, 200]);
  const body = { ...shared, audience: { in: { anyOf: ['site-safety'] }, outOf: [] }, until: '2026-11-23' };
  ok(await maren.call('changeShared', { params: { id }, body }));
  ok(await stranger.call('advanceClock', { body: { minutes: 24 * 60 } }));
  expect(await status()).toEqual([410, 200]);
  ok(await stranger.call('advanceClock', { body: { minutes: 40 * 24 * 60 } }));
  expect(await status()).toEqual([410, 410]);
  // To whom it was never for, it still does not exist.
  expect((await tomas.call('sharedResult', { params: { id } })).status).toBe(404);
  const again = ok(await share(maren, { until: '2027-03-01' }));
  ok(await maren.call('endShared', { params: { id: again.id } }));
  expect((await oskar.call('sharedResult', { params: { id: again.id } })).status).toBe(410);
});

test('for any plan, cells are what both who shares and who reads may read, and rows are those of who shares', async () => {
  const keys = ['visitor', 'reason', 'institute', 'arrival', 'works_on_water'];
  const { access } = desk.register('site-access');
  const [oskarId, tomasId] = [desk.idOf('Oskar Veldhuis'), desk.idOf('Tomas Achterberg')];
  const { id } = ok(await share(maren, { fields: keys, when: '', facts: ['number'], until: '2027-03-01' }));
  const link = ok(await maren.call('sharedResults')).mine.length > 0 ? await byLink() : '';
  const counts = { shown: 0, hidden: 0, byLink: 0, closedToSharer: 0 };
  async function byLink(): Promise<string> {
    const made = ok(
      await share(maren, { fields: keys, when: '', facts: ['number'], audience: null, until: '2027-03-01' }),
    );
    const found = ok(await maren.call('sharedResults')).mine.find((each: { id: string }) => each.id === made.id);
    return found.path.replace('/shared/link/', '');
  }
  const words = ['desk-leads', 'site-safety', `@${oskarId}`, `@${tomasId}`, '~contact'];
  const anyRule = fc.record({
    fields: fc.subarray(keys, { minLength: 1 }),
    in: fc.oneof(
      fc.constant({ everyone: true as const }),
      fc.subarray(words, { minLength: 1 }).map((anyOf) => ({ anyOf })),
    ),
    outOf: fc.subarray(words, { maxLength: 1 }),
    activities: fc.option(fc.constantFrom(['browsing'], ['taking-out'])),
  });
  const isIn = (who: readonly string[], rule: { in: object; outOf: readonly string[] }): boolean =>
    !rule.outOf.some((word) => who.includes(word)) &&
    ('everyone' in rule.in || (rule.in as { anyOf: string[] }).anyOf.some((word) => who.includes(word)));
  const marens = ['desk-leads', `@${desk.idOf('Maren Okafor')}`];
  const readers = [
    { who: ['site-safety', `@${oskarId}`], read: () => page(oskar, id) },
    { who: [`@${tomasId}`, 'duty-managers'], read: () => page(tomas, id) },
    {
      who: ['~contact'],
      read: async () => ok(await stranger.call('sharedByLink', { params: { token: link } })) as Page,
    },
  ];
  await fc.assert(
    fc.asyncProperty(fc.array(anyRule, { minLength: 1, maxLength: 2 }), async (made) => {
      const rules = made.map(({ activities, ...rule }, index) => ({
        ...{ id: `r${index}`, name: `R${index}`, fields: rule.fields, audience: { in: rule.in, outOf: rule.outOf } },
        level: activities ? ('write' as const) : ('hidden' as const),
        ...(activities
          ? { exceptions: [{ id: 'e', level: 'hidden' as const, activities: activities as ['browsing'] }] }
          : {}),
      }));
      desk.protect('site-access', { ...access, rules });
      const hides = (who: readonly string[], field: string): boolean =>
        made.some(
          (rule) =>
            rule.fields.includes(field) && isIn(who, rule) && (!rule.activities || rule.activities[0] === 'browsing'),
        );
      for (const { who, read } of readers) {
        const { rows } = await read();
        expect(rows.map(({ facts }) => facts[0]).toSorted()).toEqual([...NUMBERS].toSorted());
        for (const { cells } of rows)
          for (const [place, field] of keys.entries()) {
            const [byThem, byHer] = [hides(who, field), hides(marens, field)];
            expect([field, cells[place] === '']).toEqual([field, byThem || byHer]);
            counts[byThem || byHer ? 'hidden' : 'shown'] += 1;
            if (who[0] === '~contact' && byThem) counts.byLink += 1;
            if (byHer && !byThem) counts.closedToSharer += 1;
          }
      }
    }),
    { numRuns: often(40) },
  );
  desk.protect('site-access', access);
  console.log('cells of shared results:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(20);
});

test('before it is shared, it is said how many it is for, who can’t open it, and what is hidden from some', async () => {
  const { register, ...shared } = SHARED;
  const look = async (more: Partial<Shared>) =>
    ok(await maren.call('lookAtShared', { body: { register, ...shared, until: '2027-03-01', ...more } }));
  const all = await look({});
  expect(all.people).toBeGreaterThan(30);
  expect([all.total, all.rows.length, all.hiddenFromSome]).toEqual([2, 2, []]);
  const { access } = desk.register('site-access');
  const rule = {
    ...{ id: 'r', name: 'Reasons stay', fields: ['reason'], level: 'hidden' as const },
    audience: { in: { anyOf: ['site-safety'] }, outOf: [] },
  };
  desk.protect('site-access', { ...access, rules: [...access.rules, rule] });
  const some = await look({});
  expect(some.hiddenFromSome).toEqual(['Reason']);
  expect(some.rows.map(({ cells }: { cells: unknown[] }) => cells[1])).toEqual(['', '']);
  desk.protect('site-access', access);
});
