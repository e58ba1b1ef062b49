import { type FormDesign, spokenAlso, textsToTranslate, withTranslation } from '@tolvek/core/form';
import { newMailing } from '@tolvek/core/mailing';
import { people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ilse: Caller;
let stranger: Caller;
const GERMAN = { 'Accept-Language': 'de' };
const WANDA = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };
const of = { params: { key: 'site-access' } };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, ilse, stranger] = [await desk.as('Maren Okafor'), await desk.as('Ilse Brandvold'), await desk.as()];
});
afterAll(() => desk.close());

const doorIn = async (headers: Readonly<Record<string, string>>, who = stranger, slug = 'visit') =>
  ok(await who.call('door', { params: { slug }, headers }));
const asked = (door: { form: { parts: readonly { field?: string; asks?: string }[] } }, field: string) =>
  door.form.parts.find((part) => part.field === field)?.asks;
const labelOf = (door: { form: { fields: readonly { key: string; label: string }[] } }, field: string) =>
  door.form.fields.find(({ key }) => key === field)?.label;

/** Releases the draft of the form with something changed. */
async function release(change: (draft: FormDesign) => FormDesign): Promise<void> {
  const form = ok(await maren.call('form', of));
  const body = { draft: change(form.draft) };
  const { version } = ok(await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body }));
  ok(await maren.call('releaseForm', { ...of, headers: onVersion(version), body: { note: '' } }));
}

