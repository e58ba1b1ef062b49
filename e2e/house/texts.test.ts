import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';
import { releaseAs, telling } from './releasing.ts';

// A notice goes as an email, as a text message, or stands under the bell; under which everything stands that one was told.
let desk: Desk;
let maren: Caller;
let bram: Caller;
let priya: Caller;
let release = 0;

/** Puts notices of the form in force; what is found in them. */
const released = async (rules: readonly object[]): Promise<readonly string[]> => {
  const { release: number, found } = await releaseAs(maren, 'site-access', telling(rules));
  release = number ?? release;
  return found;
};
const rule = (ways: readonly string[], change: object = {}) => ({
  ...{ key: 'look', name: 'Look', on: { is: 'arrived' }, to: [{ person: desk.idOf('Bram Solheim') }], answers: false },
  ...{
    subject: 'Look at {request.number}',
    text: 'A visit, {request.number}.',
    goes: { goes: 'at-once' },
    ways,
    ...change,
  },
});
let visitors = 0;
const sent = async (): Promise<string> => {
  visitors += 1;
  const given = { ...VISIT, visitor: `Visitor ${'w'.repeat(visitors)}` };
  const { number } = ok(await priya.submit('come-on-site', given, { release }));
  await desk.running.lettersSent();
  return number;
};
const texts = async (): Promise<readonly { to: string; text: string }[]> => ok(await maren.call('texts')).texts;
const bell = async (who: Caller): Promise<Answer['body']> => ok(await who.call('bell'));
const told = async (number: string): Promise<readonly string[]> =>
  ok(await maren.call('requestEmails', { params: { number } }))
    .emails.filter(({ about, person }: Answer['body']) => about === 'Look' && person === 'Bram Solheim')
    .map(({ state, isText = false }: Answer['body']) => `${isText ? 'text' : 'email'} ${state}`)
    .sort();
const emails = async (subject: string): Promise<number> =>
  (await desk.letters()).filter((letter) => letter.subject.includes(subject)).length;
const setDesk = async (change: object): Promise<void> => {
  const { version, desk: before } = ok(await maren.call('deskSettings'));
  const { texts: _, ...rest } = before;
  ok(await maren.call('changeDesk', { headers: onVersion(version), body: { desk: { ...rest, ...change }, note: '' } }));
};
const phone = async (number: string | null): Promise<void> => {
  const id = desk.idOf('Bram Solheim');
  const { version } = ok(await maren.call('person', { params: { id } }));
  const body = { profile: { phone: number } };
  ok(await maren.call('changePerson', { params: { id }, headers: onVersion(version), body }));
};

beforeAll(async () => {
  desk = await Desk.open();
  [maren, bram, priya] = [
    await desk.as('Maren Okafor'),
    await desk.as('Bram Solheim'),
    await desk.as('Priya Nakamura-Lind'),
  ];
});
afterAll(() => desk.close());

