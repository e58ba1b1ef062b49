import { newDoor } from '@tolvek/core/door';
import { asking, designOf, type FormDesign, OWN_REQUESTS } from '@tolvek/core/form';
import { requests, session, waitingSubmissions } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok, onVersion } from './desk.ts';

// C15: a form that changes what is there, for people from outside: proved each time, by somebody not on file, with what they agree to.
let desk: Desk;
let maren: Caller;
let stranger: Caller;
const slug = 'moorings';
const IDA = { name: 'Ida Sund', email: 'ida.sund@merrow.example' };
const PER = { name: 'Per Lunde', email: 'per.lunde@lunde.example' };
const DRAFT: FormDesign = {
  ...designOf(
    { told: english, title: 'Moorings', team: 'boats', approvers: 'duty-managers', calendar: 'desk' },
    '{buoy}',
    [
      asking('buoy', 'Buoy', { kind: 'text' }),
      asking('depth', 'Depth', { kind: 'number', places: 0, least: 1, most: 900 }),
      asking('owner', 'Owner', { kind: 'text' }, { required: false }),
    ],
    [],
  ),
  updates: { whose: OWN_REQUESTS, by: ['buoy'], none: 'add' },
};
const CONSENT = { text: 'We keep where your buoys lie.', version: 0 };

const setDoor = async (change: object): Promise<void> => {
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug } }));
  const body = { door: { ...door, ...change }, note: '' };
  ok(await maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body }));
};
const rows = () =>
  desk.running.house.db
    .select()
    .from(requests)
    .where(eq(requests.registerId, desk.register(slug).id))
    .all();
const depthOf = (buoy: string) => rows().flatMap(({ values }) => (values.buoy === buoy ? [values.depth] : []));
const send = (who: Caller, answers: object, more: object = {}) =>
  who.submit(slug, answers, { release: 1, more: { consent: 1, ...more } });
const confirmed = async (email: string, entry?: string) => {
  const params = { token: await desk.tokenFor(email, 'confirm') };
  return stranger.call('confirm', { params, query: entry === undefined ? {} : { entry } });
};
/** Their proof is older than the minutes in which it counts. */
const later = (): void =>
  void desk.running.house.db
    .update(session)
    .set({ createdAt: new Date(Date.now() - 16 * 60_000) })
    .run();

beforeAll(async () => {
  desk = await Desk.open();
  [maren, stranger] = [await desk.as('Maren Okafor'), await desk.as()];
  const body = { prefix: 'MO', desk: 'boats', doors: { staff: false, outside: true }, draft: DRAFT };
  ok(await maren.call('createForm', { headers: freshly(), body }));
  ok(await maren.call('releaseForm', { params: { key: slug }, headers: onVersion(1), body: { note: '' } }));
  await setDoor({ ...newDoor('confirmed-address', 'Moorings'), consent: CONSENT, open: true });
});
afterAll(() => desk.close());

it('is filled in by somebody of whom nothing is here where they say so, and is added once they confirm', async () => {
  const shut = ok(await stranger.call('door', { params: { slug } }));
  expect([shut.why, shut.addsInstead, shut.form]).toEqual(['sign-in', true, null]);
  const open = ok(await stranger.call('door', { params: { slug }, query: { fresh: 'true' } }));
  expect([open.refusal, open.addsInstead, open.form.updates]).toEqual([null, false, null]);
  const sent = ok(await send(stranger, { buoy: 'North', depth: '40' }, { contact: IDA }));
  expect([sent.state, rows().length]).toEqual(['to-confirm', 0]);
  const { is, number, follow } = ok(await confirmed(IDA.email));
  expect([is, depthOf('North')]).toEqual(['arrived', [40]]);
  expect(ok(await stranger.call('follow', { params: { token: follow } })).number).toBe(number);
});

it('changes what is theirs where it turns out that something is, and nothing of anybody else', async () => {
  ok(await send(stranger, { buoy: 'North', depth: '41' }, { contact: IDA }));
  const changed = ok(await confirmed(IDA.email));
  expect([changed.is, depthOf('North')]).toEqual(['changed', [41]]);
  const { history } = ok(await maren.call('sheet', { params: { number: changed.number } }));
  // What they agreed to stands with the change, in the words of then.
  expect(history.at(-1).agreed).toEqual({ text: CONSENT.text, version: 1 });
  ok(await send(stranger, { buoy: 'North', depth: '7' }, { contact: PER }));
  expect([ok(await confirmed(PER.email)).is, depthOf('North').sort()]).toEqual(['arrived', [41, 7]]);
});

it('is proved each time where the door wants that, and changes what was meant once it is', async () => {
  await setDoor({ proves: 'each-time' });
  const ida = await desk.contact(IDA.email);
  expect(ok(await send(ida, { buoy: 'North', depth: '42' })).state).toBe('changed');
  later();
  // What is wrong is said before an email goes, and a blank is nothing wrong: it leaves what stands there.
  const wrong = await send(ida, { buoy: 'North', depth: '9000' });
  expect([wrong.status, wrong.body.problems.map(({ field }: { field: string }) => field)]).toEqual([422, ['depth']]);
  const sent = ok(await send(ida, { buoy: 'North', owner: 'Merrow' }));
  expect([sent.state, depthOf('North').sort()]).toEqual(['to-confirm', [42, 7]]);
  const before = rows().length;
  const { is, number } = ok(await confirmed(IDA.email));
  expect([is, rows().length, rows().find((row) => row.number === number)?.values]).toEqual([
    ...['changed', before, { buoy: 'North', depth: 42, owner: 'Merrow' }],
  ]);
  await setDoor({ proves: undefined });
});

