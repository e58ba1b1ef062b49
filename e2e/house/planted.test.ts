import { type Route, type RouteName, routes, trayKeys } from '@tolvek/contract';
import { withStepsOf } from '@tolvek/core/approval';
import type { DeadlineRule } from '@tolvek/core/deadline';
import { newDoor } from '@tolvek/core/door';
import { asking, designOf, type FormDesign, RECIPES, settingsOf } from '@tolvek/core/form';
import { newMailing } from '@tolvek/core/mailing';
import type { Hearing, NoticeCause } from '@tolvek/core/notice';
import type { Field, Kind, RawAnswer } from '@tolvek/core/register';
import type { NoticePlan } from '@tolvek/core/telling';
import { VOCABULARIES } from '@tolvek/demo';
import { notices, people, requests, ruleRunChanges, ruleRuns } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sendChanges } from './changing.ts';
import { type Answer, type Caller, Desk, STORM, tripOf, VISIT, WATER } from './desk.ts';
import { groundCalls, ONLY_BEFORE } from './groundCalls.ts';
import { waitInLine } from './line.ts';

/** The kinds of letters: one that is new has to be named here, and then be sent. */
const LETTERS: Readonly<Record<NoticeCause['kind'], true>> = {
  ...({
    together: true,
    apart: true,
    received: true,
    'new-request': true,
    'approval-asked': true,
    approved: true,
    refused: true,
  } as const),
  ...({ assigned: true, message: true, stage: true, reminder: true, escalation: true, news: true } as const),
  ...({
    confirm: true,
    'go-on': true,
    invitation: true,
    test: true,
    reset: true,
    'sign-in': true,
    duty: true,
    report: true,
  } as const),
  ...({
    'to-fill-in': true,
    'passed-on': true,
    proposal: true,
    proposed: true,
    'new-link': true,
    'place-free': true,
    undecided: true,
    'nobody-decides': true,
    'nobody-handles': true,
    returned: true,
    due: true,
    digest: true,
    rule: true,
  } as const),
};

/** Notices that name what is hidden, in texts of all kinds and to everybody who has to do with a request. */
function tellingNotices(): NoticePlan {
  const text = `It says {medical_note|nothing}. The note: {medical_note}. ${CLOSED.map((_, at) => `{${closedKey(at)}}`).join(' ')}.`;
  const to = ['team', 'requester', 'leads', 'followers', 'deciding', 'working'] as const;
  return {
    usual: (['received', 'new-request', 'message', 'news', 'stage'] as const).map((kind) => ({
      ...{ kind, subject: 'About {medical_note|it}', text: `${text} {happened.text|And so on.}` },
    })),
    rules: [
      {
        ...{ key: 'tells', name: 'Tells', on: { is: 'arrived' }, to, subject: 'Of {medical_note}', text },
        ...{ answers: true, goes: { goes: 'at-once' } },
      },
      {
        ...{ key: 'by-hand', name: 'By hand', on: { is: 'hand' }, to, subject: '', text },
        ...{ answers: true, goes: { goes: 'at-once' } },
      },
    ],
  };
}

/**
 * A form about the requests that hide something, sent to whoever asked for them, and what is called with it. Its letter
 * goes out; one of those who have it passes it on.
 */
async function sendForms(maren: Caller): Promise<Partial<Record<RouteName, readonly Parameters<Caller['call']>[1][]>>> {
  const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
  const about = { is: 'requests', register: 'site-access', field: 'visit', stages: [], when: '' } as const;
  const draft = designOf(
    { told: english, title: 'After a visit', team: 'estates', approvers: 'duty-managers', calendar: 'desk' },
    '{visit}',
    [
      asking('visit', 'Visit', {
        kind: 'reference',
        register: 'site-access',
        shows: ['institute'],
        among: 'all',
      }),
    ],
  );
  const made = { prefix: 'AV', desk: 'estates', doors: { staff: false, outside: true }, draft };
  const { body } = await maren.call('createForm', { headers: key(), body: made });
  const params = { key: body.key };
  await maren.call('releaseForm', { params, headers: { 'If-Match': '"1"' }, body: { note: '' } });
  const mailing = { ...newMailing('After', 'after-a-visit'), to: { named: '~requester' }, about, passesOn: true };
  const added = await maren.call('addMailing', { params, headers: key(), body: { mailing } });
  const { id } = added.body;
  await maren.call('sendMailing', { params: { id }, headers: key(), body: { onlyNew: false } });
  await maren.call('advanceClock', { body: { minutes: 1 } });
  const priya = await desk.as('Priya Nakamura-Lind');
  const [first] = (await priya.call('frontDesk')).body.toFill;
  const asked = { ...mailing, about: { ...about, when: `medical_note = "${PLANTED}"` } };
  const spare = (await maren.call('addMailing', { params, headers: key(), body: { mailing } })).body.id;
  return {
    mailings: [{ params }],
    addMailing: [
      { params, headers: key(), body: { mailing } },
      { params, headers: key(), body: { mailing: asked } },
    ],
    tryMailing: [
      { params, body: { mailing } },
      { params, body: { mailing: asked } },
    ],
    changeMailing: [{ params: { id }, headers: { 'If-Match': '"1"' }, body: { mailing, note: '' } }],
    sendMailing: [{ params: { id }, headers: key(), body: { onlyNew: true } }],
    owedForms: [{ params: { id } }],
    remindOwed: [{ params: { id }, body: { only: null } }],
    endOwed: [{ params: { id }, body: { forms: [] } }],
    unjoined: [{ params: { id } }],
    removeMailing: [{ params: { id: spare }, headers: { 'If-Match': '"1"' } }],
    passOn: [{ params: { id: first.id }, body: { to: desk.idOf('Signe Halvard') } }],
  };
}

