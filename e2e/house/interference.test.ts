import { type Route, type RouteName, routes, trayKeys } from '@tolvek/contract';
import { newDoor } from '@tolvek/core/door';
import { type FormDesign, type FormRule, RECIPES, settingsOf } from '@tolvek/core/form';
import { newMailing } from '@tolvek/core/mailing';
import type { Field } from '@tolvek/core/register';
import type { NoticePlan, NoticeRule } from '@tolvek/core/telling';
import { DEMO_NOW, VOCABULARIES } from '@tolvek/demo';
import { runDueTimers, runMailings } from '@tolvek/server';
import { notices, requests, ruleRunChanges, ruleRuns } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { sendChanges } from './changing.ts';
import { type Answer, type Caller, Desk, STORM, VISIT, WATER } from './desk.ts';
import { DOT, groundCalls, ONLY_BEFORE } from './groundCalls.ts';
import { waitInLine } from './line.ts';
import { makePermit, PDF, upload } from './permit.ts';

/** The house’s rounds run by the real time, which is not the same for both: here they are made by hand. */
vi.mock('croner', () => ({
  Cron: class {
    stop(): void {}
  },
}));

/**
 * Non-interference: two desks that differ in nothing but what stands in fields that most may not
 * read, and in what may be derived from it. Whoever may not read them is answered the same by both,
 * byte for byte, by every route, in every letter and every live update. How long an answer takes is
 * not looked at.
 *
 * Both desks live through the same calls at the same moments. Ids and tokens are made anew by each;
 * they are numbered in the order they come up in.
 */

interface Hidden {
  readonly note: string;
  readonly term: string;
  readonly day: string;
  readonly many: number;
}
const ONE: Hidden = { note: 'aaa zq one', term: 'seals', day: '2026-12-02', many: 3 };
const OTHER: Hidden = { note: 'bb zq another, and longer', term: 'cod', day: '2026-12-20', many: 700 };

/** Whoever may read none of it: the coordinator, the administrator, the desks, and people from outside. */
/** Somebody from outside who is asked to handle some requests. */
const SELA = { name: 'Sela Brightwater', email: 'sela.brightwater@northmoor.example' };
const PETRA = 'petra.lisle@haldane.example';
const WATCHING = ['Maren Okafor', 'Ada Quillfeather', 'Ilse Brandvold', 'Tomas Achterberg', 'Declan Oyelaran'];
const OUTSIDE = { name: 'Wim Haldane', email: 'wim.haldane@haldane.example' };
/** Routes that carry bytes, called by themselves. */
const LIMIT = { id: 'many', most: 900, of: 'all', days: 30 } as const;
const BYTES: readonly RouteName[] = Object.values(routes as Readonly<Record<string, Route>>)
  .filter(
    ({ method, takes, gives }) => takes !== undefined || (gives !== undefined && gives !== 'json' && method === 'GET'),
  )
  .map(({ name }) => name as RouteName)
  .concat(ONLY_BEFORE);
const TERMS = VOCABULARIES.find((each) => each.key === 'species')?.terms ?? [];

const closed = (fields: readonly string[]) => ({
  rules: [
    {
      id: 'closed',
      name: 'It stays with site safety',
      fields,
      audience: { in: { everyone: true as const }, outOf: ['site-safety'], requester: 'out' as const },
      level: 'hidden' as const,
    },
    {
      id: 'corrects',
      name: 'Whoever asks corrects',
      fields: ['what', 'visitor'],
      audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
      level: 'write' as const,
    },
  ],
});
const ruleOf = (id: string, more: Partial<FormRule>): FormRule => ({
  id,
  name: id,
  says: '',
  when: 'contains(why, "aaa")',
  then: [],
  otherwise: [],
  on: true,
  runs: 'saving',
  ...more,
});
const ground = { team: 'estates', approvers: 'duty-managers', calendar: 'desk' };
const outcome = { team: 'estates', priority: 'normal', workingDays: 3, path: null } as const;
const asking = (field: string) => ({ part: 'question', field, asks: '', help: '', required: false }) as const;

/** Notices that would tell of it by what they say, by whom they go to, by when, and by going at all. */
function tellingNotices(): NoticePlan {
  const text = 'It is {why|nothing}, {copy}. So long: {size}. For {what|somebody}.';
  const rule = (key: string, more: Partial<NoticeRule>): NoticeRule => ({
    ...{ key, name: key, on: { is: 'arrived' }, to: ['team', 'requester', 'leads', 'followers', { field: 'guide' }] },
    ...{ subject: 'About {why}', text, answers: true, goes: { goes: 'at-once' } },
    ...more,
  });
  return {
    usual: [{ kind: 'new-request', subject: 'New: {why|something}', text }],
    rules: [
      rule('says', {}),
      rule('only-if', { when: 'contains(why, "aaa")' }),
      rule('turns', { on: { is: 'becomes' }, when: 'contains(copy, "aaa")' }),
      rule('changes', { on: { is: 'changed', fields: ['why', 'copy', 'size'] } }),
      rule('by-hand', { on: { is: 'hand' } }),
      rule('by-hand-if', { on: { is: 'hand' }, when: 'contains(why, "aaa")' }),
      rule('hurries', { goes: { goes: 'gathered', minutes: 30 }, urgent: 'size > 12' }),
    ],
  };
}

/** A form that tells of what it asks in every way there is, released before its plan closed any of it. */
function tellTale(): FormDesign {
  const simple = RECIPES.find((each) => each.key === 'simple')?.make({
    ...ground,
    told: english,
    title: 'Tell-tale',
  }) as FormDesign;
  const more: readonly Field[] = [
    { key: 'kind', label: 'Kind', type: { kind: 'term', vocabulary: 'species' }, source: 'asked' },
    { key: 'begins', label: 'Begins', type: { kind: 'date' }, source: 'asked' },
    { key: 'ends', label: 'Ends', type: { kind: 'date', notBefore: 'begins' }, source: 'asked' },
    { key: 'many', label: 'How many', type: { kind: 'number', places: 0 }, source: 'asked' },
    { key: 'also', label: 'Also', type: { kind: 'text' }, source: 'asked' },
    {
      key: 'kept',
      label: 'Kept',
      type: { kind: 'text' },
      source: 'desk-only',
      preset: { from: 'field', field: 'why' },
    },
    { key: 'copy', label: 'Copy', type: { kind: 'text' }, source: 'desk-only' },
    {
      key: 'size',
      label: 'Size',
      type: { kind: 'number', places: 0 },
      source: 'computed',
      formula: 'string length(why)',
    },
    { key: 'free', label: 'Free', type: { kind: 'text' }, source: 'desk-only' },
    { key: 'came', label: 'Came', type: { kind: 'people', from: [] }, source: 'desk-only' },
    { key: 'guide', label: 'Guide', type: { kind: 'person', from: [] }, source: 'desk-only' },
    { key: 'scan', label: 'Scan', type: { kind: 'files', only: 'any' }, source: 'desk-only' },
  ];
  return {
    ...simple,
    subject: '{what}, {why}, {copy}, {size}',
    fields: [...simple.fields, ...more],
    parts: [
      ...simple.parts.map((part) => (part.part === 'question' ? { ...part, required: false } : part)),
      ...['kind', 'begins', 'ends', 'many', 'also'].map(asking),
      { part: 'instruction', id: 'words-1', text: 'You ask for {what}.' },
    ],
    rules: [
      ruleOf('copies', { when: 'true', then: [{ do: 'set', field: 'copy', value: 'why' }] }),
      ruleOf('refuses', {
        when: 'many > 100 and free != null',
        then: [{ do: 'refuse', field: 'free', text: 'Too many.', fix: 'Fewer.' }],
      }),
      ruleOf('requires', { then: [{ do: 'require', fields: ['needed_by'] }] }),
      ruleOf('locks', { then: [{ do: 'lock', fields: ['free'] }] }),
      ruleOf('hides', { runs: 'filling', then: [{ do: 'hide', parts: ['also'] }] }),
    ],
    unique: [{ id: 'unique-1', fields: ['why'], among: 'all' }],
    editions: [
      {
        ...{ id: 'told-apart', name: 'Told apart', on: true, when: 'contains(why, "aaa")' },
        audience: { in: { everyone: true }, outOf: [] },
        differences: [
          { does: 'hide', part: 'what' },
          { does: 'lock', part: 'free' },
          { does: 'add', after: null, adds: { part: 'instruction', id: 'own-apart', text: 'It is {what}.' } },
        ],
      },
      {
        ...{ id: 'told-beside', name: 'Told beside', on: true, when: '', stages: ['arrived', 'in_hand', 'done'] },
        audience: { in: { everyone: true }, outOf: [] },
        differences: [
          {
            ...{ does: 'add', after: null },
            adds: {
              ...{ part: 'instruction', id: 'own-why', text: 'As {why}, {copy}, {size}.' },
              actions: [
                { id: 'comes', does: 'take-part', label: 'I come', back: 'I don’t', field: 'came' },
                { id: 'asks', does: 'ask', label: 'Ask the guide', asks: 'guide' },
              ],
            },
          },
        ],
      },
    ],
    routing: {
      columns: [{ id: 'why', label: 'Why', input: 'why' }],
      rows: [{ id: 'row-1', note: 'Those with three', cells: { why: 'starts with(?, "aaa")' }, outcome }],
      otherwise: outcome,
    },
    notices: tellingNotices(),
  };
}