describe('a text message', () => {
  it('goes to the number of whoever is told, with where it leads, as an email does by the same notice', async () => {
    await phone('+353 21 496 1234');
    expect(await released([rule(['email', 'text'])])).toEqual([]);
    const number = await sent();
    expect((await texts())[0]).toEqual({
      ...{ id: expect.any(String), receivedAt: expect.any(String), to: '+353214961234' },
      text: `A visit, ${number}. ${desk.running.url}/floor/all/${number}`,
    });
    expect(await emails(`Look at ${number}`)).toBe(1);
    expect(await told(number)).toEqual(['email sent', 'text sent']);
  });

  it('goes alone where its notice says so, and not to somebody without a number, which is told', async () => {
    expect(await released([rule(['text'])])).toEqual([]);
    const first = await sent();
    expect([await emails(`Look at ${first}`), await told(first)]).toEqual([0, ['text sent']]);
    const before = (await texts()).length;
    for (const none of ['01 555 0142', null]) {
      await phone(none);
      expect(await told(await sent())).toEqual(['text unreachable']);
    }
    expect((await texts()).length).toBe(before);
    await phone('+353 21 496 1234');
  });

  it('waits for the end of quiet hours, and is in no digest', async () => {
    const quiet = { ways: { news: 'digest' }, digest: { at: '16:00', days: [1, 2, 3, 4, 5, 6, 7] } };
    ok(await bram.call('setOwnEmails', { body: { ...quiet, quiet: { from: '10:00', to: '12:00' } } }));
    const numbers = [await sent(), await sent()];
    expect(await Promise.all(numbers.map(told))).toEqual([['text later'], ['text later']]);
    ok(await maren.call('advanceClock', { body: { minutes: 2 * 60 } }));
    await desk.running.lettersSent();
    const [second, first] = await texts();
    expect([first?.text, second?.text].map((text) => text?.slice(0, 18)).sort()).toEqual(
      numbers.map((number) => `A visit, ${number}.`.slice(0, 18)).sort(),
    );
  });

  it('can’t be had where the desk says no field with numbers', async () => {
    await setDesk({});
    expect(await released([rule(['text'])])).toEqual([
      '“Look” goes as a text message, and the desk has no number of anybody. Choose the field for it in the groundwork, under “Desk”.',
    ]);
    await setDesk({ texts: 'phone' });
    expect(await released([rule(['text'])])).toEqual([]);
  });

  it('comes once, however often its gateway is sent it', async () => {
    const send = () =>
      maren.call('takeText', {
        params: { sender: 'tel:+353000000' },
        body: {
          outboundSMSMessageRequest: {
            ...{ address: ['tel:+353211111111'], senderAddress: 'tel:+353000000', clientCorrelator: 'the-same' },
            outboundSMSTextMessage: { message: 'Twice' },
          },
        },
      });
    ok(await send());
    ok(await send());
    expect((await texts()).filter(({ text }) => text === 'Twice')).toHaveLength(1);
  });
});

describe('one of the usual notices', () => {
  /** Puts in force how one of them goes. */
  const usually = (kind: string, ways: readonly string[]): Promise<readonly string[]> =>
    releaseAs(maren, 'site-access', (draft) => {
      const usual = [{ kind, subject: '', text: '', ways }];
      return { ...telling([])(draft), notices: { usual, rules: [] } as never };
    }).then(({ release: number, found }) => {
      release = number ?? release;
      return found;
    });
  const given = async (): Promise<string> => {
    const number = await sent();
    const { version } = await maren.sheet(number);
    const body = { person: desk.idOf('Bram Solheim') };
    ok(await maren.call('assign', { params: { number }, headers: onVersion(version), body }));
    await desk.running.lettersSent();
    return number;
  };
  const ways = (number: string): readonly unknown[] =>
    desk.running.house.db.$client
      .prepare(
        "select way, state, why from notices where kind = 'assigned' and request_id = (select id from requests where number = ?) order by way",
      )
      .all(number);
  const SENT = { state: 'sent', why: null };

  it('goes as a text message besides, says what its subject says, and where that leads', async () => {
    expect(await usually('assigned', ['email', 'text'])).toEqual([]);
    const number = await given();
    expect(ways(number)).toEqual([
      { way: 'email', ...SENT },
      { way: 'text', ...SENT },
    ]);
    const [text] = (await texts()).filter((each) => each.text.includes(number));
    const [email] = (await desk.letters()).filter(
      ({ to, subject }) => to.includes('Bram') && subject.includes(number) && subject.includes('handler'),
    );
    expect([text?.to, text?.text]).toEqual([
      '+353214961234',
      `${email?.subject} ${desk.running.url}/floor/all/${number}`,
    ]);
    expect((await bell(bram)).items.filter(({ words }: { words: string }) => words === email?.subject)).toHaveLength(1);
  });

  it('goes by no email where the form says so, but for what always goes', async () => {
    expect(await usually('assigned', ['text'])).toEqual([]);
    expect(ways(await given())).toEqual([{ way: 'text', ...SENT }]);
    expect(await usually('assigned', [])).toEqual([]);
    const number = await given();
    expect(ways(number)).toEqual([{ way: 'bell', ...SENT }]);
    expect((await bell(bram)).items[0].path).toBe(`/floor/all/${number}`);
    await usually('message', ['text']);
    const asked = await sent();
    const to = { params: { number: asked }, headers: { 'Idempotency-Key': crypto.randomUUID() } };
    ok(await maren.call('comment', { ...to, body: { text: 'Which gate?', visibility: 'requester' } }));
    await desk.running.lettersSent();
    const kinds = desk.running.house.db.$client
      .prepare("select way from notices where kind = 'message' order by way")
      .all();
    expect(kinds).toEqual([{ way: 'email' }, { way: 'text' }]);
  });

  it('is found where nobody has a number, or whoever asks from outside would have no link', async () => {
    await setDesk({});
    expect(await usually('assigned', ['text'])).toEqual([expect.stringContaining('the desk has no number of anybody')]);
    await setDesk({ texts: 'phone' });
    await usually('received', ['text']);
    const { findings } = ok(await maren.call('form', { params: { key: 'site-access' } }));
    expect(findings.filter(({ at }: { at: string }) => at === 'received')).toHaveLength(1);
    await usually('received', ['email']);
  });
});