// D9: hidden is absent, by every way. Unique values are planted in restricted fields of many kinds, the
// request goes its whole way, and every answer of every route, every letter and every live update
// is searched for them, as each person.
const PLANTED = 'zq-planted-7f3a91';
/** More fields that are closed as the note is: what is planted in each, and every way to write it. */
const CLOSED: readonly { kind: Kind; answer: RawAnswer; needles: readonly string[]; column?: string }[] = [
  { kind: { kind: 'number', places: 0 }, answer: '7310429', needles: ['7310429', '7,310,429'] },
  { kind: { kind: 'money', currency: 'EUR' }, answer: '9174.53', needles: ['917453', '9,174.53', '9174.53'] },
  { kind: { kind: 'date' }, answer: '2031-07-19', needles: ['2031-07-19', '19 July 2031'] },
  { kind: { kind: 'date-time' }, answer: '2031-08-21T04:56', needles: ['2031-08-21T04:56', '21 August 2031'] },
  { kind: { kind: 'duration' }, answer: '1 day 3 h 17 min', needles: [':1637', '1 day 3 h 17 min'] },
  { kind: { kind: 'email' }, answer: 'zq.7f3a92@hidden.example', needles: ['zq.7f3a92'] },
  { kind: { kind: 'phone' }, answer: '+441234567098', needles: ['1234567098', '1234 567098'] },
  { kind: { kind: 'link' }, answer: 'https://zq-7f3a93.example/', needles: ['zq-7f3a93'] },
  {
    kind: { kind: 'choice', options: [{ key: 'a', label: 'A' }], other: true },
    answer: 'Zq other 7f3a94',
    needles: ['other 7f3a94'],
  },
  {
    kind: { kind: 'line-items', columns: [{ key: 'what', label: 'What', type: { kind: 'text' }, required: true }] },
    answer: [{ what: 'zq-cell-7f3a95' }],
    needles: ['zq-cell-7f3a95'],
  },
  {
    kind: {
      kind: 'choices',
      options: ['zqa7f3a96', 'zqb7f3a97'].map((each) => ({ key: each, label: each })),
      other: true,
    },
    answer: ['Zq several 7f3a98'],
    needles: ['several 7f3a98'],
  },
  {
    // Only one of its columns is closed, and what is computed from that.
    kind: {
      kind: 'line-items',
      columns: [
        { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
        { key: 'secret', label: 'Secret', type: { kind: 'text' }, required: true },
        { key: 'echo', label: 'Echo', type: { kind: 'text' }, required: false, formula: 'upper case(secret)' },
      ],
    },
    answer: [{ what: 'Rope', secret: 'zq-column-7f3a99' }],
    needles: ['zq-column-7f3a99', 'ZQ-COLUMN-7F3A99'],
    column: 'secret',
  },
];
const closedKey = (index: number): string => `closed_${index}`;
const PLANTS: Readonly<Record<string, RawAnswer>> = {
  medical_note: PLANTED,
  ...Object.fromEntries(CLOSED.map(({ answer }, index) => [closedKey(index), answer])),
};
const NEEDLES = [PLANTED, ...CLOSED.flatMap(({ needles }) => needles)];

const CONTACT = { name: 'Noor Castellan', email: 'noor.castellan@corrin.example' };
const PEOPLE = [
  'Maren Okafor',
  'Ilse Brandvold',
  'Tomas Achterberg',
  'Priya Nakamura-Lind',
  'Oskar Veldhuis',
  'Ada Quillfeather',
  'Bram Solheim',
  'Edda Kilbride',
];

/** Routes that carry no JSON: the stream, and files, which have tests of their own. */
const LIMIT = { id: 'many', most: 900, of: 'all', days: 30 } as const;
const BYTES: readonly string[] = Object.values(routes as Readonly<Record<string, Route>>)
  .filter(
    ({ method, takes, gives }) => takes !== undefined || (gives !== undefined && gives !== 'json' && method === 'GET'),
  )
  .map(({ name }) => name);

let desk: Desk;
const callers = new Map<string, Caller>();
const heard = new Map<string, string>();
const listening = new AbortController();
const as = (name: string): Caller => callers.get(name) as Caller;

beforeAll(async () => {
  desk = await Desk.open();
  for (const name of PEOPLE) callers.set(name, await desk.as(name));
  callers.set('outside', await desk.as());
  for (const [name, caller] of callers) if (name !== 'outside') void listen(name, caller);
});

afterAll(async () => {
  listening.abort();
  await desk.close();
});

async function listen(name: string, caller: Caller): Promise<void> {
  try {
    const response = await fetch(`${desk.running.url}/api/live`, {
      headers: { cookie: caller.cookie },
      signal: listening.signal,
    });
    const decoder = new TextDecoder();
    for await (const chunk of response.body ?? [])
      heard.set(name, (heard.get(name) ?? '') + decoder.decode(chunk, { stream: true }));
  } catch {
    // The stream ends when the test ends it.
  }
}

/** What the register of rooms is when another group works at its desk. */
const ROOMS_CHANGED = {
  ...{ name: 'Rooms', prefix: 'RM', deskGroups: ['site-safety'], staysIn: false, left: [], note: '' },
};
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });

