import type { FormDesign } from '@tolvek/core/form';
import type { NoticePlan, NoticeRule } from '@tolvek/core/telling';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// What a form tells whom besides what is usual, and otherwise.
let desk: Desk;
let [maren, priya, ilse]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };
const RULE = {
  ...{ subject: '', text: 'Look at {request.number}.', to: ['team'], answers: false, goes: { goes: 'at-once' } },
} as const satisfies Partial<NoticeRule>;
const rule = (key: string, more: Partial<NoticeRule>): NoticeRule => ({
  ...{ key, name: `The ${key}`, on: { is: 'arrived' } },
  ...RULE,
  ...more,
});

/** Puts notices in force; gives what is found wrong in them. */
async function inForce(notices: NoticePlan): Promise<readonly string[]> {
  const call = maren as Caller;
  const { draft, version } = ok(await call.call('form', of)) as { draft: FormDesign; version: number };
  const otherwise = { ...draft.routing.otherwise, team: 'estates', path: null, workingDays: 10 };
  const routing = { columns: [], rows: [], otherwise } as FormDesign['routing'];
  const body = { draft: { ...draft, routing, notices } };
  const saved = ok(await call.call('saveDraft', { ...of, headers: onVersion(version), body }));
  const { findings } = ok(await call.call('form', of));
  const found = findings.flatMap((each: { page: string; message: string }) =>
    each.page === 'notices' ? [each.message] : [],
  );
  const answer = await call.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } });
  if (answer.status === 200) release = answer.body.number;
  return found;
}
let visitors = 0;
async function sent(more: object = {}): Promise<string> {
  visitors += 1;
  const dates = { arrival: '2026-12-21', departure: '2026-12-22' };
  const answers = { ...VISIT, ...dates, visitor: `Visitor ${'z'.repeat(visitors)}`, ...more };
  return ok(await (priya as Caller).submit('come-on-site', answers, { release })).number;
}
const lettersTo = async (name: string, words: string) =>
  (await desk.letters()).filter(({ to, subject, text }) => to.includes(name) && `${subject} ${text}`.includes(words));
const until = async (moment: string): Promise<void> => {
  const minutes = Math.ceil((Date.parse(`${moment}:00Z`) - desk.running.house.clock.now()) / 60_000);
  if (minutes > 0) ok(await (maren as Caller).call('advanceClock', { body: { minutes } }));
};
const emailsOf = async (number: string): Promise<Answer['body']> =>
  ok(await (maren as Caller).call('requestEmails', { params: { number } })).emails;
const change = async (number: string, values: object): Promise<void> => {
  const sheet = await (maren as Caller).sheet(number);
  ok(
    await (maren as Caller).call('changeFields', {
      ...{ params: { number }, headers: onVersion(sheet.version), body: { changes: values } },
    }),
  );
};

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, ilse] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ilse Brandvold'),
  ];
});
afterAll(() => desk.close());