function pointsTo(): FormDesign {
  const simple = RECIPES.find((each) => each.key === 'simple')?.make({
    ...ground,
    told: english,
    title: 'Pointing',
  }) as FormDesign;
  return {
    ...simple,
    fields: [
      ...simple.fields,
      {
        key: 'target',
        label: 'Target',
        type: {
          ...{ kind: 'reference', register: 'tell-tale', shows: ['what', 'why'], among: 'all' },
          cards: { picture: 'scan', facts: ['what', 'why', 'copy', 'size'], unavailable: 'grey' },
        },
        source: 'asked',
      },
      {
        key: 'limited',
        label: 'Limited',
        type: {
          kind: 'reference',
          register: 'tell-tale',
          shows: ['what'],
          among: 'all',
          offered: 'starts with(it.why, what)',
          cards: { picture: 'scan', facts: ['size', 'also'], unavailable: 'grey' },
        },
        source: 'asked',
      },
      {
        key: 'brought',
        label: 'Brought',
        type: { kind: 'long-text' },
        source: 'carried',
        reference: 'target',
        field: 'why',
        live: true,
      },
    ],
    parts: [...simple.parts, asking('target'), asking('limited')],
  };
}

const key = (name: string) => ({ 'Idempotency-Key': `interfering-${name}` });
/** The mailing that calls with one are about. */
const mailingIn = ({ owedForms }: Partial<Record<RouteName, readonly object[]>>): string =>
  (owedForms?.[0] as { params: { id: string } } | undefined)?.params.id ?? '';
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });

/** Letters go out over several lines at once: those of one moment are put in an order of their own. */
const inOrder = (letters: readonly { id: string; receivedAt: string; to: string; subject: string }[]) =>
  [...letters].sort((a, b) => sortKey(a).localeCompare(sortKey(b)));
const sortKey = (letter: { receivedAt: string; to: string; subject: string }): string =>
  `${letter.receivedAt} ${letter.to} ${letter.subject}`;

/** What can be done at the buttons of the tell-tale, and at one that is not there. */
const acting = (params: object): readonly object[] => [
  ...[true, false].map((takes) => ({ params: { ...params, action: 'comes' }, body: { does: 'take-part', takes } })),
  ...['asks', 'gone'].map((action) => ({
    params: { ...params, action },
    body: { does: 'ask', text: 'Where do we meet?' },
  })),
];

/** One desk, and what each of those who watch was told by it. */
interface Heard {
  readonly answers: readonly (Pick<Answer, 'route' | 'who' | 'status' | 'text'> & { readonly asked: string })[];
  readonly letters: string;
}

