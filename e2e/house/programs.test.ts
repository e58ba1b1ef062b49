import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { CloudEvent, HTTP } from 'cloudevents';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';
import { releaseAs, telling } from './releasing.ts';

// Other programs: they ask by keys of their own, and are told by notices. What they are sent is read by other people’s code.
let desk: Desk;
let maren: Caller;
let ada: Caller;
let priya: Caller;
let release = 0;
const of = { params: { key: 'site-access' } };

/** A program as it runs elsewhere: it keeps what it is sent, and answers what it is told to. */
interface Heard {
  readonly path: string;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}
let heard: Heard[] = [];
let answers: (path: string, body: string) => number | 'nothing' = () => 204;
let server: Server;
const addressOf = (path: string): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}/${path}`;

const plan = (change: object = {}): Record<string, unknown> => ({
  ...{ name: 'Boat log', note: 'Looked after by Boats', address: addressOf('log'), may: [], groups: [], ...change },
});
const made = async (change: object = {}, who = ada): Promise<Answer> =>
  who.call('createProgram', { headers: freshly(), body: { program: plan(change) } });
const opened = async (key: string): Promise<Answer['body']> => ok(await ada.call('program', { params: { key } }));
const put = async (key: string, change: object, note = ''): Promise<Answer> => {
  const { version, program } = await opened(key);
  const { key: _, ...before } = program;
  return ada.call('changeProgram', {
    ...{ params: { key }, headers: onVersion(version) },
    body: { program: { ...before, ...change }, note },
  });
};
const keyOf = async (program: string, days: number | null = null): Promise<{ id: string; key: string }> =>
  ok(await ada.call('addProgramKey', { params: { key: program }, body: { name: 'Boat house', days } }));
/** Calls a route as a program does: with a key, and no cookie. */
const by = async (key: string, name: Parameters<Caller['call']>[0], input: Parameters<Caller['call']>[1] = {}) =>
  new Caller(desk, 'a program', '').call(name, {
    ...input,
    headers: { ...input.headers, authorization: `Bearer ${key}` },
  });
const problems = ({ status, body }: Answer): readonly unknown[] => [
  status,
  ...(body.problems ?? []).map(({ field, message }: { field: string; message: string }) => `${field}: ${message}`),
];

/** Puts notices of the form in force; what is found in them. */
const released = async (rules: readonly object[]): Promise<readonly string[]> => {
  const { release: number, found } = await releaseAs(maren, 'site-access', telling(rules));
  release = number ?? release;
  return found;
};
const rule = (to: string, change: object = {}) => ({
  ...{ key: 'log', name: 'Into the log', on: { is: 'arrived' }, to: [{ program: to }], answers: true },
  ...{ subject: '', text: 'A visit: {request.number}.', goes: { goes: 'at-once' }, ...change },
});
let visitors = 0;
const sent = async (): Promise<string> => {
  visitors += 1;
  const given = { ...VISIT, visitor: `Visitor ${'z'.repeat(visitors)}` };
  const { number } = ok(await priya.submit('come-on-site', given, { release }));
  await desk.running.lettersSent();
  return number;
};
const wait = async (minutes: number): Promise<void> => {
  ok(await maren.call('advanceClock', { body: { minutes } }));
  await desk.running.lettersSent();
};
const READS_ALL = [{ right: 'read:all', register: null }];

beforeAll(async () => {
  server = createServer((request, response) => {
    let body = '';
    request.on('data', (part: Buffer) => (body += part.toString()));
    request.on('end', () => {
      const path = request.url?.slice(1) ?? '';
      heard.push({ path, headers: request.headers, body });
      const status = answers(path, body);
      if (status === 'nothing') request.socket.destroy();
      else response.writeHead(status, { location: addressOf('elsewhere') }).end();
    });
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  desk = await Desk.open();
  [maren, ada, priya] = [
    await desk.as('Maren Okafor'),
    await desk.as('Ada Quillfeather'),
    await desk.as('Priya Nakamura-Lind'),
  ];
});
afterAll(async () => {
  await desk.close();
  await new Promise((done) => server.close(done));
});

describe('programs', () => {
  it('are made by those who decide about rights, seen by those who lay the ground, and refused where they can’t work', async () => {
    expect([(await made({}, maren)).status, (await made({}, priya)).status]).toEqual([403, 403]);
    expect([(await maren.call('programs')).status, (await priya.call('programs')).status]).toEqual([200, 403]);
    const wrong = {
      ...{ name: ' ', address: 'http://boats.example/in', groups: ['gone'] },
      may: [{ right: 'read:all', register: 'gone' }],
    };
    expect(problems(await made(wrong))).toEqual([
      422,
      'name: The program has no name. Enter a name.',
      'address: This is not an address that can be used. Write one that begins with https://.',
      'groups: A group that it reads as does not exist any more. Remove it.',
      'may: A register in which it may do something does not exist any more. Remove the line.',
    ]);
    expect((await made({ may: [{ right: 'rights', register: null }] })).status).toBe(400);
  });
});

describe('a key', () => {
  let program: string;
  let key: { id: string; key: string };
  let number: string;

  beforeAll(async () => {
    number = await sentPlain();
    program = ok(await made({ name: 'Reader' })).key;
    key = await keyOf(program);
  });
  const sentPlain = async (): Promise<string> => {
    release = ok(await maren.call('form', of)).releases[0].number;
    return sent();
  };

  it('opens what its program may do, and nothing else', async () => {
    const reads = async () => by(key.key, 'sheet', { params: { number } });
    expect((await reads()).status).toBe(404);
    ok(await put(program, { may: READS_ALL }));
    const sheet = ok(await reads());
    expect(sheet.number).toBe(number);
    expect(ok(await by(key.key, 'ledger', { query: { tray: 'all' } })).total).toBeGreaterThan(0);
    const stage = { params: { number }, headers: onVersion(sheet.version), body: { stage: 'working', reason: '' } };
    const refusals = [
      await by(key.key, 'changeFields', { ...stage, body: { changes: {} } }),
      await by(key.key, 'comment', { params: { number }, body: { text: 'From a program', visibility: 'internal' } }),
    ];
    expect(refusals.map(({ status }) => status)).toEqual([403, 403]);
    // What is not made for programs stays shut, whatever they may do.
    const shut = [
      await by(key.key, 'people'),
      await by(key.key, 'me'),
      await by(key.key, 'programs'),
      await by(key.key, 'decide', { params: { number }, headers: freshly(), body: {} }),
      await by(key.key, 'submit', { params: { slug: 'come-on-site' }, headers: freshly(), body: {} }),
    ];
    expect(shut.map(({ status, body }) => `${status} ${body.title}`)).toEqual(
      shut.map(() => '403 Programs cannot call this.'),
    );
  });

  it('does what it does under the name of its program, with a line in the history', async () => {
    ok(await put(program, { may: [...READS_ALL, { right: 'change:all', register: null }] }));
    ok(
      await by(key.key, 'comment', { params: { number }, body: { text: 'The gate is open.', visibility: 'internal' } }),
    );
    const { history } = await maren.sheet(number);
    expect(JSON.stringify(history)).toContain('Reader');
    expect(JSON.stringify(history)).toContain('The gate is open.');
  });

  it('reads in one register what its rights there let it, and fields as its groups do', async () => {
    const registers = ok(await ada.call('programs')).registers as readonly { id: string; name: string }[];
    const other = registers.find(({ name }) => /purchase/i.test(name));
    ok(await put(program, { may: [{ right: 'read:all', register: other?.id }] }));
    expect((await by(key.key, 'sheet', { params: { number } })).status).toBe(404);
    ok(await put(program, { may: READS_ALL }));
    const fieldsSeen = async (): Promise<number> =>
      ok(await by(key.key, 'sheet', { params: { number } })).values.fields.length;
    const before = await fieldsSeen();
    const groups = ok(await ada.call('programs')).groups.map((each: { key: string }) => each.key);
    ok(await put(program, { groups: groups.slice(0, 60) }));
    expect(await fieldsSeen()).toBeGreaterThanOrEqual(before);
    ok(await put(program, { groups: [] }));
  });

  it('opens nothing when it ended, ran out, never was, or its program is retired', async () => {
    const tried = async (shown: string): Promise<string> => {
      const { status, body } = await by(shown, 'ledger', { query: { tray: 'all' } });
      return `${status} ${body.type ?? ''}`;
    };
    const short = await keyOf(program, 1);
    expect([await tried(key.key), await tried(short.key)]).toEqual(['200 ', '200 ']);
    const shut = '401 urn:tolvek:problem:key-unknown';
    expect([await tried(`${key.key}x`), await tried('tlv_'), await tried('x y')]).toEqual([shut, shut, shut]);
    ok(await ada.call('endProgramKey', { params: { key: program, id: short.id } }));
    expect(await tried(short.key)).toBe(shut);
    const day = await keyOf(program, 1);
    await wait(24 * 60);
    expect(await tried(day.key)).toBe(shut);
    // What a proxy in front asks of a browser is no key of ours.
    const basic = { headers: { authorization: 'Basic dG9sdmVrOng=' } };
    expect((await fetch(`${desk.running.url}/api/me`, basic)).status).toBe(200);
    ok(await put(program, { retired: true }));
    expect(await tried(key.key)).toBe(shut);
    ok(await put(program, { retired: false }));
    expect(await tried(key.key)).toBe('200 ');
    const { keys } = await opened(program);
    expect(keys.map(({ state }: { state: string }) => state).sort()).toEqual(['ended', 'expired', 'works']);
    expect(JSON.stringify(await opened(program))).not.toContain(key.key);
  });
});

describe('a notice to a program', () => {
  let program: string;
  const secret = async (): Promise<string> => ok(await ada.call('programSecret', { params: { key: program } })).secret;
  const told = async () => (await opened(program)).told as readonly Answer['body'][];
  /** What was heard, as a program reads it that was written by others. */
  const read = async ({ headers, body }: Heard, by: string): Promise<CloudEvent<Answer['body']>> => {
    new Webhook(by).verify(body, headers as Record<string, string>);
    const event = HTTP.toEvent<Answer['body']>({ headers, body });
    if (Array.isArray(event) || !('specversion' in event)) throw new Error('That is not one event.');
    return new CloudEvent(event);
  };

  beforeAll(async () => {
    program = ok(await made({ may: READS_ALL })).key;
    expect(await released([rule(program)])).toEqual([]);
  });

  it('is a signed CloudEvent with what the program may read', async () => {
    heard = [];
    const number = await sent();
    expect(heard.map(({ path }) => path)).toEqual(['log']);
    const event = await read(heard[0] as Heard, await secret());
    expect(event).toMatchObject({ type: 'tolvek.request.arrived', subject: number, source: desk.running.url });
    expect(event.data).toMatchObject({
      notice: { key: 'log', name: 'Into the log' },
      request: { number, team: 'Boats', url: `${desk.running.url}/floor/all/${number}` },
      words: { text: expect.stringContaining(`A visit: ${number}.`) },
    });
    // The same as what its key opens, and no more.
    const { key } = await keyOf(program);
    const sheet = ok(await by(key, 'sheet', { params: { number } }));
    const seen = sheet.values.fields.map((each: { key: string }) => each.key).sort();
    expect(event.data?.answers.map((each: { field: string }) => each.field).sort()).toEqual(seen);
    expect(() =>
      new Webhook(`whsec_${'A'.repeat(43)}=`).verify(heard[0]?.body ?? '', heard[0]?.headers as never),
    ).toThrow();
  });

  it('is not told of what the program may not read, and says so', async () => {
    heard = [];
    ok(await put(program, { may: [] }));
    await sent();
    expect(heard).toEqual([]);
    expect((await told())[0]).toMatchObject({ state: 'hidden' });
    ok(await put(program, { may: READS_ALL }));
  });

  it('goes again under the same id until it is taken; what one refuses holds up nothing else', async () => {
    heard = [];
    const refuses = await refusedOne();
    answers = (_, body) => (body.includes(refuses.marked) ? 422 : 204);
    const second = await sent();
    expect(heard.at(-1)?.body).toContain(second);
    expect((await told()).map(({ state }) => state).slice(0, 2)).toEqual(['sent', 'waiting']);
    answers = () => 204;
    await wait(3);
    const tries = heard.filter(({ body }) => body.includes(refuses.number));
    expect(tries.length).toBeGreaterThanOrEqual(2);
    expect(new Set(tries.map(({ headers }) => headers['webhook-id'])).size).toBe(1);
    expect((await told()).map(({ state }) => state).slice(0, 2)).toEqual(['sent', 'sent']);
  });
  const refusedOne = async (): Promise<{ number: string; marked: string }> => {
    answers = () => 422;
    const number = await sent();
    return { number, marked: number };
  };

  it('waits as a whole for a program that can’t be reached, and comes in order when it is back', async () => {
    heard = [];
    answers = () => 'nothing';
    const numbers = [await sent(), await sent(), await sent()];
    // One try was made of the first, none of the others.
    expect(new Set(heard.map(({ headers }) => headers['webhook-id'])).size).toBe(1);
    expect((await told()).slice(0, 3).map(({ attempts }) => attempts)).toEqual([0, 0, 1]);
    expect((await told())[2]?.error).toMatch(/did not answer/);
    heard = [];
    answers = () => 204;
    await wait(1);
    const events = await Promise.all(heard.map(async (each) => read(each, await secret())));
    expect(events.map(({ subject }) => subject)).toEqual(numbers);
  });

  it('counts as not taken at once where it is gone, and can be told again by hand', async () => {
    answers = () => 410;
    await sent();
    const [first] = await told();
    expect(first).toMatchObject({ state: 'failed', error: 'It answered 410.', again: true });
    answers = () => 204;
    heard = [];
    ok(await ada.call('tellProgramAgain', { params: { key: program, id: first?.id } }));
    await desk.running.lettersSent();
    expect(heard).toHaveLength(1);
    expect(heard[0]?.headers['webhook-id']).toBe(first?.id);
    expect((await told())[0]).toMatchObject({ state: 'sent' });
  });

  it('is led nowhere else', async () => {
    heard = [];
    answers = () => 307;
    await sent();
    expect(heard.map(({ path }) => path)).toEqual(['log']);
    answers = () => 204;
    await wait(1);
  });

  it('is signed with both secrets for a day after a new one', async () => {
    const old = await secret();
    const { secret: fresh, untilBoth } = ok(await ada.call('renewProgramSecret', { params: { key: program } }));
    expect(fresh).not.toBe(old);
    expect(untilBoth).not.toBeNull();
    heard = [];
    await sent();
    const [both] = heard as [Heard];
    await read(both, old);
    await read(both, fresh);
    await wait(24 * 60);
    heard = [];
    await sent();
    await expect(read(heard[0] as Heard, old)).rejects.toThrow();
    await read(heard[0] as Heard, fresh);
  });

  it('tells a program nothing of what it did itself', async () => {
    expect(
      await released([rule(program, { on: { is: 'message', from: 'either' }, text: 'Written: {happened.text}' })]),
    ).toEqual([]);
    ok(await put(program, { may: [...READS_ALL, { right: 'change:all', register: null }] }));
    const number = await sent();
    const { key } = await keyOf(program);
    heard = [];
    ok(await by(key, 'comment', { params: { number }, body: { text: 'From the log', visibility: 'requester' } }));
    await desk.running.lettersSent();
    expect(heard).toEqual([]);
    ok(await maren.call('comment', { params: { number }, body: { text: 'From the desk', visibility: 'requester' } }));
    await desk.running.lettersSent();
    expect(heard.map(({ body }) => JSON.parse(body).data.happened)).toEqual([
      { by: 'Maren Okafor', text: 'From the desk' },
    ]);
  });

  it('keeps its program from being retired, and a program that is told nothing from being released', async () => {
    expect(problems(await put(program, { retired: true }))).toEqual([
      422,
      expect.stringContaining('retired: The form “'),
    ]);
    expect(problems(await put(program, { address: '' }))[1]).toContain('address: The form “');
    expect(await released([rule('lost')])).toEqual([
      'A program that is told “Into the log” is told nothing any more. Choose others.',
    ]);
  });

  it('can be tried, and the test is told as such', async () => {
    heard = [];
    ok(await ada.call('tryProgram', { params: { key: program } }));
    await desk.running.lettersSent();
    expect(heard.map(({ body }) => JSON.parse(body))).toEqual([
      expect.objectContaining({ type: 'tolvek.test', data: { text: 'This is a test. Nothing happened.' } }),
    ]);
  });
});

describe('a program that works at the desk', () => {
  it('gives, moves and changes as far as it may, each under its own name, and does nothing that is for people', async () => {
    const may = (['read:all', 'change:all', 'move:all', 'assign:all', 'history:all'] as const).map((right) => ({
      ...{ right, register: null },
    }));
    const program = ok(await made({ name: 'Gate', may })).key;
    const { key } = await keyOf(program);
    const number = await sent();
    const onIt = async (name: Parameters<Caller['call']>[0], body: object): Promise<Answer> => {
      const { version } = ok(await by(key, 'sheet', { params: { number } }));
      return by(key, name, { params: { number }, headers: onVersion(version), body });
    };
    ok(await onIt('assign', { person: desk.idOf('Bram Solheim') }));
    ok(await onIt('changeFields', { changes: { reason: 'Calibration of the other gauge' } }));
    ok(await onIt('moveStage', { stage: 'in_hand' }));
    ok(await onIt('reroute', { team: 'estates', priority: 'high', reason: 'The gate says so' }));
    const { history } = await maren.sheet(number);
    const its = (history as readonly { by: unknown }[]).filter((line) => JSON.stringify(line).includes('"Gate"'));
    expect(its.length).toBeGreaterThanOrEqual(4);
    // Nobody is given work that is no person.
    expect((await onIt('assign', { person: `~${program}` })).status).toBe(422);
    const forPeople = [
      await by(key, 'act', { params: { number, action: 'ask' }, body: {} }),
      await by(key, 'followRequest', { params: { number }, body: {} }),
      await by(key, 'shareRequest', { params: { number }, body: {} }),
    ];
    expect(forPeople.map(({ status }) => status)).toEqual([403, 403, 403]);
  });
});

describe('the stand-in', () => {
  it('takes what a program is told, as it is said in the name what is answered', async () => {
    const address = `${desk.running.url}/api/stand-in/programs/gate`;
    const key = ok(await made({ name: 'Gate', address })).key;
    ok(await ada.call('tryProgram', { params: { key } }));
    await desk.running.lettersSent();
    const { told } = ok(await maren.call('toldPrograms'));
    expect(told[0]).toMatchObject({ name: 'gate', status: 200 });
    ok(await put(key, { address: `${address}-503` }));
    ok(await ada.call('tryProgram', { params: { key } }));
    await desk.running.lettersSent();
    expect((await opened(key)).told[0]).toMatchObject({ state: 'waiting', attempts: 1, error: 'It answered 503.' });
  });
});