it('asks whoever confirms which of theirs is meant, where several fit', async () => {
  const form = ok(await maren.call('form', { params: { key: slug } }));
  const draft = { ...DRAFT, updates: { ...DRAFT.updates, by: [], beside: true } };
  const { version } = ok(
    await maren.call('saveDraft', { params: { key: slug }, headers: onVersion(form.version), body: { draft } }),
  );
  ok(await maren.call('releaseForm', { params: { key: slug }, headers: onVersion(version), body: { note: '' } }));
  const again = (answers: object) => stranger.submit(slug, answers, { release: 2, more: { consent: 1, contact: IDA } });
  ok(await again({ buoy: 'South', depth: '12' }));
  const token = await desk.tokenFor(IDA.email, 'confirm');
  const { which } = ok(await stranger.call('confirmation', { params: { token } }));
  expect([which.theirs.length, which.another]).toEqual([1, true]);
  // Not said, it is not guessed; what is somebody else’s is not theirs to name.
  expect((await confirmed(IDA.email)).status).toBe(422);
  const pers = rows().find(({ values }) => values.depth === 7)?.id ?? '';
  expect((await confirmed(IDA.email, pers)).status).toBeGreaterThanOrEqual(409);
  expect(rows().find(({ id }) => id === pers)?.values.depth).toBe(7);
  const added = ok(await confirmed(IDA.email, 'another'));
  expect([added.is, depthOf('South')]).toEqual(['arrived', [12]]);
  ok(await again({ buoy: 'East', depth: '13' }));
  const mine = rows().find(({ values }) => values.depth === 42)?.id ?? '';
  expect([ok(await confirmed(IDA.email, mine)).is, depthOf('East')]).toEqual(['changed', [13]]);
  expect(desk.running.house.db.select().from(waitingSubmissions).all()).toEqual([]);
});

it('asks routing and decision anew after a change by a form, where its door wants that', async () => {
  await setDoor({ again: ['routing'] });
  const routed = { ...DRAFT.routing };
  const form = ok(await maren.call('form', { params: { key: slug } }));
  const draft = {
    ...DRAFT,
    routing: {
      columns: [{ id: 'deep', label: 'Depth', input: 'depth' }],
      rows: [{ id: 'deep', note: 'Deep', cells: { deep: '> 100' }, outcome: { ...routed.otherwise, team: 'lab' } }],
      otherwise: routed.otherwise,
    },
  };
  const { version } = ok(
    await maren.call('saveDraft', { params: { key: slug }, headers: onVersion(form.version), body: { draft } }),
  );
  const release = ok(
    await maren.call('releaseForm', { params: { key: slug }, headers: onVersion(version), body: { note: '' } }),
  ).number;
  const ida = await desk.contact(IDA.email);
  const sent = (depth: string) => ida.submit(slug, { buoy: 'West', depth }, { release, more: { consent: 1 } });
  const { number } = ok(await sent('20'));
  const team = () => rows().find((row) => row.number === number)?.team;
  expect(team()).toBe('boats');
  expect(ok(await sent('300')).state).toBe('changed');
  expect(team()).toBe('lab');
});

it('is for staff where entries are found by who stands in a field, and says so to everybody from outside', async () => {
  const key = 'duties';
  const fields = [
    asking('keeper', 'Keeper', { kind: 'person', from: [] }),
    asking('place', 'Place', { kind: 'text' }, { required: false }),
  ];
  const basics = { told: english, title: 'Duties', team: 'boats', approvers: 'duty-managers', calendar: 'desk' };
  const draft: FormDesign = {
    ...designOf(basics, '{place}', fields, []),
    updates: { whose: 'keeper', by: [], none: 'add' },
  };
  const body = { prefix: 'DU', desk: 'boats', doors: { staff: false, outside: true }, draft };
  ok(await maren.call('createForm', { headers: freshly(), body }));
  ok(await maren.call('releaseForm', { params: { key }, headers: onVersion(1), body: { note: '' } }));
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug: key } }));
  const open = { ...door, ...newDoor('confirmed-address', 'Duties'), open: true };
  ok(
    await maren.call('changeDoor', {
      params: { slug: key },
      headers: onVersion(version),
      body: { door: open, note: '' },
    }),
  );
  const { findings } = ok(await maren.call('form', { params: { key } }));
  const at = findings.filter(({ at }: { at: string }) => at === 'updates');
  expect(at.map(({ message }: { message: string }) => message)).toEqual([
    expect.stringContaining('“Keeper” names staff'),
  ]);
  const met = async (who: Caller) => {
    const { why, addsInstead, form } = ok(await who.call('door', { params: { slug: key } }));
    return [why, addsInstead, form !== null];
  };
  expect(await met(stranger)).toEqual(['sign-in', false, false]);
  const ida = await desk.contact(IDA.email);
  expect(await met(ida)).toEqual(['kept-by-others', false, false]);
  expect(await met(maren)).toEqual([null, false, true]);
  const refused = await ida.submit(key, { place: 'North' }, { release: 1 });
  expect([refused.status, refused.text]).toEqual([403, expect.stringContaining('belong to staff')]);
  expect(
    desk.running.house.db
      .select()
      .from(requests)
      .where(eq(requests.registerId, desk.register(key).id))
      .all(),
  ).toEqual([]);
});