describe('a form that is there in German', () => {
  let follow = '';

  it('is asked in German of whoever reads it, and as it was written of all others', async () => {
    const [german, english] = [await doorIn(GERMAN), await doorIn({})];
    expect([german.title, asked(german, 'visitor'), labelOf(german, 'visitor')]).toEqual([
      ...['Auf die Station kommen', 'Wer kommt?', 'Gast'],
    ]);
    expect([english.title, asked(english, 'visitor'), labelOf(english, 'visitor')]).toEqual([
      ...['Come on site', 'Who is coming?', 'Visitor'],
    ]);
    expect([german.spoken, english.spoken]).toEqual(['de', 'en']);
    // It is the same form: nothing but its words is another.
    const bare = (text: string): string =>
      text.replace(/"(title|intro|asks|help|text|label|fix|spoken)":"[^"]*"/g, '$1');
    const { opened: _one, ...one } = german.form;
    const { opened: _other, ...other } = english.form;
    expect(bare(JSON.stringify(one))).toBe(bare(JSON.stringify(other)));
    // Other languages stay in the house.
    expect(JSON.stringify([german, english])).not.toContain('translations');
    // An edition says it as well, to whom it is given.
    const { db } = desk.running.house;
    const [maud] = db.select({ email: people.email }).from(people).where(eq(people.name, 'Maud Ferriter')).all();
    const contractor = await desk.contact(maud?.email ?? '');
    expect((await doorIn(GERMAN, contractor)).title).toBe('Auf der Station arbeiten');
    // The list of forms, too.
    const home = ok(await stranger.call('frontDesk', { headers: GERMAN }));
    expect(home.forms.map(({ title }: { title: string }) => title)).toContain('Auf die Station kommen');
    // What is not there in German is as it was written.
    expect((await doorIn(GERMAN, stranger, 'school-visit')).spoken).toBe('en');
  });

  it('is told in German to whoever asked in it: the email, the stage, what they sent', async () => {
    const sent = await stranger.call('submit', {
      ...{ params: { slug: 'visit' }, headers: { ...GERMAN, ...freshly() } },
      body: { release: ok(await maren.call('form', of)).releases[0].number, answers: VISIT, contact: WANDA },
    });
    ok(sent);
    const letter = (await desk.letters()).at(-1);
    expect(`${letter?.subject} ${letter?.text}`).toContain('Auf die Station kommen');
    const token = await desk.tokenFor(WANDA.email, 'confirm');
    expect(ok(await stranger.call('confirmation', { params: { token }, headers: GERMAN })).form).toBe(
      'Auf die Station kommen',
    );
    const confirmed = ok(await stranger.call('confirm', { params: { token }, headers: GERMAN }));
    follow = confirmed.follow;
    const own = ok(await stranger.call('follow', { params: { token: follow }, headers: GERMAN }));
    expect([own.form, own.stage]).toEqual([
      'Auf die Station kommen',
      expect.stringMatching(/Ist bei uns|Wird entschieden/),
    ]);
    expect(own.values.fields.map(({ label }: { label: string }) => label)).toContain('Anlass');
    const english = ok(
      await stranger.call('follow', { params: { token: follow }, headers: { 'Accept-Language': 'en' } }),
    );
    expect(english.form).toBe('Come on site');
    // The desk reads it as it was written, whatever the pages are read in.
    const sheet = ok(await ilse.call('sheet', { params: { number: confirmed.number }, headers: GERMAN }));
    expect([sheet.form, sheet.values.fields.some(({ label }: { label: string }) => label === 'Reason')]).toEqual([
      ...['Come on site', true],
    ]);
  });

  it('is shared in German with whoever reads it: the columns as requesters know them, the stages, the head of a file', async () => {
    const shared = {
      ...{ name: 'Who comes', register: 'site-access', facts: ['number', 'stage'], fields: ['visitor', 'reason'] },
      ...{ when: '', until: '2026-12-24', takesOut: true },
    };
    const share = async (audience: object | null): Promise<string> =>
      ok(await maren.call('shareResult', { headers: freshly(), body: { ...shared, audience } })).id;
    const [byName, byLink] = [await share({ in: { everyone: true }, outOf: [] }), await share(null)];
    const listed = ok(await maren.call('sharedResults')).mine.find(({ id }: { id: string }) => id === byLink);
    const params = { token: listed.path.replace('/shared/link/', '') };
    const labels = ({ columns }: { columns: readonly { label: string }[] }) => columns.map(({ label }) => label);
    const page = async (headers: Readonly<Record<string, string>>) =>
      ok(await stranger.call('sharedByLink', { params, headers }));
    const [german, english] = [await page(GERMAN), await page({ 'Accept-Language': 'en' })];
    expect([labels(german), labels(english)]).toEqual([
      ['Gast', 'Anlass'],
      ['Visitor', 'Reason'],
    ]);
    expect([german.rows[0].facts[1], english.rows[0].facts[1]]).toEqual([
      expect.stringMatching(/Ist bei uns|Wird entschieden/),
      expect.stringMatching(/We have it|Being decided/),
    ]);
    // Colleagues read the columns so as well, and the stages as the desk calls them.
    const oskar = await desk.as('Oskar Veldhuis');
    const named = ok(await oskar.call('sharedResult', { params: { id: byName }, headers: GERMAN }));
    expect([labels(named), named.rows[0].facts[1]]).toEqual([['Gast', 'Anlass'], expect.not.stringMatching(/uns/)]);
    const file = await fetch(`${desk.running.url}/api/shared/${params.token}/rows.csv`, {
      headers: GERMAN,
    });
    expect((await file.text()).split('\r\n')[0]?.replace('\uFEFF', '')).toBe('"Nummer","Stand","Gast","Anlass"');
  });

  it('says what is written now where that changed since it was translated, and finds it', async () => {
    await release((draft) => ({
      ...draft,
      title: 'Come on site or on board',
      parts: draft.parts.map((part) =>
        part.part === 'question' && part.field === 'visitor' ? { ...part, asks: 'Who comes?' } : part,
      ),
    }));
    const german = await doorIn(GERMAN);
    expect([german.title, asked(german, 'visitor'), asked(german, 'reason')]).toEqual([
      ...['Come on site or on board', 'Who comes?', 'Wozu kommt die Person?'],
    ]);
    const { findings } = ok(await maren.call('form', of));
    expect(findings).toContainEqual(expect.objectContaining({ severity: 'caution', page: 'languages', at: 'de' }));
    // What was sent before still says what was translated from what it says.
    expect(ok(await stranger.call('follow', { params: { token: follow }, headers: GERMAN })).form).toBe(
      'Auf die Station kommen',
    );
  });

  it('says what is put right in a translation to those who asked before as well', async () => {
    await release((draft) => {
      const stage = textsToTranslate(draft).find(({ field, place }) => field === 'reason' && place === 'label');
      if (!stage) throw new Error('No such text.');
      return withTranslation(draft, stage, 'de', 'Grund des Besuchs');
    });
    const own = ok(await stranger.call('follow', { params: { token: follow }, headers: GERMAN }));
    expect(own.values.fields.map(({ label }: { label: string }) => label)).toContain('Grund des Besuchs');
    expect(labelOf(await doorIn(GERMAN), 'reason')).toBe('Grund des Besuchs');
    // So is what the form itself says, where it says again what it was translated from.
    await release((draft) => {
      const back = { ...draft, title: 'Come on site' };
      const title = textsToTranslate(back).find(({ kind }) => kind === 'title');
      if (!title) throw new Error('No such text.');
      return withTranslation(back, title, 'de', 'Zur Station kommen');
    });
    expect(ok(await stranger.call('follow', { params: { token: follow }, headers: GERMAN })).form).toBe(
      'Zur Station kommen',
    );
  });

  it('has doors that say it in German, and ask to agree to another text where a translation is another', async () => {
    const set = async (change: (door: object & { consent?: object }) => object): Promise<void> => {
      const { version, door } = ok(await maren.call('doorDesign', { params: { slug: 'visit' } }));
      const body = { door: change(door), note: '' };
      ok(await maren.call('changeDoor', { params: { slug: 'visit' }, headers: onVersion(version), body }));
    };
    const consent = { text: 'We keep your name.', version: 0 };
    const says = (text: string) => ({
      de: { consent: { of: consent.text, says: text }, closed: { of: 'Closed for now.', says: 'Zurzeit zu.' } },
    });
    await set((door) => ({
      ...door,
      consent,
      closedMessage: 'Closed for now.',
      translations: says('Wir merken uns Ihren Namen.'),
    }));
    expect((await doorIn(GERMAN)).form.consent).toEqual({ text: 'Wir merken uns Ihren Namen.', version: 1 });
    expect((await doorIn({})).form.consent).toEqual({ text: 'We keep your name.', version: 1 });
    await set((door) => ({ ...door, translations: says('Wir merken uns, wie Sie heißen.') }));
    expect((await doorIn({})).form.consent.version).toBe(2);
    // What somebody agreed to is read as they read it, in whatever language it is looked at later.
    for (const [headers, email, text] of [
      [GERMAN, 'gerd.ahl@merrow.example', 'Wir merken uns, wie Sie heißen.'],
      [{}, 'ena.ahl@merrow.example', 'We keep your name.'],
    ] as const) {
      const { release } = (await doorIn(headers)).form;
      const body = { release, answers: VISIT, contact: { name: 'Ahl', email }, consent: 2 };
      ok(await stranger.call('submit', { params: { slug: 'visit' }, headers: { ...headers, ...freshly() }, body }));
      const params = { token: await desk.tokenFor(email, 'confirm') };
      const { number, follow } = ok(await stranger.call('confirm', { params }));
      expect(ok(await maren.call('sheet', { params: { number } })).consent).toEqual({ text, version: 2 });
      for (const reads of [GERMAN, {}])
        expect(ok(await stranger.call('follow', { params: { token: follow }, headers: reads })).consent.text).toBe(
          text,
        );
    }
    await set((door) => ({ ...door, open: false }));
    expect([(await doorIn(GERMAN)).refusal, (await doorIn({})).refusal]).toEqual(['Zurzeit zu.', 'Closed for now.']);
    await set(({ consent: _, ...door }) => ({ ...door, open: true }));
  });

  it('is sent with what its mailing says, in German to whoever reads German', async () => {
    const text = 'We check our list of visitors.';
    const mailing = {
      ...{ ...newMailing('Visitors', 'visit'), to: { audience: { in: { anyOf: ['boats'] }, outOf: [] } }, text },
      translations: { de: { text: { of: text, says: 'Wir prüfen unsere Liste der Gäste.' } } },
    };
    const bram = await desk.as('Bram Solheim');
    ok(await bram.call('setLanguage', { body: { language: 'de' } }));
    const { id } = ok(await maren.call('addMailing', { ...of, headers: freshly(), body: { mailing } }));
    ok(await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } }));
    await vi.waitFor(async () => {
      const sent = (await desk.letters()).filter(({ to }) => to.includes('bram.solheim'));
      expect(sent.at(-1)?.text).toContain('Wir prüfen unsere Liste der Gäste.');
    }, 20_000);
    ok(await bram.call('setLanguage', { body: { language: 'en' } }));
  });

  it('is as it was written for whoever comes once it is there in German no longer', async () => {
    await release((draft) => spokenAlso(draft, 'de', false));
    const german = await doorIn(GERMAN);
    expect([german.spoken, asked(german, 'reason'), labelOf(german, 'reason')]).toEqual([
      ...['en', 'What do they come for?', 'Reason'],
    ]);
    // Whoever asked while it was goes on reading it so.
    const own = ok(await stranger.call('follow', { params: { token: follow }, headers: GERMAN }));
    expect(own.form).toBe('Auf die Station kommen');
  });
});