/** A form whose answers only desk leads read, with a way out of one that may be allowed, and one that is. */
async function makeWays(maren: Caller) {
  const simple = RECIPES.find((each) => each.key === 'simple')?.make({
    told: english,
    title: 'Ways',
    team: 'estates',
    approvers: 'duty-managers',
    calendar: 'desk',
  });
  const way = { sink: 'set way what', text: 'true; why', source: 'why', what: 'value' } as const;
  const draft = {
    ...simple,
    rules: [
      {
        id: 'way',
        name: 'A way',
        says: '',
        when: 'true',
        then: [{ do: 'set', field: 'what', value: 'why' }],
        otherwise: [],
        on: true,
        runs: 'filling',
      },
    ],
  };
  const rules = [
    {
      id: 'closed',
      name: 'Reasons stay with desk leads',
      fields: ['why'],
      audience: { in: { everyone: true as const }, outOf: ['desk-leads'], requester: 'out' as const },
      level: 'hidden' as const,
    },
  ];
  const body = { prefix: 'WY', desk: 'estates', doors: { staff: true, outside: false }, draft, access: { rules } };
  expect((await maren.call('createForm', { headers: key(), body })).body.key).toBe('ways');
  const told = {
    id: 'told',
    form: desk.formId('ways'),
    ...way,
    sink: 'gone',
    reason: PLANTED.slice(0, 2),
    by: '',
    at: 0,
  };
  desk.protect('ways', { rules, disclosures: [told] });
  return way;
}

/** Asks for more that is closed, and closes it as the note is. */
async function closeMore(maren: Caller): Promise<void> {
  const params = { key: 'site-access' };
  const { draft, version } = (await maren.call('form', { params })).body as { draft: FormDesign; version: number };
  const fields = CLOSED.map(
    ({ kind }, index): Field => ({ key: closedKey(index), label: `Closed ${index}`, type: kind, source: 'asked' }),
  );
  const parts = fields.map(
    ({ key: field }) => ({ part: 'question', field, asks: '', help: '', required: false }) as const,
  );
  // Who decides has a time: what nobody decides in it is told of.
  const limit = { within: 8 * 3_600_000, silence: 'tell' } as const;
  const approval = withStepsOf(draft.approval, (step) => ({ ...step, limit }));
  // One row names somebody who is not here later.
  const handler = { ways: [{ by: 'person' as const, person: desk.idOf('Declan Oyelaran') }] };
  const cells = { planted: '"Nobody takes this"' };
  const tells = ['requester', 'working', 'leads'] as const;
  const asked: DeadlineRule = {
    ...{ key: 'asked', name: 'Asked about', begins: { on: 'arrival' }, length: { by: 'time', time: 9 * 3_600_000 } },
    ...{ stands: { on: 'never' }, ends: { on: 'finished' } },
    rings: [
      { key: 'before', at: -3_600_000, tells, does: [] },
      { key: 'after', at: 3_600_000, tells, does: [] },
    ],
  };
  const deadline = { ...draft.deadline, deadlines: [...draft.deadline.deadlines, asked] };
  const row = { id: 'row-nobody', note: '', cells, outcome: { ...draft.routing.otherwise, path: null, handler } };
  const routing = {
    ...draft.routing,
    columns: [...draft.routing.columns, { id: 'planted', label: 'Planted', input: 'reason' }],
    rows: [row, ...draft.routing.rows],
  };
  const body = {
    draft: {
      ...draft,
      fields: [...draft.fields, ...fields],
      parts: [...draft.parts, ...parts],
      approval,
      routing,
      deadline,
      notices: tellingNotices(),
    },
  };
  // Closed first, so that nothing is asked for a moment that everybody could read.
  const { rules } = desk.register('site-access').access;
  desk.protect('site-access', {
    rules: rules.map((rule) => ({
      ...rule,
      fields: [
        'medical_note',
        ...CLOSED.map(({ column }, index) => [closedKey(index), ...(column ? [column] : [])].join('.')),
      ],
    })),
  });
  const saved = await maren.call('saveDraft', { params, headers: onVersion(version), body });
  const released = await maren.call('releaseForm', {
    params,
    headers: onVersion(saved.body.version),
    body: { note: '' },
  });
  expect([released.status, released.text]).toEqual([200, expect.anything()]);
}

/** Ones that wait for a decision: for the first to say something, halfway, put back with a question, and for nobody. */
async function leftUndecided(as: (name: string) => Caller, send: (who: Caller) => Promise<Answer>) {
  const [priya, edda] = [as('Priya Nakamura-Lind'), as('Edda Kilbride')];
  const numbers = [];
  for (let times = 0; times < 4; times += 1) numbers.push((await send(priya)).body.number);
  const [waits, returned, alone, halfway] = numbers as [string, string, string, string];
  const decision = { verdict: 'return', comment: 'How long will you stay?', seen: await edda.seen(returned) };
  const { status } = await edda.call('decide', {
    ...{ params: { number: returned }, headers: { 'Idempotency-Key': crypto.randomUUID() } },
    body: decision,
  });
  const leaver = desk.idOf('Declan Oyelaran');
  const handed = await edda.call('handDecision', { params: { number: alone }, body: { to: { person: leaver } } });
  expect([status, handed.status]).toEqual([200, 200]);
  desk.askBesides(halfway, 'site-safety');
  const agreed = await edda.call('decide', {
    ...{ params: { number: halfway }, headers: { 'Idempotency-Key': crypto.randomUUID() } },
    body: { verdict: 'approve', comment: 'So far.', seen: await edda.seen(halfway) },
  });
  expect(agreed.body.more).toBe(true);
  const { db } = desk.running.house;
  const active = (is: boolean): void => void db.update(people).set({ active: is }).where(eq(people.id, leaver)).run();
  active(false);
  await desk.running.dayTurned();
  await desk.running.jobsDone();
  const { status: taken } = await priya.submit(
    'come-on-site',
    { ...WATER, reason: 'Nobody takes this' },
    { release: 2 },
  );
  expect(taken).toBe(200);
  active(true);
  return { waits, halfway };
}

/** What can be done at the buttons of a trip. */
const acting = (params: object) => [
  ...[true, false].map((takes) => ({ params: { ...params, action: 'button-1' }, body: { does: 'take-part', takes } })),
  { params: { ...params, action: 'button-2' }, body: { does: 'ask', text: 'Where do we meet?' } },
];

