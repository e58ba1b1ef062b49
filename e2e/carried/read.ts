import { type Route, type RouteName, routes } from '@tolvek/contract';
import { letters, notices, people, requests } from '@tolvek/server/schema';
import { asc, eq } from 'drizzle-orm';
import { type Caller, Desk } from '../house/desk.ts';
import { LATER, PEOPLE, WIM } from './play.ts';

/** One call of a reading: who called what, and what was answered. */
export interface Call {
  readonly who: string;
  readonly route: RouteName | 'bytes';
  readonly input: CallInput;
  readonly status: number;
  readonly body: unknown;
}
interface CallInput {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
  /** For what is answered in bytes. */
  readonly path?: string;
  /** The change is made on the version that is read first. */
  readonly onVersion?: string;
  /** The decision is made on what is read first. */
  readonly onSeen?: 'sheet' | 'link';
}

/** What everybody reads of a data folder, and what happens when life goes on in it. */
export interface Reading {
  readonly reads: readonly Call[];
  readonly goesOn: readonly Call[];
  /** What stands in the database, read by nobody’s rights. */
  readonly facts: Facts;
  /** All letters, once life has gone on. */
  readonly posted: readonly Readonly<Record<string, string>>[];
}
type Facts = ReturnType<typeof factsOf>;

/** Everybody who reads: nine of the staff, and whoever comes from outside with the links of letters. */
export const READERS = [...PEOPLE, 'outside'] as const;

/** Calls that nothing can be compared by: a stream, and the description of the application. */
export const NOT_READ: Readonly<Partial<Record<RouteName, string>>> = {
  live: 'a stream of what changes, and nothing changes',
  openapi: 'describes the application and not its data',
};

const TRAYS = ['arrived', 'mine', 'team', 'deciding', 'paused', 'late', 'all', 'things'];

/**
 * Stops the clock for as long as a folder is read: what is read twice is read at the same moment.
 * Returns what lets it go on.
 */
export function standStill(): () => void {
  const { now } = Date;
  const at = now();
  Date.now = () => at;
  return () => {
    Date.now = now;
  };
}

/** Reads a folder as it was recorded, or all there is to read when there is no recording. */
export async function readFolder(folder: string, recorded: Reading | null): Promise<Reading> {
  const goOn = standStill();
  const desk = await Desk.open(0, folder);
  try {
    const callers = new Map<string, Caller>();
    for (const name of READERS) callers.set(name, await desk.as(name === 'outside' ? undefined : name));
    await desk.running.dayTurned();
    await desk.running.lettersSent();
    const facts = factsOf(desk);
    const ask = (call: Pick<Call, 'who' | 'route' | 'input'>) => called(desk, callers.get(call.who) as Caller, call);
    const reads: Call[] = [];
    for (const call of recorded?.reads ?? toRead(desk)) reads.push(await ask(call));
    const goesOn: Call[] = [];
    for (const call of recorded?.goesOn ?? toGoOn(desk)) {
      goesOn.push(await ask(call));
      if (call.route === 'advanceClock') await desk.running.dayTurned();
      await desk.running.lettersSent();
    }
    return { reads, goesOn, facts, posted: posted(desk) };
  } finally {
    await desk.running.stop();
    goOn();
  }
}

async function called(
  desk: Desk,
  caller: Caller,
  { who, route, input }: Pick<Call, 'who' | 'route' | 'input'>,
): Promise<Call> {
  if (route === 'bytes') {
    const headers: Record<string, string> = caller.cookie ? { cookie: caller.cookie } : {};
    const answer = await fetch(`${desk.running.url}${input.path}`, { headers });
    return { who, route, input, status: answer.status, body: await answer.text() };
  }
  const { onVersion, onSeen, ...rest } = input;
  const version =
    onVersion === undefined ? 0 : (await caller.call('sheet', { params: { number: onVersion } })).body.version;
  const seen =
    onSeen === 'sheet'
      ? (await caller.call('sheet', { params: rest.params ?? {} })).body?.approval?.seen
      : onSeen === 'link'
        ? (await caller.call('decisionLink', { params: rest.params ?? {} })).body?.seen
        : undefined;
  const answer = await caller.call(route, {
    ...rest,
    ...(onVersion === undefined ? {} : { headers: { 'If-Match': `"${version}"` } }),
    ...(onSeen === undefined ? {} : { body: { ...(rest.body as object), seen: seen ?? 'nothing' } }),
  });
  // As it is answered: what a page says of it is for the page.
  const body = answer.text ? JSON.parse(answer.text) : null;
  return { who, route, input, status: answer.status, body: inOrder(route, body) };
}