describe('terms in another language', () => {
  const lab = { params: { key: 'sample-analysis' } };
  const species = { params: { key: 'species' } };
  /** What the terms at a door are called, by their keys. */
  const calledAt = async (headers: Readonly<Record<string, string>>, who: Caller) => {
    const { vocabularies } = (await doorIn(headers, who, 'sample-analysis')).form.facts;
    const found = vocabularies.find(({ key }: { key: string }) => key === 'species');
    return Object.fromEntries(found.terms.map(({ key, label }: { key: string; label: string }) => [key, label]));
  };

  it('are called so at the door and on the page of whoever reads it, are meant by either word, and found where one is missing', async () => {
    const priya = await desk.as('Priya Nakamura-Lind');
    const form = ok(await maren.call('form', lab));
    const draft = spokenAlso(form.draft, 'de', true);
    const saved = ok(await maren.call('saveDraft', { ...lab, headers: onVersion(form.version), body: { draft } }));
    expect(saved.findings.some(({ message }: { message: string }) => /terms of “Species” are not/.test(message))).toBe(
      true,
    );
    const { number } = ok(
      await maren.call('releaseForm', { ...lab, headers: onVersion(saved.version), body: { note: '' } }),
    );
    const { terms, version, name } = ok(await maren.call('vocabulary', species));
    const seal = { de: { label: { of: 'Grey seal', says: 'Kegelrobbe' } } };
    const gone = { de: { label: { of: 'Codfish', says: 'Dorsch' } } };
    const body = {
      name,
      terms: terms.map((term: { key: string }) =>
        term.key === 'grey_seal'
          ? { ...term, translations: seal }
          : term.key === 'cod'
            ? { ...term, translations: gone }
            : term,
      ),
    };
    ok(await maren.call('saveVocabulary', { ...species, headers: onVersion(version), body }));
    const [german, english] = [await calledAt(GERMAN, priya), await calledAt({ 'Accept-Language': 'en' }, priya)];
    expect([german.grey_seal, english.grey_seal]).toEqual(['Kegelrobbe', 'Grey seal']);
    // What was made of other words is not read.
    expect(german.cod).toBe(english.cod);
    const tube = { label: 'A', matrix: 'tissue', method: 'metals', runs: 1 };
    const answers = { project: 'Seals', samples: [tube], species: ['Kegelrobbe'], arrive: '2026-12-10', frozen: false };
    const sent = ok(await priya.submit('sample-analysis', answers, { release: number })).number;
    const reads = async (headers: Readonly<Record<string, string>>) =>
      ok(await priya.call('myRequest', { params: { number: sent }, headers })).values.fields.find(
        ({ key }: { key: string }) => key === 'species',
      ).shown;
    ok(await priya.call('setLanguage', { body: { language: 'de' } }));
    expect(await reads(GERMAN)).toBe('Kegelrobbe');
    ok(await priya.call('setLanguage', { body: { language: 'en' } }));
    expect(await reads({})).toBe('Grey seal');
    // So they are in what is shared.
    const shared = {
      ...{ name: 'Seals', register: 'sample-analysis', facts: ['number'], fields: ['species'], when: '' },
      ...{ until: '2026-12-24', takesOut: false, audience: null },
    };
    const { id } = ok(await maren.call('shareResult', { headers: freshly(), body: shared }));
    const { path } = ok(await maren.call('sharedResults')).mine.find((each: { id: string }) => each.id === id);
    const params = { token: path.replace('/shared/link/', '') };
    const cells = async (headers: Readonly<Record<string, string>>) =>
      ok(await stranger.call('sharedByLink', { params, headers })).rows[0].cells;
    expect([await cells(GERMAN), await cells({ 'Accept-Language': 'en' })]).toEqual([['Kegelrobbe'], ['Grey seal']]);
    const sheet = ok(await maren.call('sheet', { params: { number: sent }, headers: GERMAN }));
    expect(sheet.values.fields.find(({ key }: { key: string }) => key === 'species').shown).toBe('Grey seal');
  });
});

describe('a form that is written in another language than the desk’s', () => {
  it('says so to whoever comes, whatever they read', async () => {
    const school = { params: { key: 'school-visit' } };
    const form = ok(await maren.call('form', school));
    const draft: FormDesign = { ...form.draft, title: 'Schulbesuch', written: 'de' };
    const saved = ok(await maren.call('saveDraft', { ...school, headers: onVersion(form.version), body: { draft } }));
    ok(await maren.call('releaseForm', { ...school, headers: onVersion(saved.version), body: { note: '' } }));
    const [german, english] = [
      await doorIn(GERMAN, stranger, 'school-visit'),
      await doorIn({ 'Accept-Language': 'en' }, stranger, 'school-visit'),
    ];
    // It is not there in English: all read it as it is written.
    expect([german.spoken, german.title, english.spoken, english.title]).toEqual([
      ...['de', 'Schulbesuch', 'de', 'Schulbesuch'],
    ]);
  });
});