/** Lives through all of it with what is hidden, and hears what those who may not read it are told. */
async function live(hidden: Hidden): Promise<Heard> {
  vi.setSystemTime(DEMO_NOW);
  const desk = await Desk.open();
  const { db } = desk.running.house;
  const callers = new Map<string, Caller>();
  for (const name of WATCHING) callers.set(name, await desk.as(name));
  callers.set('outside', await desk.as());
  const as = (name: string): Caller => callers.get(name) as Caller;
  const [maren, stranger] = [as('Maren Okafor'), as('outside')];
  const [priya, hanne] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Hanne Istvan')];
  const tick = (): void => void vi.setSystemTime(Date.now() + 50);
  /** What the house does by itself after a change, before anything else. */
  const settled = async (): Promise<void> => {
    const { running } = desk;
    await runDueTimers(running.house);
    await runMailings(running.house);
    await running.jobsDone();
    running.house.wakeOutbox();
    await running.lettersSent();
  };
  /** What a call that has to succeed answers; letters that it wrote go out before anything else. */
  const well = async (calling: Promise<Answer>): Promise<Answer['body']> => {
    const answer = await calling;
    if (answer.status !== 200) throw new Error(`${answer.route}: ${answer.status} ${answer.text}`);
    await settled();
    tick();
    return answer.body;
  };
  const make = async (prefix: string, draft: FormDesign): Promise<string> => {
    const body = { prefix, desk: 'estates', doors: { staff: true, outside: true }, draft };
    const made = await well(maren.call('createForm', { headers: key(`make-${prefix}`), body }));
    const params = { key: made.key };
    await well(maren.call('releaseForm', { params, headers: onVersion(1), body: { note: '' } }));
    return made.key;
  };
  const heard = new Map<string, string>();
  const listening = new AbortController();
  // Whoever listens hears from the first change on: the line stands before it.
  for (const [name, caller] of callers) {
    if (!caller.cookie) continue;
    const response = await fetch(`${desk.running.url}/api/live`, {
      headers: { cookie: caller.cookie },
      signal: listening.signal,
    });
    const hear = async (): Promise<void> => {
      const decoder = new TextDecoder();
      for await (const chunk of response.body ?? [])
        heard.set(name, (heard.get(name) ?? '') + decoder.decode(chunk, { stream: true }));
    };
    void hear().catch(() => undefined);
  }

  await makePermit(maren);
  expect([await make('TT', tellTale()), await make('PT', pointsTo())]).toEqual(['tell-tale', 'pointing']);
  const hide = ['why', 'kind', 'begins', 'many', 'came', 'guide'];
  desk.protect('tell-tale', closed(hide));
  desk.protect('permit', closed(['papers']));

  // Those who asked are sent a form about it, once by a condition on what is hidden, which is refused.
  const sendForms = async (): Promise<Partial<Record<RouteName, readonly object[]>>> => {
    const about = { is: 'requests', register: 'tell-tale', field: 'target', stages: [], when: '' } as const;
    const plain = {
      ...newMailing('After', 'pointing-from-outside'),
      to: { named: '~requester' },
      about,
      passesOn: true,
    };
    const params = { key: 'pointing' };
    const add = (name: string, mailing: object = plain) =>
      well(maren.call('addMailing', { params, headers: key(name), body: { mailing } }));
    // One of those who are watched has it as well, and passes it on.
    const declan = { audience: { in: { anyOf: [`@${desk.idOf('Declan Oyelaran')}`] }, outOf: [] } };
    const { id: his } = await add('his-mailing', { ...plain, to: declan });
    await well(maren.call('sendMailing', { params: { id: his }, headers: key('his-going'), body: { onlyNew: false } }));
    const [{ id }, { id: spare }] = [await add('mailing'), await add('spare-mailing')];
    await well(maren.call('sendMailing', { params: { id }, headers: key('going'), body: { onlyNew: false } }));
    await well(maren.call('advanceClock', { body: { minutes: 1 } }));
    const [owed] = (await well(as('Declan Oyelaran').call('frontDesk'))).toFill;
    const asked = { ...plain, about: { ...about, when: 'starts with(why, "z")' } };
    return {
      mailings: [{ params }],
      addMailing: [plain, asked].map((mailing, at) => ({ params, headers: key(`add-${at}`), body: { mailing } })),
      tryMailing: [plain, asked].map((mailing) => ({ params, body: { mailing } })),
      changeMailing: [{ params: { id }, headers: onVersion(1), body: { mailing: plain, note: '' } }],
      sendMailing: [{ params: { id }, headers: key('again'), body: { onlyNew: true } }],
      owedForms: [{ params: { id } }, { params: { id }, query: { state: 'open' } }],
      remindOwed: [{ params: { id }, body: { only: null } }],
      endOwed: [{ params: { id }, body: { forms: [] } }],
      unjoined: [{ params: { id } }],
      removeMailing: [{ params: { id: spare }, headers: onVersion(1) }],
      passOn: [{ params: { id: owed.id }, body: { to: desk.idOf('Signe Halvard') } }],
    };
  };

  // Those who may: each types what is hidden, in every place there is for it.
  const { note, term, day, many } = hidden;
  const told = { what: 'Ropes', why: note, kind: term, begins: day, ends: '2026-12-24', needed_by: '2026-12-24' };
  const sent = async (by: Caller, slug: string, answers: object, more: object = {}): Promise<string> => {
    submitted += 1;
    return (await well(by.submit(slug, answers, { key: `submitted-${submitted}`, ...more }))).number;
  };
  let submitted = 0;
  const first = await sent(hanne, 'tell-tale', { ...told, many });
  const second = await sent(priya, 'tell-tale', { what: 'Rings', why: `${note} 2`, needed_by: '2026-12-24' });
  const idOf = (number: string): string =>
    db.select({ id: requests.id }).from(requests).where(eq(requests.number, number)).all()[0]?.id ?? '';
  const pointing = await sent(priya, 'pointing', { what: 'x', target: idOf(first) });
  // One that says nothing about which request it is about.
  await sent(priya, 'pointing', { what: 'Loose' });
  const site = await sent(priya, 'come-on-site', { ...VISIT, medical_note: note });
  const spare = await sent(priya, 'come-on-site', { ...VISIT, visitor: 'Spare', medical_note: note });
  /** What was deleted, by the id it is put back by. */
  const deleted = async (visitor: string): Promise<{ readonly params: { readonly id: string } }> => {
    const number = await sent(priya, 'come-on-site', { ...VISIT, visitor, medical_note: note });
    const ada = await desk.as('Ada Quillfeather');
    const { version } = await well(ada.call('sheet', { params: { number } }));
    const body = { reason: 'Nobody wants it.' };
    const { id } = await well(ada.call('deleteRequest', { params: { number }, headers: onVersion(version), body }));
    return { params: { id } };
  };
  const doubles = [
    await sent(priya, 'come-on-site', { ...VISIT, visitor: 'Twice', medical_note: note }),
    await sent(hanne, 'come-on-site', { ...VISIT, visitor: 'Twice over', medical_note: `${note} 2` }),
  ];
  const [back, gone] = [await deleted('Comes back'), await deleted('Gone for good')];
  const water = await sent(hanne, 'come-on-site', { ...WATER, medical_note: note });
  const halfway = await sent(hanne, 'come-on-site', { ...WATER, visitor: 'Half-way', medical_note: note });
  desk.askBesides(halfway, 'site-safety');
  const tomas = await desk.as('Tomas Achterberg');
  await well(
    tomas.call('decide', {
      ...{ params: { number: halfway }, headers: key('halfway') },
      body: { verdict: 'approve', comment: '', seen: await tomas.seen(halfway) },
    }),
  );
  const handed = await sent(hanne, 'come-on-site', { ...WATER, visitor: 'Handed on', medical_note: note });
  const linked = await sent(hanne, 'come-on-site', { ...WATER, visitor: 'Linked', medical_note: note });
  await sent(hanne, 'concern-report', { about: 'safety', what_happened: note, when: '2026-11-20', reply: false });
  const name = `${note.slice(0, 3)}.pdf`;
  const file = (await upload(desk.running.url, priya, name, Buffer.concat([PDF, Buffer.from(note)]))).body;
  const permit = await sent(priya, 'permit', { what: 'x', papers: [file.ref] });
  // A request of somebody from outside, who may follow it and nothing else.
  await sent(stranger, 'visit', VISIT, { contact: OUTSIDE });
  const confirmation = await desk.tokenFor(OUTSIDE.email, 'confirm');
  const greta = { ...OUTSIDE, email: 'greta.moss@haldane.example' };
  await sent(stranger, 'visit', { ...VISIT, visitor: 'Second' }, { contact: greta });
  const confirming = await desk.tokenFor(greta.email, 'confirm');
  const hilda = { ...OUTSIDE, email: 'hilda.voss@haldane.example' };
  await sent(stranger, 'visit', { ...VISIT, visitor: 'Third' }, { contact: hilda });
  const ivo = { ...OUTSIDE, email: 'ivo.penhallow@haldane.example' };
  const waiting = (await well(stranger.submit('visit', { ...VISIT, visitor: 'Fourth' }, { contact: ivo }))).sent;
  const goingBack = await desk.tokenFor(hilda.email, 'confirm');
  const { follow } = await well(stranger.call('confirm', { params: { token: confirmation } }));
  // And one with a file of their own.
  const theirs = await upload(desk.running.url, stranger, 'own.pdf', PDF, { slug: 'permit-from-outside' });
  await sent(stranger, 'permit-from-outside', { what: 'x', papers: [theirs.body.ref] }, { contact: OUTSIDE });
  const withFile = await desk.tokenFor(OUTSIDE.email, 'confirm');
  const followed = (await well(stranger.call('confirm', { params: { token: withFile } }))).follow;
  // And what they can withdraw.
  for (const slug of ['come-on-site', 'visit']) {
    const { door, version } = await well(maren.call('doorDesign', { params: { slug } }));
    const body = { door: { ...door, withdraws: 'finished' }, note: '' };
    await well(maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body }));
  }
  const quits = await sent(as('Declan Oyelaran'), 'come-on-site', { ...VISIT, visitor: 'Quits', medical_note: note });
  const jonas = { ...OUTSIDE, email: 'jonas.wick@haldane.example' };
  await sent(stranger, 'visit', { ...VISIT, visitor: 'Quits as well' }, { contact: jonas });
  const quitting = await desk.tokenFor(jonas.email, 'confirm');
  const quitted = (await well(stranger.call('confirm', { params: { token: quitting } }))).follow;
  const nele = { ...OUTSIDE, email: 'nele.brook@haldane.example' };
  await sent(stranger, 'visit', { ...VISIT, visitor: 'Has a link' }, { contact: nele });
  const nelesLetter = await desk.tokenFor(nele.email, 'confirm');
  const { number: byLink } = await well(stranger.call('confirm', { params: { token: nelesLetter } }));
  // And who has a new link sent: by a link that works no more afterwards, and signed in.
  const petra = { ...OUTSIDE, email: PETRA };
  await sent(stranger, 'visit', { ...VISIT, visitor: 'Has another link' }, { contact: petra });
  const petrasLetter = await desk.tokenFor(petra.email, 'confirm');
  const renewed = await well(stranger.call('confirm', { params: { token: petrasLetter } }));
  const contact = await desk.contact(petra.email);
  const job = desk.hadDone('Maren Okafor');
  const decision = await desk.tokenFor('tomas.achterberg', 'decide');
  const keeping = { answers: VISIT, contact: OUTSIDE, typedAt: 1 };
  await well(stranger.call('sendKept', { params: { slug: 'visit' }, body: keeping }));
  const goOn = await desk.tokenFor(OUTSIDE.email, 'go on');
  const own = await sent(as('Declan Oyelaran'), 'come-on-site', { ...VISIT, visitor: 'Own' });
  const other = await sent(as('Declan Oyelaran'), 'tell-tale', { what: 'Mine', why: 'mine' });

  await sent(stranger, 'tell-tale-from-outside', { what: 'Theirs', why: 'theirs' }, { contact: OUTSIDE });
  const asks = await desk.tokenFor(OUTSIDE.email, 'confirm');
  const asker = (await well(stranger.call('confirm', { params: { token: asks } }))).follow;
  // Who comes differs as well. Who is asked doesn’t: a letter to somebody is a letter to them.
  const coming = hidden === ONE ? ['Bram Solheim'] : ['Signe Halvard', 'Nuala Fenwick', 'Bram Solheim'];
  const came = coming.map((each) => desk.idOf(each));
  for (const number of [first, second, other]) {
    const { values } = db.select().from(requests).where(eq(requests.number, number)).all()[0] ?? { values: {} };
    const filled = { ...values, guide: desk.idOf('Bram Solheim'), came };
    db.update(requests).set({ values: filled }).where(eq(requests.number, number)).run();
  }

  const formId = desk.formId('tell-tale');
  const now = desk.running.house.clock.now();
  db.insert(ruleRuns).values({ id: 'a-run', formId, rule: 'copies', name: 'A run', by: '', at: now }).run();
  const changes = [
    { field: 'copy', before: 'before', after: 'aaa zq one' },
    { field: 'free', before: 'before', after: 'then' },
  ];
  db.insert(ruleRunChanges)
    .values({ runId: 'a-run', requestId: idOf(first), changes })
    .run();

  const heardAll: Heard['answers'][number][] = [];
  const form = (await maren.call('form', { params: { key: 'tell-tale' } })).body;
  const waysDraft: FormDesign = {
    ...form.draft,
    rules: [ruleOf('way', { then: [{ do: 'set', field: 'free', value: 'why' }] })],
  };
  const letters = inOrder((await stranger.call('mailroom')).body.letters);
  const numbers = [first, second, pointing, site, water, linked, permit, own, other];
  const each = <T>(values: readonly T[], input: (value: T) => object) => values.map(input);
  const conditions = ['why != null', 'copy = "x"', 'size > 12', 'free = null', 'what = "Ropes"', 'ends >= begins'];
  const mailed = await sendForms();
  const declan = as('Declan Oyelaran');
  const comes = (by: Caller, visitor: string, medical_note = note): Promise<string> =>
    sent(by, 'come-on-site', { ...VISIT, visitor, medical_note });
  const fits = { answers: { medical_note: ONE.note }, asks: ['visitor', 'medical_note'] };
  const changing = await sendChanges(desk, { maren, well, keyed: key }, 'site-access', [
    { by: priya, number: await comes(priya, 'To accept'), answers: { visitor: 'Accepted' }, asks: ['visitor'] },
    { ...fits, by: hanne, number: await comes(hanne, 'To refuse') },
    { ...fits, by: declan, number: await comes(declan, 'To take back', 'His own') },
    { ...fits, by: hanne, number: await comes(hanne, 'To refuse by link') },
  ]);
  // Somebody from outside is asked to handle some of them.
  const rope = { what: 'Given', why: `${note} 2`, needed_by: '2026-12-24' };
  const givenAway = [await comes(priya, 'Given away'), await sent(priya, 'tell-tale', rope)];
  for (const number of givenAway) {
    const { version } = await maren.sheet(number);
    await well(maren.call('giveOutside', { params: { number }, headers: onVersion(version), body: SELA }));
  }
  const sela = await desk.contact(SELA.email);
  const spareGiven = await comes(priya, 'Given away later');
  const inLine = await waitInLine(desk, { maren, well, keyed: key });
  const went = desk.running.house.db.select().from(notices).where(eq(notices.kind, 'received'));
  const wentTo = went.all().find(({ state, requestId }) => state === 'sent' && requestId !== null)?.id ?? '';
  const inputs: Partial<Record<RouteName, readonly object[]>> = {
    ...changing,
    ...inLine,
    endLinks: [{ params: { number: byLink }, body: { only: [] } }],
    sendLink: [{ params: { number: byLink } }],
    renewMyLink: each([own, renewed.number], (number) => ({ params: { number } })),
    endMyLinks: [{ params: { number: own } }],
    endOtherLinks: [{ params: { token: followed } }],
    renewLink: [{ params: { token: renewed.follow } }],
    door: [
      ...each(['visit', 'come-on-site', 'tell-tale', 'pointing', 'concern-report'], (slug) => ({ params: { slug } })),
      ...(changing.door ?? []).slice(0, 1),
    ],
    checkAnswers: [
      { params: { slug: 'tell-tale' }, body: { answers: { what: 'x', why: ONE.note } } },
      { params: { slug: 'tell-tale-from-outside' }, body: { answers: { what: 'x', why: OTHER.note } } },
      { params: { slug: 'pointing' }, body: { answers: { what: 'aaa', limited: idOf(first), target: idOf(second) } } },
    ],
    offers: ['pointing', 'pointing-from-outside'].flatMap((slug) =>
      ['aaa', 'bb', ''].flatMap((what) =>
        ['limited', 'target'].map((field) => ({ params: { slug }, body: { field, find: what, answers: { what } } })),
      ),
    ),
    keepAnswers: [
      { params: { slug: 'pointing' }, body: { answers: { what: 'aaa', limited: idOf(first) }, typedAt: 1 } },
    ],
    sendKept: [{ params: { slug: 'visit' }, body: { answers: VISIT, contact: OUTSIDE, typedAt: 1 } }],
    kept: [{ params: { token: goOn } }],
    keepKept: [{ params: { token: goOn }, body: { answers: VISIT, contact: OUTSIDE, typedAt: 2 } }],
    submit: [
      { params: { slug: 'come-on-site' }, headers: key('one'), body: { release: 1, answers: VISIT } },
      {
        params: { slug: 'tell-tale' },
        headers: key('two'),
        body: { release: 1, answers: { what: 'y', why: ONE.note } },
      },
      {
        params: { slug: 'pointing' },
        headers: key('three'),
        body: { release: 1, answers: { what: 'aaa', limited: idOf(first) } },
      },
      {
        params: { slug: 'pointing' },
        headers: key('four'),
        body: { release: 1, answers: { what: 'x', target: idOf(second) } },
      },
    ],
    ...(await groundCalls(desk, tick)),
    sentState: [{ params: { token: waiting } }],
    sendAgain: [{ params: { token: waiting }, body: { email: ivo.email } }],
    setLanguage: [{ body: { language: 'de' } }],
    confirmation: [{ params: { token: confirming } }],
    confirm: [{ params: { token: confirming } }],
    backToAnswers: [{ params: { token: goingBack } }],
    ...{
      act: each([first, second, site], (number) => ({ number })).flatMap((params) => acting(params)),
      actOnMine: each([other, site], (number) => ({ number })).flatMap((params) => acting(params)),
      actFollowed: acting({ token: asker }),
    },
    follow: [{ params: { token: follow } }],
    followMessage: [{ params: { token: follow }, body: { text: 'Thank you.' } }],
    myRequest: each(numbers, (number) => ({ params: { number } })),
    changeFollowed: [
      { params: { token: followed }, body: { changes: { what: 'Corrected from outside' } } },
      { params: { token: follow }, body: { changes: { what: 'x', why: 'y', nothing: 'z' } } },
    ],
    withdrawFollowed: [{ params: { token: quitted }, body: { reason: 'Not now.' } }],
    withdrawMine: [{ params: { number: quits }, body: { reason: '' } }],
    changeMine: each(numbers, (number) => ({
      params: { number },
      body: { changes: { what: 'x', why: 'y', nothing: 'z' } },
    })).concat(each(numbers, (number) => ({ params: { number }, body: { changes: { what: 'Corrected' } } }))),
    myMessage: each(numbers, (number) => ({ params: { number }, body: { text: 'One more.' } })),
    ledger: [
      ...trayKeys.map((tray) => ({ query: { tray } })),
      ...['aaa', 'TT'].map((find) => ({ query: { tray: 'all', find } })),
    ],
    changeCells: [false, true].map((apply) => ({
      body: {
        rows: numbers.map((number) => ({ number, version: 1, cells: { what: 'x', note: 'y', nothing: 'z' } })),
        apply,
      },
    })),
    takeBackCells: [{ body: { rows: numbers.map((number) => ({ number, version: 1 })) } }],
    // What only one of the desks holds, nearly so and beside it too, and what both do.
    find: each(
      [
        ONE.note,
        OTHER.note,
        'anothr',
        ...[ONE, OTHER].map(({ term }) => term),
        ONE.day,
        String(OTHER.many),
        'aaa Wim',
        'TT',
      ],
      (text) => ({ body: { text } }),
    ),
    sheet: each(numbers, (number) => ({ params: { number } })),
    requestCourse: each(numbers, (number) => ({ params: { number } })),
    requestEmails: each(numbers, (number) => ({ params: { number } })),
    forecast: [{}],
    requestForecast: each(numbers, (number) => ({ params: { number } })),
    serviceTimes: ['form', 'team', 'row', 'handler', 'month'].map((by) => ({
      query: { from: '2026-11-01', to: '2026-12-31', by },
    })),
    servedRows: ['came', 'went', 'open', 'late'].map((figure) => ({
      query: { from: '2026-11-01', to: '2026-12-31', figure },
    })),
    forecastHelps: [{}],
    forecastScore: [{}],
    forecastTried: ['boats', 'estates', 'site-safety', 'nobody'].map((team) => ({
      query: { team, day: '2026-11-24', hours: '4' },
    })),
    sheetOffers: [
      { params: { number: pointing }, body: { field: 'target', find: 'aaa' } },
      { params: { number: pointing }, body: { field: 'limited', find: '' } },
    ],
    changeFields: each(numbers, (number) => ({
      params: { number },
      body: { changes: { free: 'then', what: 'Changed' } },
    })).concat(
      each(numbers, (number) => ({ params: { number }, body: { changes: { ends: '2026-12-10' } } })),
      each(numbers, (number) => ({ params: { number }, body: { changes: { escort: 'Signe' } } })),
      each(numbers, (number) => ({ params: { number }, body: { changes: { why: 'x', copy: 'y', size: 1 } } })),
      [{ params: { number: pointing }, body: { changes: { limited: idOf(first) } } }],
      [{ params: { number: pointing }, body: { changes: { target: idOf(second) } } }],
    ),
    moveStage: each(numbers, (number) => ({ params: { number }, body: { stage: 'in_hand' } })),
    reroute: each(numbers, (number) => ({ params: { number }, body: { team: 'estates', priority: 'high' } })),
    writeMany: (['requester', 'internal'] as const).map((visibility) => ({
      headers: { 'Idempotency-Key': `many-${visibility}` },
      body: { requests: [...numbers], visibility, text: 'Soon.', apply: true },
    })),
    moveMany: [undefined, 'in_hand'].map((stage) => ({
      body: { requests: numbers.map((number) => ({ number, version: 1 })), ...(stage ? { stage } : {}), apply: false },
    })),
    rerouteMany: [false, true].map((apply) => ({
      body: { requests: numbers.map((number) => ({ number, version: 1 })), priority: 'low', reason: '', apply },
    })),
    // What waits for its decision is decided below.
    freeRequest: [{ params: { number: pointing }, body: { stage: 'arrived', reason: 'Stuck.' } }],
    giveOutside: [{ params: { number: spareGiven }, body: SELA }],
    given: each([site, first], (number) => ({ params: { number } })),
    giveBack: [{ params: { number: site }, headers: onVersion(1), body: { reason: 'Away.' } }],
    assign: each(numbers, (number) => ({ params: { number }, body: { person: null } })),
    shareTargets: [{ params: { number: site }, query: { find: 'bo' } }],
    shareRequest: each(numbers, (number) => ({ params: { number }, body: { with: { group: 'boats' }, until: null } })),
    unshareRequest: [{ params: { number: site, holder: 'boats' } }],
    decisionsAlike: each([handed, water], (number) => ({ params: { number } })),
    takeBackDecision: [{ params: { number: halfway } }],
    deciderTargets: [{ params: { number: handed }, query: { find: 'bo' } }],
    handDecision: [{ params: { number: handed }, body: { to: { group: 'boats' } } }],
    askAbout: each(numbers, (number) => ({
      params: { number },
      headers: key(`ask-${number}`),
      body: { mailing: mailingIn(mailed) },
    })),
    changing: each(numbers, (number) => ({ params: { number }, body: { fields: ['what', 'why', 'nothing'] } })),
    changingMine: each(numbers, (number) => ({ params: { number }, body: { fields: ['what', 'why'] } })),
    changingFollowed: [{ params: { token: follow }, body: { fields: ['what', 'why'] } }],
    changedBy: each(numbers, (number) => ({ params: { number } })),
    followRequest: each(numbers, (number) => ({ params: { number }, body: { follows: true } })).concat([
      { params: { number: site }, body: { follows: false } },
    ]),
    requestMergePlan: ['', doubles[1], first].map((into) => ({ params: { number: doubles[0] }, query: { into } })),
    mergeRequest: [
      { params: { number: doubles[0] }, body: { into: doubles[1], intoVersion: 0, take: ['visitor', 'medical_note'] } },
      { params: { number: doubles[0] }, body: { into: doubles[1], intoVersion: 0, take: ['visitor'] } },
    ],
    unmergeRequest: doubles.map((number) => ({ params: { number } })),
    deletionPlan: each([...numbers, spare], (number) => ({ params: { number } })),
    deleteRequest: [{ params: { number: spare }, body: { reason: 'Nobody wants it.' } }],
    putBackRequest: [back],
    deleteForGood: [gone],
    deletedIn: each(['site-access', 'tell-tale'], (register) => ({ params: { key: register } })),
    comment: each(numbers, (number) => ({
      params: { number },
      body: { text: 'Looks good.', visibility: 'requester' },
    })),
    decide: [
      { params: { number: water }, headers: key('decide'), body: { verdict: 'approve', comment: '', seen: 'sheet' } },
    ],
    decisionLink: [{ params: { token: decision } }],
    decideByLink: [
      { params: { token: decision }, headers: key('link'), body: { verdict: 'approve', comment: '', seen: 'link' } },
    ],
    // Long enough to be in no token of a link by chance.
    mailroom: [{}, { query: { find: 'aaa zq' } }],
    // All of them are compared below.
    letter: letters.slice(0, 8).map(({ id }) => ({ params: { id } })),
    form: each(['site-access', 'tell-tale', 'pointing', 'concern-report'], (name) => ({ params: { key: name } })),
    createForm: [
      {
        headers: key('copy'),
        body: {
          prefix: 'ZQ',
          desk: 'estates',
          doors: { staff: true, outside: false },
          draft: { ...form.draft, title: 'A copy' },
          access: form.plan,
        },
      },
    ],
    tryCondition: conditions
      .map((condition) => ({ params: { key: 'tell-tale' }, body: { condition, number: null } }))
      .concat([
        { params: { key: 'pointing' }, body: { condition: 'brought != null', number: null } },
        { params: { key: 'site-access' }, body: { condition: 'medical_note != null', number: null } },
        { params: { key: 'site-access' }, body: { condition: 'works_on_water', number: null } },
      ]),
    sentEmails: [{}, { query: { find: first } }, { query: { state: 'unsent' } }, { query: { state: 'later' } }],
    sendEmailAgain: [wentTo, 'none'].map((id) => ({ params: { id } })),
    sendNotice: each(['by-hand', 'by-hand-if', 'gone'], (notice) => ({
      params: { number: first },
      body: { notice, text: 'A word' },
    })),
    showNotice: each(['new-request', 'says', 'only-if', 'turns', 'changes', 'hurries'], (notice) => ({
      params: { key: 'tell-tale' },
      body: { notice, number: first, reader: null },
    })),
    overExisting: each(['copies', 'refuses', 'requires'], (rule) => ({
      params: { key: 'tell-tale', rule },
      body: { among: 'all', shown: null },
    })).concat([
      { params: { key: 'site-access', rule: 'water-certificate' }, body: { among: 'all', shown: null } } as never,
    ]),
    takeRunBack: [{ params: { key: 'tell-tale', run: 'a-run' } }],
    saveDraft: [{ params: { key: 'tell-tale' }, headers: onVersion(form.version), body: { draft: waysDraft } }],
    releaseForm: [
      { params: { key: 'tell-tale' }, headers: onVersion(form.version + 1), body: { note: '' } },
      { params: { key: 'permit' }, headers: onVersion(2), body: { note: '' } },
    ],
    draftOffers: each(['aaa', 'bb'], (what) => ({
      params: { key: 'pointing' },
      body: { field: 'limited', find: '', answers: { what }, person: null, outside: true },
    })),
    sendTrial: [
      { params: { key: 'site-access' }, headers: key('trial'), body: { answers: WATER, person: null, outside: false } },
      {
        params: { key: 'pointing' },
        headers: key('trial-2'),
        body: { answers: { what: 'aaa', limited: idOf(first) }, person: null, outside: false },
      },
    ],
    job: [{ params: { id: job } }],
    stopJob: [{ params: { id: job } }],
    clearTrials: [{ params: { key: 'site-access' } }],
    draftHistory: [{ params: { key: 'tell-tale' } }],
    replanning: [{ params: { key: 'tell-tale' } }, { params: { key: 'site-access' } }],
    recomputation: [{ params: { key: 'tell-tale' } }, { params: { key: 'site-access' } }],
    register: [{ params: { key: 'tell-tale' } }, { params: { key: 'site-access' } }],
    calendar: [{ params: { key: 'desk' } }],
    tryCalendar: [{ params: { key: 'desk' }, body: { calendar: STORM } }],
    changeCalendar: [{ params: { key: 'desk' }, headers: onVersion(1), body: { calendar: STORM, note: '' } }],
    doubles: [{ params: { key: 'tell-tale' } }, { params: { key: 'site-access' } }],
    goBackToState: [
      { params: { key: 'pointing', number: '1' }, headers: onVersion(desk.register('pointing').version) },
    ],
    keepRegister: [
      {
        params: { key: 'permit' },
        headers: onVersion(desk.register('permit').version),
        body: { ...settingsOf(desk.register('permit')), name: 'Permits given' },
      },
    ],
    putRegister: [
      {
        params: { key: 'permit' },
        headers: onVersion(desk.register('permit').version + 1),
        body: { note: 'For the law' },
      },
    ],
    changeRegister: [
      {
        params: { key: 'site-access' },
        headers: onVersion(desk.register('site-access').version),
        body: {
          ...{ name: 'Coming here', prefix: 'AC', deskGroups: ['site-safety'], staysIn: false, left: [] },
          ...{ stages: desk.register('site-access').stages, note: '' },
        },
      },
    ],
    askInto: [
      {
        params: { key: 'tell-tale' },
        headers: key('ask-into'),
        body: { title: 'In short', asks: ['what', 'why'], doors: { staff: true, outside: false } },
      },
    ],
    duplicateForm: [{ params: { key: 'tell-tale' }, headers: key('duplicate'), body: { title: 'The same again' } }],
    setFormState: [{ params: { key: 'permit' }, body: { state: 'in use' } }],
    compareRelease: [{ params: { key: 'tell-tale', number: '1' } }],
    allowWay: [
      {
        params: { key: 'tell-tale' },
        headers: key('allow'),
        body: { sink: 'set copies copy', text: 'true; why', source: 'why', what: 'value', reason: 'Because.' },
      },
      {
        params: { key: 'led' },
        headers: key('allow-2'),
        body: {
          sink: 'preset why',
          text: JSON.stringify({ from: 'field', field: 'what' }),
          source: 'what',
          what: 'value',
          reason: 'Because.',
        },
      },
    ],
    endWay: [{ params: { key: 'led', id: 'told' } }],
    protectAlike: [{ params: { key: 'tell-tale' }, body: { source: 'why', field: 'copy' } }],
    placeFields: [{ params: { key: 'tell-tale' }, body: { fields: ['copy'] } }],
    takeInRows: [
      {
        params: { key: 'tell-tale' },
        headers: key('rows'),
        body: {
          rows: [
            { cells: { what: 'Row', why: ONE.note }, requester: '' },
            { cells: { what: 'Row', why: 'new' }, requester: '' },
          ],
          apply: false,
        },
      },
    ],
    vocabularies: [{}],
    vocabulary: [{ params: { key: 'species' } }],
    createVocabulary: [{ headers: key('terms'), body: { name: 'Hazards' } }],
    saveVocabulary: [
      // Merged, taken away, and put back: each would tell of who holds it.
      {
        params: { key: 'species' },
        headers: onVersion(1),
        body: { name: 'Species', terms: TERMS.filter((each) => each.key !== 'cod') },
      },
      {
        params: { key: 'species' },
        headers: onVersion(1),
        body: { name: 'Species', terms: TERMS.map((each) => (each.key === 'cod' ? { ...each, now: 'saithe' } : each)) },
      },
    ],
    doorDesign: [{ params: { slug: 'visit' } }],
    changeDoor: [
      {
        ...{ params: { slug: 'visit' }, headers: onVersion(2) },
        body: { door: { ...newDoor('confirmed-address', 'Outside door'), limits: [LIMIT] }, note: 'For now' },
      },
    ],
    addDoor: [{ params: { key: 'site-access' }, headers: key('door'), body: { name: 'Another', proof: 'sign-in' } }],
    work: [{ params: { slug: 'visit' } }],
    doorRemoval: [{ params: { slug: 'visit' } }],
    moveDoor: [{ params: { slug: 'my-skills' }, headers: onVersion(1), body: { slug: 'skills-now', leadsOn: true } }],
    tryDoor: [{ params: { slug: 'visit' }, body: { door: newDoor('confirmed-address', 'Outside door') } }],
    removeDoor: [{ params: { slug: 'school-visit' }, headers: onVersion(2) }],
    setDoor: [{ params: { slug: 'visit' }, body: { open: true, closedMessage: '' } }],
    ...mailed,
    advanceClock: [{ body: { minutes: 120 } }],
  };
  // A form whose coordinator may read what it hides, so that what is allowed can be.
  const led = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
    ...ground,
    told: english,
    title: 'Led',
  }) as FormDesign;
  const leading = {
    rules: closed(['what']).rules.map((rule) => ({ ...rule, audience: { ...rule.audience, outOf: ['desk-leads'] } })),
  };
  const draft = {
    ...led,
    fields: led.fields.map((field) =>
      field.key === 'why' ? { ...field, preset: { from: 'field', field: 'what' } } : field,
    ),
  };
  const made = { prefix: 'LD', desk: 'estates', doors: { staff: true, outside: false }, draft, access: leading };
  await well(maren.call('createForm', { headers: key('led'), body: made }));
  const ledId = desk.formId('led');
  const before = {
    id: 'told',
    form: ledId,
    sink: 'gone',
    text: '',
    source: 'what',
    what: 'value' as const,
    reason: 'It was.',
    by: '',
    at: now,
  };
  desk.protect('led', { ...leading, disclosures: [before] });

  const ask = async (caller: Caller, route: RouteName, input: Parameters<Caller['call']>[1]): Promise<void> => {
    tick();
    let answer = await caller.call(route, await asSeen(caller, route, input));
    // Drafts are looked through by themselves; how far that has come is chance.
    while (route === 'forms' && answer.text.includes('"findings":null')) answer = await caller.call(route, {});
    if (routes[route].method !== 'GET') await settled();
    const text = route === 'mailroom' ? JSON.stringify(inOrder(answer.body.letters)) : answer.text;
    heardAll.push({ route, who: caller.who, status: answer.status, text, asked: JSON.stringify(input ?? {}) });
  };
  // What is changed is changed on the version that was read; what is decided about, on what was seen.
  const asSeen = async (caller: Caller, route: RouteName, input: Parameters<Caller['call']>[1]) => {
    const { params, body } = { body: undefined, ...input } as {
      params?: Record<string, string>;
      body?: { seen?: string };
    };
    if (
      ['changeFields', 'moveStage', 'assign', 'giveOutside', 'reroute', 'freeRequest', 'deleteRequest'].includes(route)
    ) {
      const sheet = await caller.call('sheet', { params: { number: params?.number ?? '' } });
      return { ...input, headers: onVersion(sheet.body?.version ?? 1) };
    }
    if (route === 'mergeRequest') {
      const asked = body as unknown as { readonly into: string };
      const [of, into] = await Promise.all(
        [params?.number ?? '', asked.into].map((number) => caller.call('sheet', { params: { number } })),
      );
      const on = { intoVersion: into?.body?.version ?? 1 };
      return { ...input, headers: onVersion(of?.body?.version ?? 1), body: { ...asked, ...on } };
    }
    const several = { moveMany: 'requests', rerouteMany: 'requests', changeCells: 'rows', takeBackCells: 'rows' }[
      route as string
    ];
    if (several) {
      const asked = body as unknown as Readonly<Record<string, readonly { number: string }[]>>;
      const onTheirs = await Promise.all(
        (asked[several] ?? []).map(async (each) => {
          const sheet = await caller.call('sheet', { params: { number: each.number } });
          return { ...each, version: sheet.body?.version ?? 1 };
        }),
      );
      return { ...input, body: { ...asked, [several]: onTheirs } };
    }
    if (['changeMine', 'changeFollowed', 'withdrawMine', 'withdrawFollowed'].includes(route)) {
      const own = await caller.call(route.endsWith('Mine') ? 'myRequest' : 'follow', params ? { params } : {});
      return { ...input, headers: onVersion(own.body?.version ?? 1) };
    }
    if (body?.seen === undefined || !params || /Proposal$/.test(route)) return input;
    const seen =
      body.seen === 'link'
        ? (await caller.call('decisionLink', { params })).body?.seen
        : (await caller.call('sheet', { params })).body?.approval?.seen;
    return { ...input, body: { ...body, seen: seen ?? 'nothing' } };
  };
  // Who has begun to change something is told for less than a minute.
  for (const number of [first, site]) {
    await ask(as('Ilse Brandvold'), 'changing', { params: { number }, body: { fields: ['what', 'why', 'reason'] } });
    for (const caller of callers.values()) await ask(caller, 'changedBy', { params: { number } });
  }
  await fetch(`${desk.running.url}/api/stand-in/programs/log`, { method: 'POST', body: '{}' });
  // Looking comes before changing, and once more after it.
  // A draft is tried before it is changed.
  const tried: readonly RouteName[] = ['overExisting', 'takeRunBack', 'draftOffers', 'tryCondition', 'showNotice'];
  const order = [...tried, ...(Object.keys(routes) as RouteName[])].filter(
    (route, index, all) => !BYTES.includes(route) && all.indexOf(route) === index,
  );
  const looking = order.filter((route) => routes[route].method === 'GET');
  for (const route of [...looking, ...order.filter((each) => !looking.includes(each)), ...looking])
    for (const caller of callers.values())
      for (const input of inputs[route] ?? [{}]) await ask(caller, route, input as Parameters<Caller['call']>[1]);
  await ask(contact, 'renewMyLink', { params: { number: renewed.number } });
  await ask(sela, 'frontDesk', {});
  for (const number of givenAway) {
    const of = { params: { number } };
    const version = async () => onVersion((await sela.call('given', of)).body?.version ?? 1);
    await ask(sela, 'given', of);
    for (const field of ['why', 'medical_note', 'what', 'reason'])
      await ask(sela, 'changeFields', { ...of, headers: await version(), body: { changes: { [field]: 'aaa' } } });
    await ask(sela, 'comment', { ...of, body: { text: 'On my way.', visibility: 'internal' } });
    for (const stage of ['in_hand', 'done', 'refused'])
      await ask(sela, 'moveStage', { ...of, headers: await version(), body: { stage } });
    await ask(sela, 'given', of);
    await ask(sela, 'giveBack', { ...of, headers: await version(), body: { reason: 'Away.' } });
    await ask(sela, 'given', of);
  }
  const idIn = (ref: string): string => ref.split('/')[0] ?? '';
  const sharedOnes = (inputs.sharedResult ?? []) as readonly { readonly params: { readonly id: string } }[];
  const sharedByLinks = (inputs.sharedByLink ?? []) as readonly { readonly params: { readonly token: string } }[];
  for (const caller of callers.values()) {
    const headers: Record<string, string> = caller.cookie ? { cookie: caller.cookie } : {};
    const bytes = async (route: RouteName, path: string, body?: Uint8Array): Promise<void> => {
      const sending = { method: 'POST', body: body as BodyInit };
      const sends = body
        ? { ...sending, headers: { ...headers, 'content-type': 'application/octet-stream' } }
        : { headers };
      const answer = await fetch(`${desk.running.url}/api/${path}`, sends);
      heardAll.push({ route, who: caller.who, status: answer.status, text: await answer.text(), asked: path });
    };
    for (const each of ['tell-tale', 'pointing', 'site-access', 'permit', 'concern-report'])
      await bytes('takeOut', `forms/${each}/requests.csv?among=all`);
    for (const { params } of sharedOnes) await bytes('sharedFile', `shared-results/${params.id}/rows.csv`);
    for (const { params } of sharedByLinks) await bytes('sharedFileByLink', `shared/${params.token}/rows.csv`);
    await bytes('peopleSheet', 'people.csv?kind=staff');
    await bytes('hearAsProgram', 'stand-in/programs/log', PDF);
    await bytes('portrait', `people/${desk.idOf('Maren Okafor')}/portrait`);
    const [email] = (inputs.incomingFile ?? []) as readonly {
      readonly params: { readonly id: string; file: string };
    }[];
    await bytes('incomingFile', `emails/${email?.params.id}/files/${email?.params.file}`);
    await bytes('deskLogo', 'desk/logo');
    await bytes('file', `requests/${permit}/files/${idIn(file.ref)}`);
    await bytes('followFile', `follow/${followed}/files/${idIn(theirs.body.ref)}`);
    await bytes('followFile', `follow/${followed}/files/${idIn(file.ref)}`);
    await bytes('upload', 'doors/permit-from-outside/uploads?field=papers&name=a.pdf', PDF);
    await bytes('draftUpload', 'forms/permit/draft/uploads?field=papers&name=a.pdf', PDF);
    await bytes('sheetUpload', `requests/${first}/uploads?field=scan&name=a.png`, Buffer.from(DOT, 'base64'));
    await bytes('sheetUpload', `requests/${permit}/uploads?field=papers&name=a.pdf`, PDF);
    const message = 'message-files?field=~message&name=a.pdf';
    await bytes('messageUpload', `requests/${site}/${message}`, PDF);
    await bytes('myMessageUpload', `my/requests/${other}/${message}`, PDF);
    await bytes('followMessageUpload', `follow/${followed}/${message}`, PDF);
  }
  // The file that was added at the desk is read there.
  const scanned = heardAll.find((each) => each.route === 'sheetUpload' && each.status === 200);
  const scan = (JSON.parse(scanned?.text ?? '{}') as { ref?: string }).ref;
  await ask(as('Ilse Brandvold'), 'changeFields', { params: { number: first }, body: { changes: { scan: [scan] } } });
  for (const caller of callers.values()) {
    const path = `requests/${first}/files/${idIn(scan ?? '')}`;
    const answer = await fetch(`${desk.running.url}/api/${path}`, { headers: { cookie: caller.cookie } });
    heardAll.push({ route: 'file', who: caller.who, status: answer.status, text: await answer.text(), asked: path });
    const small = await fetch(`${desk.running.url}/api/${path}/small`, { headers: { cookie: caller.cookie } });
    const seen = { who: caller.who, status: small.status, text: await small.text(), asked: `${path}/small` };
    heardAll.push({ route: 'smallFile', ...seen });
    for (const field of ['target', 'limited'])
      for (const [route, at] of [
        ['cardPicture', 'doors/pointing-from-outside'],
        ['draftPicture', 'forms/pointing'],
      ] as const) {
        const card = `${at}/cards/${field}/${idIn(scan ?? '')}`;
        const shown = await fetch(`${desk.running.url}/api/${card}`, { headers: { cookie: caller.cookie } });
        heardAll.push({ route, who: caller.who, status: shown.status, text: await shown.text(), asked: card });
      }
  }
  const all = (await desk.letters())
    .map(({ to, subject, text, html }) => JSON.stringify({ to, subject, text, html }))
    .join('\n');
  // Whatever is still on its way to those who listen.
  const heardSoFar = (): number => [...heard.values()].reduce((length, told) => length + told.length, 0);
  for (let before = -1, quiet = 0; quiet < 5; before = heardSoFar()) {
    quiet = heardSoFar() === before ? quiet + 1 : 0;
    await new Promise((done) => setTimeout(done, 200));
  }
  listening.abort();
  // Pulses that keep the line open come when they come.
  for (const [who, told] of heard)
    heardAll.push({ route: 'live', who, status: 200, text: told.replace(/^(:.*|id:.*)?\n/gm, ''), asked: '' });
  await desk.close();
  return { answers: heardAll, letters: all };
}