/** Letters that came at the same moment come in any order. */
function inOrder(route: RouteName, body: { letters?: readonly { receivedAt: string; to: string; subject: string }[] }) {
  if (route !== 'mailroom' || !body.letters) return body;
  const sign = (each: { receivedAt: string; to: string; subject: string }): string =>
    `${each.receivedAt} ${each.to} ${each.subject}`;
  return { ...body, letters: [...body.letters].sort((a, b) => sign(a).localeCompare(sign(b))) };
}

/** Links in letters, by where they lead. */
function linksIn(
  desk: Desk,
): Readonly<Record<'confirm' | 'follow' | 'decide' | 'kept' | 'my' | 'floor', readonly string[]>> {
  const all = desk.running.house.db
    .select({ said: notices.said })
    .from(notices)
    .orderBy(asc(notices.id))
    .all()
    .map(({ said }) => (said && 'text' in said ? said.text : ''))
    .join('\n');
  const found = (way: RegExp): readonly string[] => [...new Set([...all.matchAll(way)].map((each) => each[1] ?? ''))];
  return {
    confirm: found(/\/confirm\/([\w-]+)/g),
    follow: found(/\/follow\/([\w-]+)/g),
    decide: found(/\/decide\/([\w-]+)/g),
    kept: found(/\?kept=([\w-]+)/g),
    my: found(/\/my\/([\w-]+)/g),
    floor: found(/\/floor\/\w+\/([\w-]+)/g),
  };
}

/** Everything there is to read, by everybody. */
function toRead(desk: Desk): readonly Pick<Call, 'who' | 'route' | 'input'>[] {
  const { $client } = desk.running.house.db;
  const column = (query: string): readonly string[] => $client.prepare(query).pluck().all() as string[];
  const numbers = column('select number from requests order by number');
  const forms = column('select key from forms order by key');
  const slugs = column('select slug from doors order by slug');
  // What is sent again at this start gets an id of its own.
  const known = column(`select id from letters where received_at < ${desk.running.house.clock.now()} order by id`);
  const links = linksIn(desk);
  const files = $client
    .prepare(
      'select number, uploads.id from uploads join requests on requests.id = request_id order by number, uploads.id',
    )
    .all() as readonly { number: string; id: string }[];
  const each = (values: readonly string[], name: string, more: object = {}): readonly CallInput[] =>
    values.map((value) => ({ params: { [name]: value }, ...more }));
  const bytes = [
    ...files.map(({ number, id }) => `/api/requests/${number}/files/${id}`),
    ...forms.flatMap((form) => ['unfinished', 'all'].map((among) => `/api/forms/${form}/requests.csv?among=${among}`)),
  ].map((path) => ({ path }));
  const followed = links.follow
    .flatMap((token) => files.map(({ id }) => `/api/follow/${token}/files/${id}`))
    .map((path) => ({ path }));
  const conditions = ['size > 5', 'old', 'mark = "stamped"', 'species = "saithe"', 'berths > 3', 'pieces > 3'];
  const releases = $client
    .prepare('select key, number from releases join forms on forms.id = form_id order by key, number')
    .all() as readonly { key: string; number: number }[];
  const some = (route: RouteName, inputs: readonly CallInput[] = [{}]) => ({ route, inputs });
  const everybody = [
    ...(['health', 'me', 'frontDesk', 'trays', 'ground', 'vocabularies'] as const).map((route) => some(route)),
    some('door', each(slugs, 'slug')),
    some('ledger', [...TRAYS.map((tray) => ({ query: { tray } })), { query: { tray: 'all', find: 'net' } }]),
    some('sheet', each(numbers, 'number')),
    some('myRequest', each(numbers, 'number')),
    some('form', each(forms, 'key')),
    // What was found in a form is known once it was looked at.
    some('forms'),
    some('draftHistory', each(forms, 'key')),
    some(
      'compareRelease',
      releases.map(({ key, number }) => ({ params: { key, number: String(number) } })),
    ),
    some('vocabulary', each(['species', 'hazards'], 'key')),
    some(
      'tryCondition',
      conditions.map((condition) => ({ params: { key: 'gear' }, body: { condition, number: null } })),
    ),
    some(
      'overExisting',
      ['marks', 'stamps', 'undoes'].map((rule) => ({
        params: { key: 'gear', rule },
        body: { among: 'all', shown: null },
      })),
    ),
    some(
      'offers',
      ['gear', 'main'].map((field) => ({ params: { slug: 'hauls' }, body: { field, find: '', answers: {} } })),
    ),
    some('draftOffers', [
      { params: { key: 'hauls' }, body: { field: 'gear', find: 'n', answers: {}, person: null, outside: false } },
    ]),
    some(
      'sheetOffers',
      each(
        numbers.filter((number) => number.startsWith('HA-')),
        'number',
        { body: { field: 'main', find: '' } },
      ),
    ),
    some('checkAnswers', [
      { params: { slug: 'gear' }, body: { answers: { what: 'Rope', code: 'N4', born: '2026-11-23' } } },
      { params: { slug: 'gear' }, body: { answers: { what: 'x', code: 'F1' } } },
    ]),
  ];
  const outside = [
    some('mailroom', [{}, { query: { find: 'decide' } }]),
    some('letter', each(known, 'id')),
    some('confirmation', each(links.confirm, 'token')),
    some('follow', each(links.follow, 'token')),
    some('decisionLink', each(links.decide, 'token')),
    some('kept', each(links.kept, 'token')),
  ];
  return READERS.flatMap((who) => [
    ...[...everybody, ...(who === 'outside' ? outside : [])].flatMap(({ route, inputs }) =>
      inputs.map((input) => ({ who, route, input })),
    ),
    ...[...bytes, ...(who === 'outside' ? followed : [])].map((input) => ({ who, route: 'bytes' as const, input })),
  ]);
}

