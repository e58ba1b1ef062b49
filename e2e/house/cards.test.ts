import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { FormDesign } from '@tolvek/core/form';
import type { ReferenceKind } from '@tolvek/core/register';
import { requests, uploads } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion, tripOf } from './desk.ts';
import { upload } from './permit.ts';

// C14: what is on offer, beside the form.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let stranger: Caller;
let things: ReadonlyMap<string, string>;

beforeAll(async () => {
  desk = await Desk.open();
  things = desk.things();
  [maren, priya, stranger] = await Promise.all([desk.as('Maren Okafor'), desk.as('Priya Nakamura-Lind'), desk.as()]);
});
afterAll(() => desk.close());

interface Card {
  readonly picture: string | null;
  readonly facts: readonly { readonly label: string; readonly words: string }[];
  readonly unavailable: readonly { readonly label: string; readonly words: string }[] | null;
}
type Offers = { offers: readonly { id: string; label: string }[]; cards: Record<string, Card>; more: boolean };
const asked = async (by: Caller, answers: object = {}, slug = 'vessel-time'): Promise<Offers> =>
  ok(await by.call('offers', { params: { slug }, body: { field: 'vessel', find: '', answers } }));
const cardOf = async (by: Caller, called: string, ...more: [object?, string?]): Promise<Card | undefined> => {
  const { offers, cards } = await asked(by, ...more);
  const { id = '' } = offers.find(({ label }) => label.startsWith(called)) ?? {};
  return cards[id];
};
const picture = async (by: Caller, path: string) => {
  const answer = await fetch(`${desk.running.url}/api/${path}`, { headers: { cookie: by.cookie } });
  return {
    status: answer.status,
    type: answer.headers.get('content-type'),
    bytes: Buffer.from(await answer.arrayBuffer()),
  };
};
const numberOf = (called: string): string =>
  desk.running.house.db
    .select()
    .from(requests)
    .all()
    .find(({ values }) => values.name === called)?.number ?? '';
const move = async (called: string, stage: string): Promise<void> => {
  const number = numberOf(called);
  const headers = onVersion((await maren.sheet(number)).version);
  ok(await maren.call('moveStage', { params: { number }, headers, body: { stage } }));
};
/** Puts another draft of Vessel time in force. */
async function release(change: (type: ReferenceKind) => ReferenceKind): Promise<void> {
  const params = { key: 'vessel-time' };
  const form = ok(await maren.call('form', { params }));
  const draft = form.draft as FormDesign;
  const fields = draft.fields.map((field) =>
    field.key === 'vessel' && field.type.kind === 'reference'
      ? { ...field, type: { ...field.type, ...change(field.type) } }
      : field,
  );
  ok(
    await maren.call('saveDraft', { params, headers: onVersion(form.version), body: { draft: { ...draft, fields } } }),
  );
  ok(await maren.call('releaseForm', { params, headers: onVersion(form.version + 1), body: { note: '' } }));
}

describe('cards of what a reference offers', () => {
  it('say what the form chose of each, as it stands there now', async () => {
    const card = await cardOf(priya, 'Saithe');
    expect(card).toEqual({
      picture: expect.any(String),
      facts: [
        { label: 'Persons', words: '8 persons' },
        { label: 'Rate an hour', words: '€140.00' },
        { label: 'In the bay only', words: 'No' },
        { label: 'Berth', words: 'North pier, 2' },
      ],
      unavailable: null,
    });
    const number = numberOf('Saithe');
    const headers = onVersion((await maren.sheet(number)).version);
    ok(await maren.call('changeFields', { params: { number }, headers, body: { changes: { place: '' } } }));
    expect((await cardOf(stranger, 'Saithe', {}, 'vessel-time-from-outside'))?.facts.map(({ label }) => label)).toEqual(
      [...['Persons', 'Rate an hour', 'In the bay only']],
    );
  });

  it('tell what is not to be had just now, with the reason; and it can’t be asked for', async () => {
    await move('Skiff', 'resting');
    expect((await cardOf(priya, 'Skiff'))?.unavailable).toEqual([{ label: '', words: 'Not in use at the moment' }]);
    const refused = await priya.submit('vessel-time', tripOf(things, { vessel: things.get('Skiff') }));
    expect(refused.body.problems.map(({ field }: { field: string }) => field)).toEqual(['vessel']);
    await release((type) => ({ ...type, offered: 'it.stage = "in_use" and it.berths >= persons' }));
    const isShut = async (persons: number) =>
      Object.entries((await asked(priya, { persons: String(persons) })).cards).flatMap(([id, { unavailable }]) =>
        unavailable
          ? [`${[...things].find(([, each]) => each === id)?.[0]}: ${unavailable.map(({ words }) => words)}`]
          : [],
      );
    expect((await isShut(9)).sort()).toEqual([
      'Guillemot: 6 persons',
      'Saithe: 8 persons',
      'Skiff: Not in use at the moment,4 persons',
    ]);
    expect(await isShut(3)).toEqual(['Skiff: Not in use at the moment']);
    // Before anybody said how many, no boat is known to be too small; none is offered yet.
    expect((await cardOf(priya, 'Saithe'))?.unavailable).toEqual([{ label: '', words: 'answer “Persons” first' }]);
    await release((type) => ({ ...type, ...(type.cards ? { cards: { ...type.cards, unavailable: 'absent' } } : {}) }));
    const { offers, cards } = await asked(priya, { persons: '9' });
    expect(offers.map(({ label }) => label)).toEqual(['Arctic Tern, survey catamaran']);
    expect(Object.keys(cards)).toEqual(offers.map(({ id }) => id));
    // Where requests are worked on, there are names.
    const { number } = (
      await priya.submit('vessel-time', tripOf(things, { vessel: things.get('Saithe') }), { release: 3 })
    ).body;
    const at = ok(await maren.call('sheetOffers', { params: { number }, body: { field: 'vessel', find: '' } }));
    expect([at.cards, at.offers.length > 0]).toEqual([{}, true]);
    await release((type) => ({
      ...type,
      ...(type.cards ? { cards: { ...type.cards, unavailable: 'grey' } } : {}),
      offered: 'it.stage = "in_use"',
    }));
  });

  it('lose what a plan hides, in the same moment, with the picture', async () => {
    const shown = await cardOf(priya, 'Saithe');
    const path = `doors/vessel-time/cards/vessel/${shown?.picture}`;
    expect((await picture(priya, path)).status).toBe(200);
    const hide = (fields: readonly string[]): void =>
      desk.protect('vessels', {
        rules: fields.map((field) => ({
          ...{ id: `hides-${field.replace('_', '-')}`, name: field, fields: [field], level: 'hidden' },
          audience: { in: { everyone: true }, outOf: ['boats'] },
        })),
      });
    hide(['place', 'rate', 'photo']);
    const closed = await cardOf(priya, 'Arctic Tern');
    expect([closed?.picture, closed?.facts.map(({ label }) => label)]).toEqual([null, ['Persons', 'In the bay only']]);
    expect((await picture(priya, path)).status).toBe(404);
    hide([]);
    expect((await picture(priya, path)).status).toBe(200);
  });
});

