import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let stranger: Caller;
const CONTACT = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const GRACE = 'now < request.arrived + duration("PT30M")';

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, stranger] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind'), await desk.as()];
  const { access } = desk.register('site-access');
  desk.protect('site-access', {
    ...access,
    rules: [
      ...access.rules,
      {
        ...{ id: 'once', name: 'Reasons are set once', fields: ['reason', 'arrival'], level: 'read' },
        audience: { in: { everyone: true }, outOf: [] },
        exceptions: [{ id: 'grace', level: 'write', when: GRACE }],
      },
    ],
  });
});
afterAll(() => desk.close());

const writable = (view: { values: { fields: { key: string; writable: boolean }[] } }): readonly string[] =>
  view.values.fields.flatMap(({ key, writable: is }) => (is ? [key] : []));
const later = async (minutes: number): Promise<void> =>
  void ok(await stranger.call('advanceClock', { body: { minutes } }));

/** One’s own request, at the desk’s door and by a link: how it is read, and how it is changed. */
const WAYS = [
  {
    way: 'a colleague',
    ask: async () => {
      const { number } = ok(await priya.submit('come-on-site', VISIT));
      const params = { number };
      return {
        number,
        view: () => priya.call('myRequest', { params }),
        change: (version: number, changes: object) =>
          priya.call('changeMine', { params, headers: { 'If-Match': `"${version}"` }, body: { changes } }),
      };
    },
  },
  {
    way: 'somebody from outside',
    ask: async () => {
      ok(await stranger.submit('visit', VISIT, { contact: CONTACT }));
      const { number } = ok(
        await stranger.call('confirm', { params: { token: await desk.tokenFor(CONTACT.email, 'confirm') } }),
      );
      const params = { token: await desk.tokenFor(CONTACT.email, 'follow') };
      return {
        number,
        view: () => stranger.call('follow', { params }),
        change: (version: number, changes: object) =>
          stranger.call('changeFollowed', { params, headers: { 'If-Match': `"${version}"` }, body: { changes } }),
      };
    },
  },
] as const;

test.each(WAYS)(
  '$way corrects in the time of grace what the plan lets them, and nothing afterwards',
  async ({ ask }) => {
    const { number, view, change } = await ask();
    const first = ok(await view());
    expect(writable(first)).toEqual(['reason', 'arrival']);
    expect(Object.keys(first.changing.types)).toEqual(['reason', 'arrival']);
    const { version } = ok(await change(first.version, { reason: 'Calibration of both tide gauges' }));
    const seen = ok(await maren.call('sheet', { params: { number } }));
    const reason = seen.values.fields.find(({ key }: { key: string }) => key === 'reason');
    expect([reason.value, seen.version]).toEqual(['Calibration of both tide gauges', version]);
    // What the form says of answers counts for who corrects them as well; nothing of what is wrong is kept.
    const wrong = await change(version, { reason: 'Another', arrival: '2020-01-01' });
    expect([wrong.status, wrong.body.problems.length > 0]).toEqual([422, true]);
    const required = await change(version, { reason: '' });
    expect([required.status, required.body.problems[0].field]).toEqual([422, 'reason']);
    // By name where it can be read, and in the words for what is not there where it can't; never dropped.
    const others = await change(version, { visitor: 'Somebody else', escort: 'Nobody', ghost: 'x' });
    const says = (others.body.problems as { field: string; message: string }[]).map(
      ({ field, message }) => [field, message.replace(field, '…')] as const,
    );
    expect([others.status, says.map(([field]) => field)]).toEqual([422, ['visitor', 'escort', 'ghost']]);
    expect(says[0]?.[1]).toContain('Visitor');
    expect(says[1]?.[1]).toBe(says[2]?.[1]);
    expect((await change(version - 1, { reason: 'Too late' })).status).toBe(412);
    expect((await stranger.call('changeMine', { params: { number }, body: { changes: { reason: 'x' } } })).status).toBe(
      401,
    );
    const oskar = await desk.as('Oskar Veldhuis');
    expect(
      (
        await oskar.call('changeMine', {
          params: { number },
          headers: { 'If-Match': `"${version}"` },
          body: { changes: { reason: 'x' } },
        })
      ).status,
    ).toBe(404);
    await later(31);
    const after = ok(await view());
    expect([writable(after), after.changing.types]).toEqual([[], {}]);
    const refused = await change(after.version, { reason: 'Too late' });
    expect([refused.status, refused.body.problems[0].message]).toEqual([422, expect.stringContaining('Reason')]);
    const kept = ok(await maren.call('sheet', { params: { number } }));
    expect(kept.values.fields.find(({ key }: { key: string }) => key === 'reason').value).toBe(
      'Calibration of both tide gauges',
    );
  },
);

test('a rule of the form tells who corrects nothing of what is hidden from them', async () => {
  const { access } = desk.register('site-access');
  const form = ok(await maren.call('form', { params: { key: 'site-access' } }));
  const refuses = {
    ...{ id: 'told', name: 'Not with an escort', when: 'escort = "Secret escort"', on: true },
    ...{ says: '', runs: 'saving', otherwise: [] },
    then: [{ do: 'refuse', field: 'reason', text: 'The escort said no.', fix: 'Ask the escort.' }],
  };
  const draft = { ...form.draft, rules: [...form.draft.rules, refuses] };
  const saved = ok(
    await maren.call('saveDraft', {
      params: { key: 'site-access' },
      headers: { 'If-Match': `"${form.version}"` },
      body: { draft },
    }),
  );
  const found = (
    ok(await maren.call('form', { params: { key: 'site-access' } })).findings as { severity: string }[]
  ).filter(({ severity }) => severity === 'error');
  // The requester may change the reason, and would be told of the escort: it is found before it is released.
  expect(found.length).toBeGreaterThan(0);
  expect(
    (
      await maren.call('releaseForm', {
        params: { key: 'site-access' },
        headers: { 'If-Match': `"${saved.version}"` },
        body: { note: '' },
      })
    ).status,
  ).toBe(422);
  expect(access.rules.some(({ id }) => id === 'once')).toBe(true);
});