/** Ids and tokens, numbered in the order they come up in. */
function numbered(): (text: string) => string {
  const known = new Map<string, string>();
  return (text) =>
    text
      .replace(/127\.0\.0\.1:\d+/g, 'here')
      // Codes to sign in by are made anew as well.
      .replace(/(?<=^|enter this code: |"subject":")\d{6}(?= is your code|\. Or use)/gm, 'code')
      .replace(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}|[\w-]{22,}/g, (found) => {
        const number = known.get(found) ?? `#${known.size + 1}`;
        known.set(found, number);
        return number;
      });
}

let one: Heard;
let other: Heard;
beforeAll(async () => {
  // The house’s own clock stands still between calls: what is due happens after them.
  vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'] });
  one = await live(ONE);
  other = await live(OTHER);
}, 900_000);
afterAll(() => void vi.useRealTimers());

describe('two desks that differ in what is hidden', () => {
  it('answer everybody who may not read it the same, by every route', () => {
    expect(other.answers.map(({ route, who }) => `${route} ${who}`)).toEqual(
      one.answers.map(({ route, who }) => `${route} ${who}`),
    );
    const [mine, theirs] = [numbered(), numbered()];
    const apart = one.answers.flatMap((answer, index) => {
      const [a, b] = [mine(answer.text), theirs(other.answers[index]?.text ?? '')];
      const at = [...a].findIndex((sign, place) => sign !== b[place]);
      return a === b && answer.status === other.answers[index]?.status
        ? []
        : [
            `${answer.who} ${answer.route} ${answer.asked}: …${a.slice(Math.max(0, at - 60), at + 60)}… / …${b.slice(Math.max(0, at - 60), at + 60)}…`,
          ];
    });
    // With them as what is said of it: wherever this runs, its report names the place.
    expect(apart.slice(0, 12), apart.slice(0, 12).join('\n')).toEqual([]);
  });

  it('send the same letters', () => {
    expect(numbered()(other.letters)).toBe(numbered()(one.letters));
  });

  it('do so for each route to somebody it has something for', () => {
    const who = [...WATCHING, 'outside', PETRA, SELA.email];
    const told = (route: string, name: string): readonly string[] =>
      one.answers
        .filter((each) => each.route === route && each.who === name && each.status === 200)
        .map((each) => each.text);
    const rows = Object.keys(routes).map((route) => [route, ...who.map((name) => told(route, name).length)] as const);
    console.log(
      [['route', ...who.map((name) => name.split(/[ .]/)[0])], ...rows]
        .map((row) => row.map((cell, index) => String(cell).padEnd(index === 0 ? 18 : 9)).join(''))
        .join('\n'),
    );
    const unheard = rows.filter(([, ...counts]) => counts.every((count) => count === 0)).map(([route]) => route);
    expect(unheard).toEqual(ONLY_BEFORE);
    // An empty list would be the same by itself.
    const empty = rows.flatMap(([route]) => {
      const texts = who.flatMap((name) => told(route, name));
      return texts.length > 0 && texts.every((text) => /^\{("[a-zA-Z]+":\[\],?)*\}$/.test(text)) ? [route] : [];
    });
    expect(empty).toEqual([]);
  });
});