describe('a picture on a card', () => {
  it('is made small once, for whoever may fill in the form', async () => {
    const at = (await cardOf(priya, 'Arctic Tern'))?.picture ?? '';
    const files = (): readonly string[] =>
      readdirSync(join(desk.folder, 'files')).filter((name) => name.startsWith('small-'));
    const first = await picture(priya, `doors/vessel-time/cards/vessel/${at}`);
    expect([first.status, first.type]).toEqual([200, 'image/webp']);
    const kept = files();
    expect((await picture(stranger, `doors/vessel-time-from-outside/cards/vessel/${at}`)).bytes).toEqual(first.bytes);
    expect(files()).toEqual(kept);
    const row = desk.running.house.db.select().from(uploads).where(eq(uploads.id, at)).get();
    expect(kept).toContain(`small-${row?.sha256}`);
    expect((await picture(maren, `forms/vessel-time/cards/vessel/${at}`)).status).toBe(200);
    expect((await picture(priya, `forms/vessel-time/cards/vessel/${at}`)).status).toBe(403);
  });

  /** A file that lies with the same request and is not the picture of its card. */
  const beside = (picture: string): string => {
    const { db } = desk.running.house;
    const row = db.select().from(uploads).where(eq(uploads.id, picture)).get();
    if (row)
      db.insert(uploads)
        .values({ ...row, id: 'beside-it' })
        .run();
    return 'beside-it';
  };

  it('is no way to any other file', async () => {
    const at = (await cardOf(priya, 'Arctic Tern'))?.picture ?? '';
    const lamp = desk.running.house.db.select().from(uploads).where(eq(uploads.name, 'meter.png')).get()?.id ?? '';
    for (const path of [
      // A picture of another register, one that is not there, another question, another form, a door one can’t go through.
      `doors/vessel-time/cards/vessel/${lamp}`,
      'doors/vessel-time/cards/vessel/nothing',
      `doors/vessel-time/cards/budget/${at}`,
      `doors/vessel-time/cards/purpose/${at}`,
      `doors/field-kit-loan/cards/tagged/${at}`,
      // Another file of the same boat.
      `doors/vessel-time/cards/vessel/${beside(at)}`,
    ])
      expect([path, (await picture(priya, path)).status]).toEqual([path, 404]);
    expect((await picture(stranger, `doors/vessel-time/cards/vessel/${at}`)).status).toBe(401);
    expect((await picture(stranger, `forms/vessel-time/cards/vessel/${at}`)).status).toBe(401);
  });

  it('that can’t be read as one is not there; the thing is offered all the same', async () => {
    const torn = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.from('not a picture')]);
    const sent = await upload(desk.running.url, maren, 'torn.jpg', torn, { slug: 'vessels', field: 'photo' });
    expect([sent.status, sent.body.ref === undefined]).toEqual([200, false]);
    const made = { name: 'Fulmar', what: 'barge', berths: '20', rate: '300', bay_only: true, photo: [sent.body.ref] };
    expect((await maren.submit('vessels', made)).status).toBe(200);
    const { picture: at } = (await cardOf(priya, 'Fulmar')) ?? {};
    expect((await picture(priya, `doors/vessel-time/cards/vessel/${at}`)).status).toBe(404);
    expect((await asked(priya)).offers.map(({ label }) => label)).toContain('Fulmar, barge');
  });
});