/** What whoever asked withdraws, from inside and from outside. */
async function withdrawn(stranger: Caller): Promise<void> {
  for (const slug of ['come-on-site', 'visit']) {
    const params = { slug };
    const { door, version } = (await as('Maren Okafor').call('doorDesign', { params })).body;
    const body = { door: { ...door, withdraws: 'finished' as const }, note: '' };
    expect((await as('Maren Okafor').call('changeDoor', { params, headers: onVersion(version), body })).status).toBe(
      200,
    );
  }
  const answers = { ...VISIT, ...PLANTS, visitor: 'Never mind' };
  const reason = { reason: 'We come in spring.' };
  const priya = as('Priya Nakamura-Lind');
  const { number } = (await priya.submit('come-on-site', answers, { release: 2 })).body;
  const mine = { params: { number }, headers: onVersion(1), body: reason };
  expect((await priya.call('withdrawMine', mine)).status).toBe(200);
  const contact = { ...CONTACT, email: 'fourth.way@haldane.example' };
  await stranger.submit('visit', answers, { contact, release: 2 });
  const token = await desk.tokenFor(contact.email, 'confirm');
  const params = { token: (await stranger.call('confirm', { params: { token } })).body.follow };
  const theirs = { params, headers: onVersion(1), body: reason };
  expect((await stranger.call('withdrawFollowed', theirs)).status).toBe(200);
}