describe('the notices of a form', () => {
  it('word what is usual otherwise, in the language of each reader, and leave out what is not sent', async () => {
    const text =
      'Dear colleague, we have {request.number}. It was asked by {requester.name}. It waits at “{request.stage}”.';
    const german = { of: 'Thanks for {request.number}', says: 'Danke für {request.number}' };
    expect(
      await inForce({
        usual: [
          {
            ...{ kind: 'received', subject: 'Thanks for {request.number}', text },
            translations: { de: { subject: german } },
          },
          { kind: 'new-request', subject: '', text: '', off: true },
        ],
        rules: [],
      }),
    ).toEqual([]);
    const number = await sent();
    const [letter] = await lettersTo('Priya Nakamura-Lind', number);
    expect(letter?.subject).toBe(`Thanks for ${number}`);
    expect(letter?.text).toContain('It was asked by Priya Nakamura-Lind. It waits at “');
    // What the email shows and where it leads is as it was.
    expect([letter?.text, letter?.html]).toEqual([
      expect.stringContaining('Visitor: Visitor z'),
      expect.stringContaining(`/my/${number}`),
    ]);
    expect(await lettersTo('Ilse Brandvold', number)).toEqual([]);
    expect((await emailsOf(number)).map(({ person, state }: Answer['body']) => [person, state])).toContainEqual([
      'Ilse Brandvold',
      'off',
    ]);
  });

  it('go to whom they name, when it happens and their condition holds, once to each', async () => {
    expect(
      await inForce({
        usual: [{ kind: 'new-request', subject: '', text: '', off: true }],
        rules: [
          rule('arrival', { to: ['team', { person: desk.idOf('Ilse Brandvold') }], when: 'reason = "noise"' }),
          rule('stage', {
            on: { is: 'stage', stages: ['in_hand'] },
            to: ['requester'],
            text: 'We began: {happened.text|nothing said}',
          }),
        ],
      }),
    ).toEqual([]);
    const [quiet, loud] = [await sent(), await sent({ reason: 'noise' })];
    expect(await lettersTo('Ilse Brandvold', quiet)).toEqual([]);
    expect(await lettersTo('Ilse Brandvold', loud)).toHaveLength(1);
    expect((await lettersTo('Ilse Brandvold', loud))[0]?.subject).toBe(`The arrival: ${await called(loud)} (${loud})`);
    expect((await lettersTo('Nuala Fenwick', loud)).length).toBe(1);
    const { version } = await (ilse as Caller).sheet(loud);
    const move = { params: { number: loud }, headers: onVersion(version), body: { stage: 'in_hand' } };
    ok(await (ilse as Caller).call('moveStage', move));
    expect((await lettersTo('Priya Nakamura-Lind', loud)).map(({ subject, text }) => [subject, text])).toContainEqual([
      `The stage: Come on site (${loud})`,
      expect.stringContaining('We began: nothing said'),
    ]);
  });

  it('hear of what becomes true once, by a change or by the day alone', async () => {
    await inForce({
      usual: [{ kind: 'new-request', subject: '', text: '', off: true }],
      rules: [
        rule('noise', { on: { is: 'becomes' }, when: 'reason = "noise"' }),
        rule('soon', { on: { is: 'becomes' }, when: 'arrival < today + duration("P8D")' }),
      ],
    });
    const number = await sent();
    expect(await lettersTo('Ilse Brandvold', number)).toEqual([]);
    await change(number, { reason: 'noise' });
    await change(number, { reason: 'noise', institute: 'merrow' });
    expect(await lettersTo('Ilse Brandvold', number)).toHaveLength(1);
    await change(number, { reason: 'quiet' });
    await change(number, { reason: 'noise' });
    expect(await lettersTo('Ilse Brandvold', number)).toHaveLength(2);
    await until('2026-12-13T12:00');
    expect(await lettersTo('Ilse Brandvold', 'The soon')).toEqual([]);
    await until('2026-12-14T12:00');
    expect((await lettersTo('Ilse Brandvold', 'The soon')).map(({ text }) => text)).toContainEqual(
      expect.stringContaining(number),
    );
    const told = (await lettersTo('Ilse Brandvold', 'The soon')).length;
    await until('2026-12-16T12:00');
    expect((await lettersTo('Ilse Brandvold', 'The soon')).length).toBe(told);
  });

  it('gather bursts, wait for their time, and go at once where it is urgent', async () => {
    await inForce({
      usual: [{ kind: 'new-request', subject: '', text: '', off: true }],
      rules: [
        rule('burst', { goes: { goes: 'gathered', minutes: 20 } }),
        rule('evening', {
          ...{ to: ['leads'], goes: { goes: 'digest', at: '18:00', days: [1, 2, 3, 4, 5, 6, 7] } },
          urgent: 'reason = "noise"',
        }),
      ],
    });
    await until('2026-12-17T10:00');
    const numbers = [await sent(), await sent()];
    const hasCome = async (name: string) => (await lettersTo(name, numbers[0] ?? '')).length;
    expect([await hasCome('Ilse Brandvold'), await hasCome('Maren Okafor')]).toEqual([0, 0]);
    await until('2026-12-17T10:30');
    const [burst, ...more] = await lettersTo('Ilse Brandvold', numbers[0] ?? '');
    expect([burst?.text.includes(numbers[1] ?? ''), more]).toEqual([true, []]);
    const urgent = await sent({ reason: 'noise' });
    const leads = 'Maren Okafor';
    expect(await lettersTo(leads, urgent)).toHaveLength(1);
    expect(await lettersTo(leads, numbers[0] ?? '')).toEqual([]);
    await until('2026-12-17T18:01');
    expect(await lettersTo(leads, numbers[0] ?? '')).toHaveLength(1);
  });

  it('tell nobody of what they may not read, and leave no hole', async () => {
    await inForce({
      usual: [{ kind: 'new-request', subject: '', text: '', off: true }],
      rules: [
        rule('secret', { to: ['team', 'requester'], when: 'medical_note != null', text: 'There is a note.' }),
        rule('holes', {
          to: ['team', 'requester'],
          text: 'It is {request.number}. The note says {medical_note}. The note: {medical_note|none}. Fee: {fee}.',
        }),
      ],
    });
    const number = await sent({ medical_note: 'An allergy to bees' });
    const [letter, ...more] = await lettersTo('Ilse Brandvold', number);
    expect([letter?.text.includes(`It is ${number}. The note: none.\n`), more]).toEqual([true, []]);
    expect(letter?.text).not.toMatch(/bees|note says|Fee/);
    // What the plan keeps out of emails is in none, whoever gets it.
    const own = await lettersTo('Priya Nakamura-Lind', number);
    expect(own.map(({ text }) => text).join()).toContain(`It is ${number}. The note: none.\n`);
    expect(own.map(({ text }) => text).join()).not.toMatch(/bees|There is a note/);
    // That one was to go tells that there is a note: whoever may not read it does not know of that either.
    expect((await emailsOf(number)).map(({ about }: Answer['body']) => about)).not.toContain('The secret');
  });

  it('are shown as each reader would get them, with why others would not, and no more than who looks may read', async () => {
    const text = 'For {reader.name}: {visitor}. The note: {medical_note}. Fee {fee}.';
    await inForce({
      usual: [{ kind: 'stage', subject: '', text: 'It is at {request.stage}.', off: true }],
      rules: [
        rule('all', { to: ['team', { person: desk.idOf('Hanne Istvan') }, 'requester'], text }),
        rule('noise', { when: 'medical_note != null', goes: { goes: 'gathered', minutes: 5 } }),
      ],
    });
    const number = await sent({ medical_note: 'An allergy to bees' });
    const shown = async (notice: string, reader: string | null = null, by = maren as Caller) =>
      by.call('showNotice', { ...of, body: { notice, number, reader: reader === null ? null : desk.idOf(reader) } });
    const { readers, letter, requests, holds } = ok(await shown('all', 'Nuala Fenwick'));
    expect([requests[0].number, holds]).toEqual([number, null]);
    expect(readers.map(({ name, how }: Answer['body']) => [name, how])).toEqual([
      ...[
        ['Cormac Dewhurst', 'now'],
        ['Ilse Brandvold', 'now'],
        ['Nuala Fenwick', 'now'],
      ],
      ...[
        ['Hanne Istvan', 'hidden'],
        ['Priya Nakamura-Lind', 'now'],
      ],
    ]);
    expect([letter.greeting, letter.paragraphs]).toEqual([
      'Dear Nuala Fenwick,',
      [expect.stringMatching(/^For Nuala Fenwick: Visitor z+\.$/)],
    ]);
    expect(letter.left).toEqual([
      { sentence: 'The note: {medical_note}.', names: ['Medical note'] },
      { sentence: 'Fee {fee}.', names: ['Fee'] },
    ]);
    // Who looks may not read the note: neither do they learn whether there is one.
    const noise = ok(await shown('noise'));
    expect([noise.holds, noise.readers.map(({ how }: Answer['body']) => how)]).toEqual([
      null,
      ['hidden', 'hidden', 'hidden'],
    ]);
    expect(ok(await shown('stage')).readers).toEqual([
      { id: desk.idOf('Priya Nakamura-Lind'), name: 'Priya Nakamura-Lind', how: 'off', at: null },
    ]);
    expect([(await shown('gone')).status, (await shown('all', null, ilse)).status]).toEqual([404, 403]);
    // Nothing was written to anybody by that, and that they looked is noted.
    expect((await emailsOf(number)).map(({ about }: Answer['body']) => about)).not.toContain('it is paused');
  });

  it('give a reason that was written for the desk to the desk alone', async () => {
    const text = 'Because: {happened.text|not told}.';
    await inForce({ usual: [], rules: [rule('moved', { on: { is: 'priority' }, to: ['team', 'requester'], text })] });
    const number = await sent();
    const { version } = await (maren as Caller).sheet(number);
    ok(
      await (maren as Caller).call('reroute', {
        ...{
          params: { number },
          headers: onVersion(version),
          body: { team: 'estates', priority: 'high', reason: 'They always shout' },
        },
      }),
    );
    const told = async (name: string) => (await lettersTo(name, 'Because')).map((letter) => letter.text);
    expect((await told('Ilse Brandvold')).join()).toContain('Because: They always shout.');
    expect((await told('Priya Nakamura-Lind')).join()).toContain('Because: not told.');
  });

  it('are sent by hand with words of whoever sends them, where their condition holds', async () => {
    await inForce({
      usual: [],
      rules: [
        rule('by hand', {
          key: 'by-hand',
          on: { is: 'hand' },
          to: ['requester'],
          text: 'Please come. {happened.text} {happened.by}.',
        }),
        rule('noise', { on: { is: 'hand' }, when: 'reason = "noise"' }),
        rule('nobody', { on: { is: 'hand' }, to: ['followers'] }),
      ],
    });
    const number = await sent();
    const of = { params: { number } };
    const offered = async (who: Caller) =>
      ok(await who.call('requestEmails', of)).byHand.map(({ key }: { key: string }) => key);
    expect(await offered(ilse as Caller)).toEqual(['by-hand', 'nobody']);
    const send = (notice: string, text: string, who = ilse as Caller) =>
      who.call('sendNotice', { ...of, body: { notice, text } });
    expect(ok(await send('by-hand', 'Bring your card.'))).toEqual({ people: 1 });
    expect(await lettersTo('Priya Nakamura-Lind', 'Please come. Bring your card. Ilse Brandvold.')).toHaveLength(1);
    // Without words of hers the sentence that has them is left out.
    ok(await send('by-hand', ''));
    expect(await lettersTo('Priya Nakamura-Lind', 'Please come.\n')).toHaveLength(1);
    const refused = await Promise.all([
      ...[send('noise', ''), send('gone', ''), send('nobody', ''), send('by-hand', '', priya)],
    ]);
    expect(refused.map(({ status }) => status)).toEqual([404, 404, 409, 404]);
  });

  it('go to a group in one email where it has an address, with what anybody in it may read', async () => {
    const ada = await desk.as('Ada Quillfeather');
    const group = { params: { key: 'estates' } };
    const address = async (mailbox: string): Promise<Answer> => {
      const { version } = ok(await ada.call('group', group));
      return ada.call('changeGroup', { ...group, headers: onVersion(version), body: { mailbox } });
    };
    expect((await address('no address')).status).toBe(422);
    ok(await address('estates@skerrow.example'));
    const text = 'For {reader.name}: {visitor}. The note: {medical_note}.';
    await inForce({
      usual: [],
      rules: [
        rule('one', { to: ['team', { person: desk.idOf('Ilse Brandvold') }], text }),
        rule('later', { goes: { goes: 'gathered', minutes: 9 } }),
      ],
    });
    const numbers = [await sent({ medical_note: 'An allergy to bees' }), await sent()];
    const [number = ''] = numbers;
    const letters = (await desk.letters()).filter(({ subject, text: body }) => `${subject} ${body}`.includes(number));
    const names = letters.map(({ to }) => to).sort();
    expect(names).toEqual([
      '"Estates" <estates@skerrow.example>',
      '"Estates" <estates@skerrow.example>',
      expect.stringContaining('Priya'),
    ]);
    const [one, usual] = ['The one', 'New request'].map((words) =>
      letters.find(({ subject }) => subject.startsWith(words)),
    );
    expect(one?.text).toMatch(
      /^Dear Estates,\n\nFor Estates: Visitor z+\.\n\nOpen the request:\nhttp[^\n]*\/floor\/all\/[^\n]*\n\nField/,
    );
    expect(usual?.text).toContain('Dear Estates,');
    const shown = ok(
      await (maren as Caller).call('showNotice', { ...of, body: { notice: 'one', number, reader: null } }),
    );
    expect([shown.readers, shown.letter.greeting]).toEqual([
      [{ id: 'group estates', name: 'Estates', how: 'now', at: null }],
      'Dear Estates,',
    ]);
    ok(await (maren as Caller).call('advanceClock', { body: { minutes: 10 } }));
    const [digest, ...more] = await lettersTo('Estates', 'The later');
    expect([numbers.every((each) => digest?.text.includes(each)), more]).toEqual([true, []]);
    // So do words of whoever asked, while nobody of them handles it, and what its deadline tells the team.
    ok(await (priya as Caller).call('myMessage', { params: { number }, body: { text: 'Is the gate open?' } }));
    await desk.running.lettersSent();
    expect([
      await lettersTo('Estates', 'Is the gate open?'),
      await lettersTo('Ilse Brandvold', 'Is the gate open?'),
    ]).toEqual([[expect.any(Object)], []]);
    ok(await address(''));
    const next = await sent();
    expect((await lettersTo('Ilse Brandvold', next)).length).toBeGreaterThan(1);
  });

  it('stand with all emails of the desk for who sees to its ground, and are sent again; others know of their own requests', async () => {
    await inForce({ usual: [{ kind: 'new-request', subject: '', text: '', off: true }], rules: [rule('seen', {})] });
    const number = await sent();
    // What waits to go has gone then.
    await desk.letters();
    const list = async (query: Readonly<Record<string, string>>, who = maren as Caller): Promise<Answer['body']> =>
      ok(await who.call('sentEmails', { query }));
    const told = ({ emails }: Answer['body']) =>
      emails.map((each: Answer['body']) => `${each.person}: ${each.about}, ${each.state}`);
    expect(told(await list({ find: number }))).toEqual(
      expect.arrayContaining([
        ...['Priya Nakamura-Lind: we have your request, sent', 'Ilse Brandvold: The seen, sent'],
        'Ilse Brandvold: a new request for the team, off',
      ]),
    );
    const unsent = await list({ state: 'unsent', find: 'ilse' });
    expect(unsent.emails.length).toBeGreaterThan(0);
    expect(new Set(unsent.emails.map(({ state }: Answer['body']) => state))).toEqual(new Set(['off']));
    // Page after page, each once, until there are no more.
    const ids: string[] = [];
    for (let before: string | null = ''; before !== null; ) {
      const page = await list(before === '' ? {} : { before });
      ids.push(...page.emails.map(({ id }: { id: string }) => id));
      before = page.next;
    }
    expect([ids.length > 50, new Set(ids).size]).toEqual([true, ids.length]);

    const before = (await lettersTo('Ilse Brandvold', number)).length;
    const [again] = (await list({ find: number, state: 'sent' })).emails.filter(
      ({ about }: { about: string }) => about === 'The seen',
    );
    ok(await (maren as Caller).call('advanceClock', { body: { minutes: 5 } }));
    ok(await (maren as Caller).call('sendEmailAgain', { params: { id: again.id } }));
    await desk.letters();
    const { emails: anew } = await list({ find: number, state: 'sent' });
    const gone = anew.find(({ id }: { id: string }) => id === again.id).goes;
    // To who gets it, it is the same email.
    expect([before, again.again]).toEqual([1, true]);
    expect(Date.parse(gone) - Date.parse(again.goes)).toBeGreaterThanOrEqual(5 * 60_000);
    expect(await lettersTo('Ilse Brandvold', number)).toHaveLength(1);
    const off = unsent.emails[0];
    expect(off.again).toBe(false);
    const missing = await Promise.all(
      [off.id, 'none'].map((id) => (maren as Caller).call('sendEmailAgain', { params: { id } })),
    );
    expect(missing.map(({ status }) => status)).toEqual([404, 404]);
    for (const who of [ilse, priya] as Caller[])
      expect([
        (await who.call('sentEmails')).status,
        (await who.call('sendEmailAgain', { params: { id: again.id } })).status,
      ]).toEqual([403, 403]);
  });

  it('are found wrong where they name what is not there, and say so', async () => {
    const found = await inForce({
      usual: [{ kind: 'message', subject: '', text: 'You have a message.' }],
      rules: [
        rule('one', { name: '', to: [], text: '{nowhere}' }),
        rule('two', {
          on: { is: 'becomes' },
          to: [{ group: 'gone' }],
          goes: { goes: 'digest', at: '08:00', days: [] },
        }),
        rule('three', { on: { is: 'stage', stages: ['gone'] }, when: 'reason > ', urgent: '1' }),
        rule('four', { on: { is: 'ring', deadline: 'finish', ring: 'gone' }, to: [{ field: 'reason' }] }),
      ],
    });
    expect(found).toEqual([
      '“Message” does not say what was written. Choose “what was written” in its text.',
      '“” puts in “nowhere”, which does not exist. Delete it from the text.',
      'A notice has no name. Enter one.',
      '“” goes to nobody. Choose who gets it.',
      '“The two” waits for something to become true, and nothing is named. Choose a condition.',
      'A group that gets “The two” does not exist any more. Choose others.',
      '“The two” has no day of the week. Choose at least one.',
      '“The three”, its condition: Something is missing at the end. Complete it.',
      '“The three”, when it goes at once: This gives a number. Write something here that gives: yes or no.',
      'A stage that “The three” names does not exist any more. Choose the stages again.',
      'A field that “The four” names does not exist, or is of another kind. Choose another field.',
      'The moment that “The four” is about does not exist any more. Choose another one.',
    ]);
  });

  // Last, as the days that visits are for pass by.
  it('of deadlines go to a group at its address, and not to each of it', async () => {
    const ada = await desk.as('Ada Quillfeather');
    const group = { params: { key: 'estates' } };
    const { version } = ok(await ada.call('group', group));
    const body = { mailbox: 'estates@skerrow.example' };
    ok(await ada.call('changeGroup', { ...group, headers: onVersion(version), body }));
    await inForce({ usual: [], rules: [] });
    const number = await sent();
    ok(await (maren as Caller).call('advanceClock', { body: { minutes: 20 * 24 * 60 } }));
    await desk.running.lettersSent();
    const late = (await desk.letters()).filter(
      ({ subject }) => subject.startsWith('Overdue') && subject.includes(number),
    );
    expect(late.map(({ to }) => to)).toContain('"Estates" <estates@skerrow.example>');
    expect(late.filter(({ to }) => to.includes('ilse'))).toEqual([]);
  });
});

const called = async (number: string): Promise<string> => (await (maren as Caller).sheet(number)).subject;