/** Life goes on: what was sent is sent again, what waits is done, and time passes. */
function toGoOn(desk: Desk): readonly Pick<Call, 'who' | 'route' | 'input'>[] {
  const { $client } = desk.running.house.db;
  const links = linksIn(desk);
  const one = (query: string): string => String($client.prepare(query).pluck().get());
  const all = (query: string): readonly string[] => $client.prepare(query).pluck().all() as string[];
  const call = (who: string, route: RouteName, input: CallInput = {}) => ({ who, route, input });
  const again = (key: string) => ({ 'Idempotency-Key': `carried-${key}` });
  const pass = (minutes: number) => call('outside', 'advanceClock', { body: { minutes } });
  const numbers = all(
    "select number from requests where number like 'GE-%' or number like 'HA-%' or number like 'AC-%'",
  );
  const looking = [
    ...numbers.map((number) => call('Maren Okafor', 'sheet', { params: { number } })),
    call('Bram Solheim', 'trays'),
    call('Maren Okafor', 'trays'),
    call('Maren Okafor', 'ledger', { query: { tray: 'late' } }),
  ];
  const deciding = all("select number from requests where stage = 'deciding' and trial = 0 order by number");
  const paused = all("select number from requests where phase = 'paused' and trial = 0 order by number");
  const answers = { what: 'New', code: 'F1', size: 9, born: '2026-11-24' };
  return [
    // Sent again under the same key: answered as it was.
    call('Priya Nakamura-Lind', 'submit', {
      params: { slug: 'come-on-site' },
      headers: again('come-on-site-1001'),
      body: { release: 1, answers: { ...LATER, visitor: 'Given up' } },
    }),
    call('outside', 'submit', {
      params: { slug: 'visit' },
      headers: again('waiting'),
      body: { release: 1, answers: { ...LATER, visitor: 'Confirm waits' }, contact: WIM },
    }),
    ...[answers, { ...answers, code: 'Z9', what: 'Newest' }].map((each, index) =>
      call('Hanne Istvan', 'submit', {
        params: { slug: 'gear' },
        headers: again(`new-${index}`),
        body: { release: 2, answers: each },
      }),
    ),
    call('Maren Okafor', 'takeRunBack', {
      params: { key: 'gear', run: one('select id from rule_runs where taken_back_at is null') },
    }),
    call('Maren Okafor', 'clearTrials', { params: { key: 'gear' } }),
    call('Maren Okafor', 'setDoor', { params: { slug: 'stopped' }, body: { open: true, closedMessage: '' } }),
    call('Priya Nakamura-Lind', 'submit', {
      params: { slug: 'stopped' },
      headers: again('opened'),
      body: { release: 1, answers: { what: 'Opened again', why: 'It was shut.' } },
    }),
    call('Maren Okafor', 'releaseForm', {
      params: { key: 'site-access' },
      headers: { 'If-Match': `"${one("select version from forms where key = 'site-access'")}"` },
      body: { note: 'Please' },
    }),
    call('Maren Okafor', 'sendFailedAgain'),
    ...links.confirm.map((token) => call('outside', 'confirm', { params: { token } })),
    ...links.decide.map((token, index) =>
      call('outside', 'decideByLink', {
        params: { token },
        headers: again(`link-on-${index}`),
        body: { verdict: index % 2 === 0 ? 'approve' : 'refuse', comment: 'By link.' },
        onSeen: 'link',
      }),
    ),
    ...deciding.map((number) =>
      call('Tomas Achterberg', 'decide', {
        params: { number },
        headers: again(`on-${number}`),
        body: { verdict: 'refuse', comment: 'No.' },
        onSeen: 'sheet',
      }),
    ),
    ...links.follow
      .slice(-3)
      .map((token) => call('outside', 'followMessage', { params: { token }, body: { text: 'Any news?' } })),
    ...paused.map((number) =>
      call('Ilse Brandvold', 'moveStage', { params: { number }, body: { stage: 'in_hand' }, onVersion: number }),
    ),
    call('Bram Solheim', 'changeFields', {
      params: {
        number: one("select number from requests where number like 'GE-%' and team = 'boats' order by number limit 1"),
      },
      body: { changes: { size: 50, colour: 'green' } },
      onVersion: one("select number from requests where number like 'GE-%' and team = 'boats' order by number limit 1"),
    }),
    pass(90),
    ...looking,
    pass(24 * 60),
    pass(6 * 24 * 60),
    ...looking,
    call('outside', 'health'),
  ];
}