describe('the bell', () => {
  it('has what somebody was told, by whichever way, once, and counts what they have not seen', async () => {
    expect(await released([rule(['email', 'text'])])).toEqual([]);
    const number = await sent();
    const { unseen, items } = await bell(bram);
    expect(items[0]).toMatchObject({ words: `Look at ${number}`, path: `/floor/all/${number}`, isNew: true });
    expect(items.filter(({ words }: { words: string }) => words === `Look at ${number}`)).toHaveLength(1);
    expect(unseen).toBeGreaterThan(0);
    ok(await bram.call('seeBell', { body: { until: items[0].at } }));
    expect((await bell(bram)).unseen).toBe(0);
    // Nobody else’s.
    expect((await bell(priya)).items.some(({ words }: { words: string }) => words.startsWith('Look at'))).toBe(false);
    expect((await bell(priya)).items[0]).toMatchObject({ path: `/my/${number}` });
  });

  it('is all there is where a notice goes by no way, and has what somebody wants no email of', async () => {
    expect(await released([rule([])])).toEqual([]);
    const number = await sent();
    expect(await emails(`Look at ${number}`)).toBe(0);
    expect((await bell(bram)).items[0]).toMatchObject({ words: `Look at ${number}`, isNew: true });
    expect(await told(number)).toEqual(['email bell']);
  });

  it('tells nothing of what somebody may not read any more', async () => {
    const before = (await bell(bram)).items.length;
    expect(before).toBeGreaterThan(0);
    const group = 'boats';
    const id = desk.idOf('Bram Solheim');
    const { ways } = ok(await maren.call('person', { params: { id } }));
    expect(ways.map(({ key }: { key: string }) => key)).toContain(group);
    const { db } = desk.running.house;
    db.$client.exec("update requests set team = null where team = 'boats'");
    const left = (await bell(bram)).items as readonly { words: string }[];
    expect(left.some(({ words }) => words.startsWith('Look at'))).toBe(false);
  });
});

describe('a gateway that is not there', () => {
  it('is tried seven times, and what was given up is told on the Floor and apart from emails', async () => {
    const texts = { url: 'http://127.0.0.1:9', token: 'none', from: '+353210000000' };
    const other = await Desk.open(0, undefined, { texts });
    try {
      const [coordinator, asks] = [await other.as('Maren Okafor'), await other.as('Priya Nakamura-Lind')];
      const to = [{ person: other.idOf('Bram Solheim') }];
      const { release } = await releaseAs(coordinator, 'site-access', telling([{ ...rule(['text']), to }]));
      ok(await asks.submit('come-on-site', VISIT, { release: release ?? 0 }));
      await other.running.lettersSent();
      const state = () =>
        other.running.house.db.$client
          .prepare("select state, attempts from notices where way = 'text' order by created_at desc limit 1")
          .get();
      expect(state()).toEqual({ state: 'waiting', attempts: 1 });
      for (const minutes of [1, 3, 11, 31, 121, 481]) {
        ok(await coordinator.call('advanceClock', { body: { minutes } }));
        await other.running.lettersSent();
      }
      expect(state()).toEqual({ state: 'failed', attempts: 7 });
      const trays = ok(await coordinator.call('trays'));
      expect([trays.failedTexts, trays.failedLetters]).toEqual([1, 0]);
      expect(ok(await coordinator.call('sendFailedAgain')).letters).toBe(1);
    } finally {
      await other.close();
    }
  });
});