describe('a value in the restricted field', () => {
  let left = { waits: '', halfway: '' };
  let outside = '';
  let inside = '';
  let follow = '';

  it('travels the whole way of two requests', async () => {
    await closeMore(as('Maren Okafor'));
    const stranger = as('outside');
    const sent = { ...WATER, ...PLANTS };
    expect((await stranger.submit('visit', sent, { contact: CONTACT, release: 2 })).body.state).toBe('to-confirm');
    const token = await desk.tokenFor(CONTACT.email, 'confirm');
    await stranger.call('confirmation', { params: { token } });
    const confirmed = await stranger.call('confirm', { params: { token } });
    const other = { ...CONTACT, email: 'third.way@haldane.example' };
    const back = await stranger.submit('visit', { ...WATER, visitor: 'Going back' }, { contact: other, release: 2 });
    const sentBack = { params: { token: back.body.sent } };
    await stranger.call('sentState', sentBack);
    await stranger.call('sendAgain', { ...sentBack, body: { email: other.email } });
    await stranger.call('backToAnswers', { params: { token: await desk.tokenFor(other.email, 'confirm') } });
    outside = confirmed.body.number;
    follow = confirmed.body.follow;

    for (const name of ['Oskar Veldhuis', 'Bram Solheim', 'Maren Okafor'])
      await as(name).call('followRequest', { params: { number: outside }, body: { follows: true } });
    const decision = await desk.tokenFor('tomas.achterberg', 'decide');
    const { seen } = (await stranger.call('decisionLink', { params: { token: decision } })).body;
    expect(
      (
        await stranger.call('decideByLink', {
          params: { token: decision },
          headers: key(),
          body: { verdict: 'approve', comment: 'Fine.', seen },
        })
      ).status,
    ).toBe(200);

    inside = (await as('Priya Nakamura-Lind').submit('come-on-site', sent, { release: 2 })).body.number;
    const handler = as('Bram Solheim');
    await handler.call('setLanguage', { body: { language: 'de' } });
    await handler.call('setLanguage', { body: { language: 'en' } });
    const first = await handler.sheet(outside);
    const mine = first.assignable.find((person: { name: string }) => person.name === 'Bram Solheim').id;
    const assigned = await as('Ada Quillfeather').call('assign', {
      params: { number: outside },
      headers: onVersion(first.version),
      body: { person: mine },
    });
    const changed = await handler.call('changeFields', {
      params: { number: outside },
      headers: onVersion(assigned.body.version),
      body: { changes: { escort: 'Signe Halvard' } },
    });
    // A hidden field is refused in the words for one that does not exist.
    const refused = await handler.call('changeFields', {
      params: { number: outside },
      headers: onVersion(changed.body.version),
      body: { changes: { medical_note: 'x', no_such_field: 'x' } },
    });
    expect(refused.body.problems.map((problem: { message: string }) => problem.message)).toEqual([
      'There is no field “medical_note” here.',
      'There is no field “no_such_field” here.',
    ]);
    await handler.call('comment', {
      params: { number: outside },
      body: { text: 'Looks good.', visibility: 'internal' },
    });
    await handler.call('comment', {
      params: { number: outside },
      body: { text: 'See you then.', visibility: 'requester' },
    });
    await stranger.call('followMessage', { params: { token: follow }, body: { text: 'Thank you.' } });
    // Whoever asked corrects what they may for once, and is refused the rest.
    const { access } = desk.register('site-access');
    const corrects = {
      ...{ id: 'corrects', name: 'Whoever asks corrects', fields: ['reason'], level: 'write' as const },
      audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
    };
    desk.protect('site-access', { ...access, rules: [...access.rules, corrects] });
    const priya = as('Priya Nakamura-Lind');
    for (const changes of [{ medical_note: 'y', no_such_field: 'z' }, { reason: 'Calibration, corrected' }]) {
      const [followed, mine] = [{ token: follow }, { number: inside }];
      const outsiders = (await stranger.call('follow', { params: followed })).body.version;
      await stranger.call('changeFollowed', { params: followed, headers: onVersion(outsiders), body: { changes } });
      const own = (await priya.call('myRequest', { params: mine })).body.version;
      await priya.call('changeMine', { params: mine, headers: onVersion(own), body: { changes } });
    }
    desk.protect('site-access', access);
    await as('Priya Nakamura-Lind').call('myMessage', {
      params: { number: inside },
      body: { text: 'One more thing.' },
    });
    await as('Edda Kilbride').call('decide', {
      params: { number: inside },
      headers: key(),
      body: { verdict: 'approve', comment: '', seen: await as('Edda Kilbride').seen(inside) },
    });
    await withdrawn(stranger);
    const turnedDown = (await as('Priya Nakamura-Lind').submit('come-on-site', sent, { release: 2 })).body.number;
    await as('Edda Kilbride').call('decide', {
      params: { number: turnedDown },
      headers: key(),
      body: { verdict: 'refuse', comment: 'Not in March.', seen: await as('Edda Kilbride').seen(turnedDown) },
    });
    left = await leftUndecided(as, (who) => who.submit('come-on-site', sent, { release: 2 }));
    // Somebody hears of it in the morning, in one email.
    const ways = { due: 'digest', late: 'digest', mine: 'digest', team: 'digest' } as const;
    const hearing: Hearing = {
      ways,
      digest: { at: '08:00', days: [1, 2, 3, 4, 5, 6, 7] },
      quiet: { from: '00:05', to: '00:00' },
    };
    for (const name of ['Ilse Brandvold', 'Maren Okafor', 'Edda Kilbride'])
      expect((await as(name).call('setOwnEmails', { body: hearing })).status).toBe(200);
    // In steps, so that what is told before something is due is not too late.
    for (let hours = 0; hours < 5 * 24; hours += 3) await stranger.call('advanceClock', { body: { minutes: 3 * 60 } });
    const late = await handler.sheet(outside);
    expect(
      (
        await handler.call('moveStage', {
          params: { number: outside },
          headers: onVersion(late.version),
          body: { stage: 'done' },
        })
      ).status,
    ).toBe(200);
    const coordinator = as('Maren Okafor');
    const freed = { stage: 'in_hand', reason: 'It was not done.' };
    const given = { team: 'estates', priority: 'high' };
    for (const [route, body] of [
      ['freeRequest', freed],
      ['reroute', given],
    ] as const) {
      const headers = onVersion((await coordinator.sheet(outside)).version);
      expect((await coordinator.call(route, { params: { number: outside }, headers, body })).status).toBe(200);
    }
    const { version } = await coordinator.sheet(outside);
    const several = { requests: [{ number: outside, version }], priority: 'low', reason: 'Less so.', apply: true };
    const where = { requests: several.requests, apply: false };
    expect((await coordinator.call('moveMany', { body: where })).status).toBe(200);
    const note = { requests: [outside], text: 'Soon.', visibility: 'internal', apply: true };
    const headers = { 'Idempotency-Key': 'note-of-many' };
    expect((await coordinator.call('writeMany', { headers, body: note })).body.written).toBe(1);
    const told = await coordinator.call('rerouteMany', { body: several });
    expect([told.status, told.body.changed]).toEqual([200, 1]);
  });

  it('is searched for in every answer of every route, as each person', async () => {
    const job = desk.hadDone('Maren Okafor');
    const form = (await as('Maren Okafor').call('form', { params: { key: 'site-access' } })).body;
    const letters = (await as('outside').call('mailroom')).body.letters;
    const things = desk.things();
    await as('outside').call('sendKept', {
      params: { slug: 'visit' },
      body: { answers: WATER, contact: CONTACT, typedAt: 1 },
    });
    const goOn = await desk.tokenFor(CONTACT.email, 'go on');
    const { number: trip } = (await as('Priya Nakamura-Lind').submit('vessel-time', tripOf(things))).body;
    const sailor = { ...CONTACT, email: 'sailor@haldane.example' };
    const sailing = tripOf(things, { leaves: '2026-12-04T09:00', returns: '2026-12-04T11:00' });
    await as('outside').submit('vessel-time-from-outside', sailing, { contact: sailor });
    const sails = { token: await desk.tokenFor(sailor.email, 'confirm') };
    const aboard = (await as('outside').call('confirm', { params: sails })).body.follow;
    const run = 'a-run';
    const { db } = desk.running.house;
    const [changed] = db.select({ id: requests.id }).from(requests).where(eq(requests.number, inside)).all();
    db.insert(ruleRuns)
      .values({
        id: run,
        formId: desk.formId('site-access'),
        rule: 'water-certificate',
        name: 'A rule',
        by: '',
        at: desk.running.house.clock.now(),
      })
      .run();
    db.insert(ruleRunChanges)
      .values({
        runId: run,
        requestId: changed?.id ?? '',
        changes: [{ field: 'medical_note', before: PLANTED, after: 'x' }],
      })
      .run();
    const way = await makeWays(as('Maren Okafor'));
    const unwanted = { ...WATER, visitor: 'Spare' };
    const spare = (await as('Priya Nakamura-Lind').submit('come-on-site', unwanted, { release: 2 })).body.number;
    /** What was deleted, by the id it is put back by. */
    const deleted = async (visitor: string): Promise<{ readonly params: { readonly id: string } }> => {
      const answers = { ...WATER, visitor, medical_note: PLANTED };
      const { number } = (await as('Priya Nakamura-Lind').submit('come-on-site', answers, { release: 2 })).body;
      const of = { params: { number }, headers: onVersion(1), body: { reason: 'Nobody wants it.' } };
      return { params: { id: (await as('Ada Quillfeather').call('deleteRequest', of)).body.id } };
    };
    const double = async (visitor: string): Promise<string> =>
      (
        await as('Priya Nakamura-Lind').submit(
          'come-on-site',
          { ...WATER, visitor, medical_note: PLANTED },
          { release: 2 },
        )
      ).body.number;
    const [twice, over] = [await double('Twice'), await double('Twice over')];
    const [comesBack, goes] = [await deleted('Comes back'), await deleted('Gone for good')];
    const mailing = await sendForms(as('Maren Okafor'));
    const waiting = await waitInLine(desk, {
      maren: as('Maren Okafor'),
      well: async (calling) => (await calling).body,
      keyed: () => key(),
    });
    const asker = as('Priya Nakamura-Lind');
    const contact = { ...CONTACT, email: 'nele.brook@haldane.example' };
    const stranger = as('outside');
    await stranger.submit('visit', { ...WATER, ...PLANTS, visitor: 'Has a link' }, { contact, release: 2 });
    const confirming = { params: { token: await desk.tokenFor(contact.email, 'confirm') } };
    const { number: linked, follow: renewed } = (await stranger.call('confirm', confirming)).body;
    // By the link, which ends with it, and signed in.
    expect((await stranger.call('renewLink', { params: { token: renewed } })).status).toBe(200);
    const signedIn = await desk.contact(contact.email);
    expect((await signedIn.call('renewMyLink', { params: { number: linked } })).status).toBe(200);
    // Somebody from outside handles one, and gives it back.
    const handed = (await asker.submit('come-on-site', { ...WATER, ...PLANTS, visitor: 'Given away' }, { release: 2 }))
      .body.number;
    const sela = { name: 'Sela Brightwater', email: 'sela.brightwater@northmoor.example' };
    const given = { params: { number: handed } };
    const giving = { ...given, headers: onVersion((await as('Maren Okafor').sheet(handed)).version), body: sela };
    expect((await as('Maren Okafor').call('giveOutside', giving)).status).toBe(200);
    const outsider = await desk.contact(sela.email);
    const { version } = (await outsider.call('given', given)).body;
    const back = { ...given, headers: onVersion(version), body: { reason: 'Away.' } };
    expect((await outsider.call('giveBack', back)).status).toBe(200);
    const closedFields = ['medical_note', ...CLOSED.map((_, index) => closedKey(index))];
    const asked = async (visitor: string): Promise<string> =>
      (await asker.submit('come-on-site', { ...WATER, ...PLANTS, visitor }, { release: 2 })).body.number;
    const change = (number: string) => ({ by: asker, number, answers: { ...PLANTS, medical_note: `${PLANTED} more` } });
    const changing = await sendChanges(
      desk,
      { maren: as('Maren Okafor'), well: async (calling) => (await calling).body, keyed: () => key() },
      'site-access',
      [
        { by: asker, number: await asked('To accept'), answers: { visitor: 'Accepted' }, asks: ['visitor'] },
        { ...change(await asked('To refuse')), asks: ['visitor', ...closedFields] },
        { ...change(await asked('To take back')), asks: ['visitor', ...closedFields] },
        { ...change(await asked('To refuse by link')), asks: ['visitor', ...closedFields] },
      ],
    );
    const inputs: Partial<Record<RouteName, readonly Parameters<Caller['call']>[1][]>> = {
      ...(await groundCalls(desk)),
      ...mailing,
      ...waiting,
      ...changing,
      endLinks: [{ params: { number: outside }, body: { only: [] } }],
      sendLink: [{ params: { number: linked } }],
      renewMyLink: [{ params: { number: inside } }, { params: { number: linked } }],
      endMyLinks: [{ params: { number: inside } }],
      endOtherLinks: [{ params: { token: follow } }],
      renewLink: [{ params: { token: renewed } }],
      door: [{ params: { slug: 'visit' } }, { params: { slug: 'come-on-site' } }, ...(changing.door ?? [])],
      sheet: [{ params: { number: outside } }, { params: { number: inside } }],
      requestCourse: [{ params: { number: outside } }, { params: { number: inside } }],
      requestEmails: [{ params: { number: outside } }, { params: { number: inside } }],
      forecast: [{}],
      requestForecast: [{ params: { number: outside } }, { params: { number: inside } }],
      serviceTimes: ['form', 'team', 'row', 'handler', 'month'].map((by) => ({
        query: { from: '2026-11-01', to: '2026-12-31', by },
      })),
      servedRows: ['came', 'went', 'open', 'late'].map((figure) => ({
        query: { from: '2026-11-01', to: '2026-12-31', figure },
      })),
      forecastHelps: [{}],
      forecastScore: [{}],
      forecastTried: ['boats', 'estates', 'nobody'].map((team) => ({
        query: { team, day: '2026-12-01', hours: '4' },
      })),
      myRequest: [{ params: { number: inside } }, { params: { number: outside } }],
      follow: [{ params: { token: follow } }],
      ledger: trayKeys.flatMap((tray) => [{ query: { tray, find: '' } }, { query: { tray, find: PLANTED } }]),
      find: ['come', PLANTED, PLANTED.replace('zq', 'zw'), ...NEEDLES.slice(1, 20)].map((text) => ({ body: { text } })),
      // What is put into a cell that is closed is told to nobody, nor what stands there.
      changeCells: [1, 2, 3, 4, 5].map((version) => ({
        body: {
          rows: [inside, outside].map((number) => ({ number, version, cells: { medical_note: 'x', reason: '' } })),
          apply: false,
        },
      })),
      takeBackCells: [{ body: { rows: [{ number: inside, version: 1 }] } }],
      mailroom: [{}, { query: { find: PLANTED } }],
      letter: letters.map(({ id }: { id: string }) => ({ params: { id } })),
      form: [{ params: { key: 'site-access' } }],
      saveDraft: [
        {
          params: { key: 'site-access' },
          headers: onVersion(form.version),
          body: { draft: { ...form.draft, title: 'Come on site, please' } },
        },
      ],
      releaseForm: [{ params: { key: 'site-access' }, headers: onVersion(form.version + 1), body: { note: '' } }],
      sentEmails: [{}, { query: { find: inside } }, { query: { state: 'unsent' } }],
      sendEmailAgain: [
        {
          params: {
            id:
              desk.running.house.db.select({ id: notices.id }).from(notices).where(eq(notices.state, 'sent')).get()
                ?.id ?? '',
          },
        },
      ],
      sendNotice: [{ params: { number: inside }, body: { notice: 'by-hand', text: 'A word' } }],
      showNotice: ['tells', 'received', 'new-request', 'news'].map((notice) => ({
        params: { key: 'site-access' },
        body: { notice, number: inside, reader: null },
      })),
      tryCondition: [
        ...['works_on_water = true', `medical_note = "${PLANTED}"`, 'medical_note != null', 'closed_0 > 7310000'],
        ...['closed_2 > date("2031-07-18")', 'count(closed_9) = 1'],
      ].map((condition) => ({
        params: { key: 'site-access' },
        body: { condition, number: null },
      })),
      checkAnswers: [{ params: { slug: 'visit' }, body: { answers: { ...WATER, medical_note: PLANTED } } }],
      offers: [{ params: { slug: 'vessel-time' }, body: { field: 'vessel', find: '', answers: {} } }],
      sheetOffers: [{ params: { number: trip }, body: { field: 'vessel', find: '' } }],
      draftOffers: [
        {
          params: { key: 'vessel-time' },
          body: { field: 'vessel', find: '', answers: {}, person: null, outside: false },
        },
      ],
      takeInRows: [
        {
          params: { key: 'site-access' },
          headers: key(),
          body: { rows: [{ cells: { visitor: 'Orla' }, requester: '' }], apply: false },
        },
      ],
      vocabulary: [{ params: { key: 'species' } }],
      createVocabulary: [{ headers: key(), body: { name: 'Hazards' } }],
      saveVocabulary: [
        {
          params: { key: 'matrices' },
          headers: onVersion(1),
          body: { name: 'Matrices', terms: VOCABULARIES.find((each) => each.key === 'matrices')?.terms ?? [] },
        },
      ],
      keepAnswers: [{ params: { slug: 'come-on-site' }, body: { answers: { ...WATER, reason: 'Begun' }, typedAt: 1 } }],
      sendKept: [{ params: { slug: 'visit' }, body: { answers: WATER, contact: CONTACT, typedAt: 1 } }],
      kept: [{ params: { token: goOn } }],
      keepKept: [{ params: { token: goOn }, body: { answers: WATER, contact: CONTACT, typedAt: 2 } }],
      createForm: [
        {
          headers: key(),
          body: {
            prefix: 'ZQ',
            desk: 'estates',
            doors: { staff: true, outside: false },
            draft: { ...form.draft, title: 'A copy' },
          },
        },
      ],
      allowWay: [
        { params: { key: 'ways' }, headers: key(), body: { ...way, reason: 'It is told at the gate anyway.' } },
      ],
      endWay: [{ params: { key: 'ways', id: 'told' } }],
      protectAlike: [{ params: { key: 'ways' }, body: { source: 'why', field: 'what' } }],
      placeFields: [{ params: { key: 'ways' }, body: { fields: ['what'] } }],
      sendTrial: [
        {
          params: { key: 'site-access' },
          headers: key(),
          body: { answers: { ...WATER }, person: null, outside: true },
        },
      ],
      job: [{ params: { id: job } }],
      stopJob: [{ params: { id: job } }],
      clearTrials: [{ params: { key: 'site-access' } }],
      overExisting: [{ params: { key: 'site-access', rule: 'water-certificate' }, body: { shown: null } }],
      takeRunBack: [{ params: { key: 'site-access', run } }],
      draftHistory: [{ params: { key: 'site-access' } }],
      replanning: [{ params: { key: 'site-access' } }],
      recomputation: [{ params: { key: 'site-access' } }],
      register: [{ params: { key: 'site-access' } }],
      calendar: [{ params: { key: 'desk' } }],
      tryCalendar: [{ params: { key: 'desk' }, body: { calendar: STORM } }],
      changeCalendar: [{ params: { key: 'desk' }, headers: onVersion(1), body: { calendar: STORM, note: '' } }],
      doubles: [{ params: { key: 'site-access' } }],
      goBackToState: [
        { params: { key: 'methods', number: '1' }, headers: onVersion(desk.register('methods').version) },
      ],
      keepRegister: [
        {
          params: { key: 'budget-codes' },
          headers: onVersion(desk.register('budget-codes').version),
          body: { ...settingsOf(desk.register('budget-codes')), name: 'Budget codes' },
        },
      ],
      putRegister: [
        {
          params: { key: 'vessels' },
          headers: onVersion(desk.register('vessels').version),
          body: { note: 'As it is' },
        },
      ],
      changeRegister: [
        {
          params: { key: 'rooms' },
          headers: onVersion(desk.register('rooms').version),
          body: { ...ROOMS_CHANGED, stages: desk.register('rooms').stages },
        },
      ],
      askInto: [
        {
          params: { key: 'site-access' },
          headers: key(),
          body: { title: 'In short', asks: ['visitor', 'medical_note'], doors: { staff: true, outside: true } },
        },
      ],
      duplicateForm: [{ params: { key: 'site-access' }, headers: key(), body: { title: 'The same again' } }],
      setFormState: [{ params: { key: 'rooms' }, body: { state: 'stopped' } }],
      compareRelease: [{ params: { key: 'site-access', number: '1' } }],
      doorDesign: [{ params: { slug: 'visit' } }],
      changeDoor: [
        {
          ...{ params: { slug: 'visit' }, headers: onVersion(2) },
          body: { door: { ...newDoor('confirmed-address', 'Outside door'), limits: [LIMIT] }, note: 'For now' },
        },
      ],
      addDoor: [{ params: { key: 'site-access' }, headers: key(), body: { name: 'Another', proof: 'sign-in' } }],
      work: [{ params: { slug: 'visit' } }],
      doorRemoval: [{ params: { slug: 'visit' } }],
      moveDoor: [{ params: { slug: 'my-skills' }, headers: onVersion(1), body: { slug: 'skills-now', leadsOn: true } }],
      tryDoor: [{ params: { slug: 'visit' }, body: { door: newDoor('confirmed-address', 'Outside door') } }],
      removeDoor: [{ params: { slug: 'school-visit' }, headers: onVersion(2) }],
      setDoor: [{ params: { slug: 'visit' }, body: { open: true, closedMessage: '' } }],
      shareTargets: [{ params: { number: outside }, query: { find: 'bo' } }],
      shareRequest: [{ params: { number: outside }, body: { with: { group: 'boats' }, until: null } }],
      unshareRequest: [{ params: { number: outside, holder: 'boats' } }],
      deciderTargets: [{ params: { number: left.waits }, query: { find: 'bo' } }],
      decisionsAlike: [{ params: { number: left.waits } }],
      handDecision: [{ params: { number: left.waits }, body: { to: { group: 'boats' } } }],
      takeBackDecision: [{ params: { number: left.halfway } }],
      askAbout: [
        { params: { number: outside }, headers: key(), body: { mailing: mailing.owedForms?.[0]?.params?.id ?? '' } },
      ],
      act: acting({ number: trip }),
      actOnMine: acting({ number: trip }),
      actFollowed: acting({ token: aboard }),
      changing: [{ params: { number: outside }, body: { fields: ['medical_note', 'reason'] } }],
      changingMine: [{ params: { number: inside }, body: { fields: ['medical_note', 'reason'] } }],
      changingFollowed: [{ params: { token: aboard }, body: { fields: ['crew', 'captain'] } }],
      changedBy: [{ params: { number: outside } }, { params: { number: inside } }],
      followRequest: [true, false].map((follows) => ({ params: { number: outside }, body: { follows } })),
      requestMergePlan: ['', over].map((into) => ({ params: { number: twice }, query: { into } })),
      mergeRequest: [
        {
          ...{ params: { number: twice }, headers: onVersion(1) },
          body: { into: over, intoVersion: 1, take: ['visitor'] },
        },
      ],
      unmergeRequest: [{ params: { number: twice } }],
      deletionPlan: [{ params: { number: outside } }, { params: { number: inside } }],
      deleteRequest: [{ params: { number: spare }, headers: onVersion(1), body: { reason: 'Nobody wants it.' } }],
      putBackRequest: [comesBack],
      deleteForGood: [goes],
      deletedIn: [{ params: { key: 'site-access' } }],
      changeFields: [{ params: { number: outside }, headers: onVersion(1), body: { changes: { escort: 'x' } } }],
      advanceClock: [{ body: { minutes: 1 } }],
    };
    for (const name of Object.keys(routes) as RouteName[]) {
      if (BYTES.includes(name) || ONLY_BEFORE.includes(name)) continue;
      for (const caller of callers.values()) for (const input of inputs[name] ?? [{}]) await caller.call(name, input);
    }
    await desk.letters();

    const exercised = new Set(desk.answers.filter((answer) => answer.status === 200).map((answer) => answer.route));
    expect(Object.keys(routes).filter((name) => !BYTES.includes(name) && !exercised.has(name))).toEqual(ONLY_BEFORE);

    const found = (needle: string) =>
      new Set(
        desk.answers.filter((answer) => answer.text.includes(needle)).map((answer) => `${answer.who}: ${answer.route}`),
      );
    const mayRead = [
      'Ada Quillfeather: follow',
      'Bram Solheim: follow',
      'Edda Kilbride: follow',
      'Ilse Brandvold: follow',
      'Maren Okafor: follow',
      'Oskar Veldhuis: decisionsAlike',
      'Oskar Veldhuis: find',
      'Oskar Veldhuis: follow',
      'Oskar Veldhuis: sharedResult',
      'Oskar Veldhuis: sheet',
      'Priya Nakamura-Lind: door',
      'Priya Nakamura-Lind: follow',
      'Priya Nakamura-Lind: myRequest',
      'Tomas Achterberg: follow',
      'outside: follow',
    ].sort();
    const told = new Set<string>();
    for (const needle of NEEDLES) {
      const by = [...found(needle)].sort();
      for (const each of by) told.add(each);
      expect([needle, by.filter((each) => !mayRead.includes(each))]).toEqual([needle, []]);
    }
    // Whoever may read it does: each planted value is told in one way of writing it at least.
    expect([...told].sort()).toEqual(mayRead);
    // Only what is found is told of what is looked for.
    const whole = mayRead.filter((each) => !each.endsWith(': find'));
    for (const { kind, needles } of CLOSED)
      expect([kind.kind, whole.filter((each) => !needles.some((needle) => found(needle).has(each)))]).toEqual([
        kind.kind,
        [],
      ]);
    console.log(
      `planted in ${CLOSED.length + 1} fields, searched for in ${desk.answers.length} answers as ${NEEDLES.length} texts`,
    );
  });

  it('is in no letter, nor in what waits to be sent', async () => {
    const letters = await desk.letters();
    expect(letters.length).toBeGreaterThan(10);
    // Each kind of letter there is has been written.
    const { $client } = desk.running.house.db;
    const kinds = $client.prepare('select distinct kind from notices').all() as { kind: string }[];
    expect(kinds.map(({ kind }) => kind).sort()).toEqual(Object.keys(LETTERS).sort());
    for (const needle of NEEDLES)
      expect(letters.filter((letter) => JSON.stringify(letter).includes(needle))).toEqual([]);
  });

  it('is in no live update, and updates reach only who may see the request', async () => {
    // Each update has an id of its own, which chance alone makes: with so many, one can begin as a needle ends.
    const told = [...heard.values()].join('').replaceAll(/^id:[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/gm, 'id:');
    expect(told).not.toBe('');
    for (const needle of NEEDLES) expect(told).not.toContain(needle);
    expect(heard.get('Bram Solheim')).toContain(outside);
    expect(heard.get('Priya Nakamura-Lind') ?? '').not.toContain(outside);
    expect(heard.get('Priya Nakamura-Lind')).toContain(inside);
  });
});