/** What stands in the database, whoever may read it. */
function factsOf(desk: Desk) {
  const { db } = desk.running.house;
  const who = new Map(
    db
      .select({ id: people.id, email: people.email })
      .from(people)
      .all()
      .map((each) => [each.id, each.email]),
  );
  return {
    requests: db
      .select()
      .from(requests)
      .orderBy(asc(requests.number))
      .all()
      .map(
        ({
          id,
          number,
          values,
          stage,
          phase,
          team,
          handlerId,
          requesterId,
          due,
          version,
          createdAt,
          finishedAt,
          trial,
        }) => ({
          ...{ id, number, values, stage, phase, team, due, version, createdAt, finishedAt, trial },
          handler: who.get(handlerId ?? '') ?? null,
          requester: who.get(requesterId ?? '') ?? null,
        }),
      ),
    waiting: db
      .select({
        id: notices.id,
        state: notices.state,
        attempts: notices.attempts,
        to: notices.toAddress,
        subject: notices.subject,
      })
      .from(notices)
      .where(eq(notices.state, 'waiting'))
      .orderBy(asc(notices.id))
      .all(),
  };
}

/** Every letter that was received, with its Message-ID, in an order of its own. */
function posted(desk: Desk): Reading['posted'] {
  return desk.running.house.db
    .select({
      messageId: letters.messageId,
      to: letters.to,
      subject: letters.subject,
      text: letters.text,
      html: letters.html,
    })
    .from(letters)
    .all()
    .sort((a, b) => sortKey(a).localeCompare(sortKey(b)));
}
const sortKey = ({ to, subject, text }: { to: string; subject: string; text: string }): string =>
  `${to} ${subject} ${text.replace(/\/(follow|decide|confirm)\/[\w-]+|kept=[\w-]+|127\.0\.0\.1:\d+/g, '')}`;

/** Routes that read something of the data. */
export const readingRoutes = (Object.values(routes) as readonly Route[])
  .filter((route) => route.method === 'GET' && !(route.name in NOT_READ))
  .map((route) => route.name as RouteName);
