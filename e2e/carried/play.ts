import type { RouteName } from '@tolvek/contract';
import { type FormDesign, type FormRule, RECIPES } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { VOCABULARIES } from '@tolvek/demo';
import { english } from '@tolvek/words/english';
import { AllKinds, keyOf } from '../house/allKinds.ts';
import { type Answer, type Caller, Desk, tripOf, VISIT, WATER } from '../house/desk.ts';
import { makePermit, PDF, upload } from '../house/permit.ts';

/**
 * Plays everything that is ever written into a data folder: every way in, every change, every link
 * and letter, each stage of each of them. What was played is kept as the data of a release, and
 * read by the releases after it.
 */
export async function play(folder: string): Promise<void> {
  const first = await Desk.open(40, folder);
  await new Playing(first).everything();
  await first.running.stop();
  // From here on no letter goes: some are given up, some wait.
  const second = await Desk.open(0, folder, {}, 'smtp://127.0.0.1:1');
  await new Playing(second).withoutMail();
  await second.running.stop();
}

/** Who plays and reads: each stands differently to what is asked. */
export const PEOPLE = [
  'Maren Okafor',
  'Ada Quillfeather',
  'Ilse Brandvold',
  'Bram Solheim',
  'Tomas Achterberg',
  'Oskar Veldhuis',
  'Gunnar Peverell',
  'Priya Nakamura-Lind',
  'Hanne Istvan',
] as const;

export const WIM = { name: 'Wim Haldane', email: 'wim.haldane@haldane.example' };
const NOOR = { name: 'Noor Castellan', email: 'noor.castellan@corrin.example' };
/** Days on site that are still to come when the release ends. */
export const LATER = { ...VISIT, arrival: '2026-12-28', departure: '2026-12-29' };
const GRETA = { name: 'Greta Moss', email: 'greta.moss@haldane.example' };
const PIET = { name: 'Piet Arrowsmith', email: 'piet.arrowsmith@corrin.example' };
const UNKNOWN = { name: 'Ottoline Marsh', email: 'ottoline.marsh@new.example' };

const key = (name: string) => ({ 'Idempotency-Key': `carried-${name}` });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const asking = (field: string) => ({ part: 'question', field, asks: '', help: '', required: false }) as const;
const DAY = 24 * 60;

const simple = (title: string, team = 'boats'): FormDesign => {
  const recipe = RECIPES.find((each) => each.key === 'simple');
  if (!recipe) throw new Error('There is a simplest recipe.');
  return recipe.make({ told: english, title, team, approvers: 'duty-managers', calendar: 'desk' });
};
const rule = (id: string, more: Partial<FormRule>): FormRule => ({
  id,
  name: `Rule ${id}`,
  says: '',
  when: 'size > 10',
  then: [],
  otherwise: [],
  on: true,
  runs: 'saving',
  ...more,
});

/** A form with every source, every action of a rule, what is unique, and things it points to. */
function gear(): FormDesign {
  const base = simple('Gear');
  const fields: readonly Field[] = [
    { key: 'code', label: 'Code', type: { kind: 'text' }, source: 'asked' },
    { key: 'size', label: 'Size', type: { kind: 'number', places: 0 }, source: 'asked' },
    { key: 'born', label: 'Made on', type: { kind: 'date' }, source: 'asked', preset: { from: 'today', plus: -10 } },
    { key: 'species', label: 'Species', type: { kind: 'term', vocabulary: 'species' }, source: 'asked' },
    { key: 'also', label: 'Also', type: { kind: 'terms', vocabulary: 'species' }, source: 'asked' },
    {
      key: 'boat',
      label: 'Boat',
      type: { kind: 'reference', register: 'vessels', shows: ['name'], among: 'all' },
      source: 'asked',
    },
    {
      key: 'colour',
      label: 'Colour',
      type: {
        kind: 'choice',
        options: [
          { key: 'red', label: 'Red' },
          { key: 'green', label: 'Green' },
        ],
      },
      source: 'asked',
    },
    {
      key: 'lines',
      label: 'Lines',
      type: {
        kind: 'line-items',
        columns: [
          { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
          { key: 'count', label: 'How many', type: { kind: 'number', places: 0 }, required: true },
        ],
      },
      source: 'asked',
    },
    { key: 'papers', label: 'Papers', type: { kind: 'files', only: 'any', most: 3 }, source: 'asked' },
    {
      key: 'berths',
      label: 'Berths',
      type: { kind: 'number', places: 0 },
      source: 'carried',
      reference: 'boat',
      field: 'berths',
      live: true,
    },
    {
      key: 'rate',
      label: 'Rate',
      type: { kind: 'money', currency: 'EUR' },
      source: 'carried',
      reference: 'boat',
      field: 'rate',
      live: false,
    },
    {
      key: 'serial',
      label: 'Serial',
      type: { kind: 'running-number', prefix: 'G-{year}-', digits: 4 },
      source: 'given',
    },
    {
      key: 'pieces',
      label: 'Pieces',
      type: { kind: 'number', places: 0 },
      source: 'computed',
      formula: 'sum(lines.count)',
    },
    {
      key: 'old',
      label: 'Old',
      type: { kind: 'yes-no' },
      source: 'computed',
      formula: 'today > born + duration("P12D")',
    },
    { key: 'seal', label: 'A seal', type: { kind: 'yes-no' }, source: 'computed', formula: 'species = "grey_seal"' },
    { key: 'mark', label: 'Mark', type: { kind: 'text' }, source: 'desk-only' },
    { key: 'seen_by', label: 'Seen by', type: { kind: 'person', from: [] }, source: 'desk-only' },
    { key: 'scan', label: 'Scan', type: { kind: 'files', only: 'any' }, source: 'desk-only' },
  ];
  const outcome = { team: 'boats', priority: 'normal', workingDays: 2, path: null } as const;
  return {
    ...base,
    subject: '{what}, {code}, {boat}',
    fields: [...base.fields, ...fields],
    parts: [
      ...base.parts.map((part) => (part.part === 'question' ? { ...part, required: part.field === 'what' } : part)),
      { part: 'section', id: 'section-more', title: 'More', text: 'About the gear.' },
      ...['code', 'size', 'born', 'species', 'also', 'boat'].map(asking),
      { part: 'page', id: 'page-2', title: 'Pieces', text: '' },
      ...['colour', 'lines', 'papers'].map(asking),
      { part: 'instruction', id: 'words-1', text: 'You ask for {what}.' },
    ],
    rules: [
      rule('marks', {
        then: [{ do: 'set', field: 'mark', value: '"large"' }],
        otherwise: [{ do: 'clear', fields: ['mark'] }],
      }),
      rule('refuses', {
        when: 'size > 1000',
        then: [{ do: 'refuse', field: 'size', text: 'Too large.', fix: 'Smaller.' }],
      }),
      rule('warns', { when: 'size > 500', then: [{ do: 'warn', field: 'size', text: 'Large.' }] }),
      rule('requires', { when: 'colour = "red"', then: [{ do: 'require', fields: ['code'] }] }),
      rule('hides', { runs: 'filling', when: 'size = 1', then: [{ do: 'hide', parts: ['also'] }] }),
      rule('limits', {
        runs: 'filling',
        when: 'size = 2',
        then: [{ do: 'limit', field: 'colour', options: ['green'] }],
      }),
      rule('locks', { when: 'size = 3', then: [{ do: 'lock', fields: ['seen_by'] }] }),
    ],
    unique: [
      { id: 'unique-1', fields: ['code'], among: 'unfinished' },
      { id: 'unique-2', fields: ['what', 'born'], among: 'all' },
    ],
    routing: {
      columns: [
        { id: 'size', label: 'Size', input: 'size' },
        { id: 'asked', label: 'Asked by', input: 'requester.department' },
      ],
      rows: [
        {
          id: 'row-dear',
          note: 'Large is decided',
          cells: { size: '> 100' },
          outcome: { ...outcome, priority: 'high', workingDays: 1, path: 'path' },
        },
        {
          id: 'row-small',
          note: 'Small goes to Estates',
          cells: { size: '< 5' },
          outcome: { ...outcome, team: 'estates' },
        },
      ],
      otherwise: outcome,
    },
  };
}

/** A form that points to what is asked by another, and brings along what follows it. */
function hauls(): FormDesign {
  const base = simple('Hauls', 'estates');
  return {
    ...base,
    fields: [
      ...base.fields,
      {
        key: 'gear',
        label: 'Gear',
        type: { kind: 'references', register: 'gear', shows: ['what', 'code'], among: 'all', offered: 'it.size < 900' },
        source: 'asked',
      },
      {
        key: 'main',
        label: 'Main gear',
        type: { kind: 'reference', register: 'gear', shows: ['what'], among: 'unfinished' },
        source: 'asked',
      },
      {
        key: 'main_berths',
        label: 'Berths of its boat',
        type: { kind: 'number', places: 0 },
        source: 'carried',
        reference: 'main',
        field: 'berths',
        live: true,
      },
      {
        key: 'room',
        label: 'Room',
        type: { kind: 'yes-no' },
        source: 'computed',
        formula: 'main_berths > 5',
      },
    ],
    parts: [...base.parts, ...['gear', 'main'].map(asking)],
  };
}

/** Plays at one desk. */
class Playing {
  private readonly callers = new Map<string, Caller>();
  private stranger!: Caller;
  private things: ReadonlyMap<string, string> = new Map();
  private sent = 0;

  constructor(private readonly desk: Desk) {}

  private async come(): Promise<void> {
    for (const name of PEOPLE) this.callers.set(name, await this.desk.as(name));
    this.stranger = await this.desk.as();
    this.things = this.desk.things();
  }

  private as(name: (typeof PEOPLE)[number]): Caller {
    const caller = this.callers.get(name);
    if (!caller) throw new Error(`${name} is not here.`);
    return caller;
  }

  /** What a call that has to succeed answers. */
  private async well(calling: Promise<Answer>): Promise<Answer['body']> {
    const answer = await calling;
    if (answer.status !== 200) throw new Error(`${answer.route} by ${answer.who}: ${answer.status} ${answer.text}`);
    return answer.body;
  }

  private do(who: (typeof PEOPLE)[number] | null, route: RouteName, input: Parameters<Caller['call']>[1]) {
    return this.well((who ? this.as(who) : this.stranger).call(route, input));
  }

  private async pass(minutes: number): Promise<void> {
    await this.desk.running.lettersSent();
    await this.do(null, 'advanceClock', { body: { minutes } });
    await this.desk.running.dayTurned();
    await this.desk.running.lettersSent();
  }

  private async ask(who: (typeof PEOPLE)[number], slug: string, answers: object, release = 1): Promise<string> {
    this.sent += 1;
    const sending = this.as(who).submit(slug, answers, { key: `carried-${slug}-${this.sent}`, release });
    return (await this.well(sending)).number;
  }

  /** From outside: what waits for its address, and the token that confirms it. */
  private async askOutside(slug: string, answers: object, contact: { name: string; email: string }): Promise<string> {
    this.sent += 1;
    await this.well(this.stranger.submit(slug, answers, { contact, key: `carried-${slug}-${this.sent}` }));
    return this.desk.tokenFor(contact.email, 'confirm');
  }

  private async onSheet(who: (typeof PEOPLE)[number], number: string, route: RouteName, body: object): Promise<void> {
    const { version } = await this.as(who).sheet(number);
    await this.do(who, route, { params: { number }, headers: onVersion(version), body });
  }
  private move = (who: (typeof PEOPLE)[number], number: string, stage: string) =>
    this.onSheet(who, number, 'moveStage', { stage });
  private change = (who: (typeof PEOPLE)[number], number: string, changes: object) =>
    this.onSheet(who, number, 'changeFields', { changes });
  private async give(who: (typeof PEOPLE)[number], number: string, to: string | null): Promise<void> {
    const { assignable } = await this.as(who).sheet(number);
    const person = to === null ? null : assignable.find((each: { name: string }) => each.name === to).id;
    await this.onSheet(who, number, 'assign', { person });
  }
  private async decide(who: (typeof PEOPLE)[number], number: string, verdict: 'approve' | 'refuse', comment = '') {
    const seen = await this.as(who).seen(number);
    await this.do(who, 'decide', {
      params: { number },
      headers: key(`decide-${number}`),
      body: { verdict, comment, seen },
    });
  }
  private async say(who: (typeof PEOPLE)[number], number: string, text: string, visibility: 'internal' | 'requester') {
    await this.do(who, 'comment', { params: { number }, body: { text, visibility } });
  }
  private idOf = async (who: (typeof PEOPLE)[number], number: string): Promise<string> => {
    const form = number.startsWith('GE') ? 'gear' : '';
    const found = await this.do(who, 'offers', {
      params: { slug: 'hauls' },
      body: { field: form === 'gear' ? 'gear' : 'main', find: number, answers: {} },
    });
    return found.offers[0].id;
  };

  private async make(prefix: string, draft: FormDesign, more: object = {}): Promise<string> {
    const body = { prefix, desk: 'estates', doors: { staff: true, outside: false }, draft, ...more };
    const { key: form } = await this.do('Maren Okafor', 'createForm', { headers: key(`form-${prefix}`), body });
    await this.release(form, 'The first');
    return form;
  }

  private async form(form: string): Promise<{ version: number; draft: FormDesign }> {
    return this.do('Maren Okafor', 'form', { params: { key: form } });
  }

  private async release(form: string, note: string): Promise<void> {
    const { version } = await this.form(form);
    await this.do('Maren Okafor', 'releaseForm', {
      params: { key: form },
      headers: onVersion(version),
      body: { note },
    });
  }

  private async edit(
    who: 'Maren Okafor' | 'Ada Quillfeather',
    form: string,
    change: (draft: FormDesign) => FormDesign,
  ): Promise<void> {
    const { version, draft } = await this.form(form);
    await this.do(who, 'saveDraft', {
      params: { key: form },
      headers: onVersion(version),
      body: { draft: change(draft) },
    });
  }

  async everything(): Promise<void> {
    await this.come();
    await this.onSite();
    await this.withGear();
    await this.kinds();
    await this.papers();
    await this.confidence();
    await this.workshop();
    await this.outside();
    await this.lately();
  }

  /** Every stage of the life of a request, every verdict, every way of waiting. */
  private async onSite(): Promise<void> {
    const asked = await this.ask('Priya Nakamura-Lind', 'come-on-site', VISIT);
    const worked = await this.ask('Priya Nakamura-Lind', 'come-on-site', {
      ...VISIT,
      visitor: 'Worked',
      medical_note: 'Asthma',
    });
    await this.give('Ilse Brandvold', worked, 'Nuala Fenwick');
    await this.give('Ilse Brandvold', worked, null);
    await this.give('Ilse Brandvold', worked, 'Ilse Brandvold');
    await this.pass(90);
    await this.move('Ilse Brandvold', worked, 'in_hand');
    await this.say('Ilse Brandvold', worked, 'They come by boat.', 'internal');
    await this.say('Ilse Brandvold', worked, 'Which gate?', 'requester');
    await this.do('Priya Nakamura-Lind', 'myMessage', {
      params: { number: worked },
      body: { text: 'The north gate.' },
    });
    await this.change('Ilse Brandvold', worked, { escort: 'Signe', reason: 'Calibration and repair' });
    await this.change('Ilse Brandvold', worked, { fee: '120', escort: '' });
    await this.move('Ilse Brandvold', worked, 'papers');
    await this.pass(2 * DAY);
    await this.move('Ilse Brandvold', worked, 'in_hand');
    await this.move('Ilse Brandvold', worked, 'papers');
    await this.pass(30);
    await this.move('Ilse Brandvold', worked, 'in_hand');
    await this.move('Ilse Brandvold', worked, 'done');
    await this.pass(60);
    // Taken up again, and finished once more.
    await this.move('Ilse Brandvold', worked, 'in_hand');
    await this.move('Ilse Brandvold', worked, 'done');
    const reopened = await this.ask('Hanne Istvan', 'come-on-site', {
      ...VISIT,
      visitor: 'Reopened',
      arrival: '2026-12-09',
      departure: '2026-12-10',
    });
    await this.move('Ilse Brandvold', reopened, 'done');
    await this.pass(120);
    await this.move('Ilse Brandvold', reopened, 'in_hand');
    const water = { ...WATER, arrival: '2026-12-09', departure: '2026-12-10' };
    const approved = await this.ask('Hanne Istvan', 'come-on-site', { ...water, visitor: 'Approved' });
    const refused = await this.ask('Hanne Istvan', 'come-on-site', { ...water, visitor: 'Refused' });
    const byLink = await this.ask('Hanne Istvan', 'come-on-site', { ...water, visitor: 'By link' });
    await this.decide('Tomas Achterberg', approved, 'approve', 'Brief them.');
    await this.decide('Tomas Achterberg', refused, 'refuse', 'The pier is closed.');
    await this.decideByLink(byLink, 'approve');
    await this.ask('Hanne Istvan', 'come-on-site', { ...water, visitor: 'Undecided' });
    const paused = await this.ask('Priya Nakamura-Lind', 'come-on-site', {
      ...VISIT,
      visitor: 'Paused',
      arrival: '2026-12-09',
      departure: '2026-12-10',
    });
    await this.move('Ilse Brandvold', paused, 'papers');
    // Reminded of, and late.
    await this.pass(4 * DAY);
    await this.say('Ilse Brandvold', asked, 'Late, as the pier was closed.', 'internal');
  }

  private async decideByLink(number: string, verdict: 'approve' | 'refuse'): Promise<void> {
    const letter = (await this.desk.letters()).filter(
      (each) => each.subject.includes('Please decide') && each.text.includes('By link') && each.to.includes('tomas'),
    );
    const token = /\/decide\/([\w-]+)/.exec(letter.at(-1)?.text ?? '')?.[1] ?? '';
    const { seen } = await this.do(null, 'decisionLink', { params: { token } });
    await this.do(null, 'decideByLink', {
      params: { token },
      headers: key(`link-${number}`),
      body: { verdict, comment: 'From the quay.', seen },
    });
  }

  /** Computed, carried, given, unique, ruled over, merged; a sheet of rows; several releases. */
  private async withGear(): Promise<void> {
    await this.make('GE', gear());
    await this.make('HA', hauls());
    const boat = (name: string) => this.things.get(name);
    const first = await this.ask('Priya Nakamura-Lind', 'gear', {
      what: 'Net',
      code: 'N1',
      size: 4,
      born: '2026-11-20',
      species: 'grey_seal',
      also: ['grey_seal', 'oarweed'],
      boat: boat('Saithe'),
      colour: 'green',
      lines: [
        { what: 'Float', count: 4 },
        { what: 'Lead', count: 12 },
      ],
    });
    const second = await this.ask('Hanne Istvan', 'gear', {
      what: 'Trap',
      code: 'N2',
      size: 40,
      species: 'cod',
      also: ['cod'],
      boat: boat('Skiff'),
      born: '2026-11-21',
    });
    const large = await this.ask('Hanne Istvan', 'gear', {
      what: 'Winch',
      code: 'N3',
      size: 200,
      species: 'cod',
      boat: boat('Guillemot'),
      born: '2026-11-22',
    });
    const done = await this.ask('Priya Nakamura-Lind', 'gear', {
      what: 'Rope',
      code: 'N4',
      size: 6,
      species: 'cod',
      born: '2026-11-23',
    });
    const [a, b, c] = [
      await this.idOf('Priya Nakamura-Lind', first),
      await this.idOf('Priya Nakamura-Lind', second),
      await this.idOf('Priya Nakamura-Lind', large),
    ];
    await this.ask('Priya Nakamura-Lind', 'hauls', { what: 'Haul one', why: 'Kelp', gear: [a, b], main: a });
    const haul = await this.ask('Hanne Istvan', 'hauls', { what: 'Haul two', why: 'Cod', gear: [c], main: b });
    await this.move('Bram Solheim', done, 'done');
    // What is free again is asked once more.
    await this.ask('Hanne Istvan', 'gear', { what: 'Rope again', code: 'N4', size: 7, born: '2026-11-23' });
    // Followed by what points to it, over two steps.
    const boats = (await this.do('Maren Okafor', 'ledger', { query: { tray: 'things' } })).rows;
    const saithe = boats.find((row: { subject: string }) => row.subject.includes('Saithe')).number;
    const guillemot = boats.find((row: { subject: string }) => row.subject.includes('Guillemot')).number;
    await this.change('Maren Okafor', saithe, { berths: 3, rate: '150' });
    await this.move('Maren Okafor', guillemot, 'gone');
    await this.change('Bram Solheim', second, { boat: boat('Saithe'), size: 41 });
    await this.change('Ilse Brandvold', haul, { main: c });
    await this.change('Ilse Brandvold', first, {
      mark: '',
      species: 'harbour_seal',
      lines: [{ what: 'Float', count: 5 }],
    });
    // A rule over what is there; another taken back.
    for (const [id, value] of [
      ['stamps', '"stamped"'],
      ['undoes', '"undone"'],
    ] as const) {
      await this.edit('Maren Okafor', 'gear', (draft) => ({
        ...draft,
        rules: [...draft.rules, rule(id, { when: 'size > 3', then: [{ do: 'set', field: 'mark', value }] })],
      }));
      const params = { key: 'gear', rule: id };
      const { shown } = await this.do('Maren Okafor', 'overExisting', { params, body: { shown: null, among: 'all' } });
      const { last } = await this.do('Maren Okafor', 'overExisting', { params, body: { shown, among: 'all' } });
      if (id === 'undoes') await this.do('Maren Okafor', 'takeRunBack', { params: { key: 'gear', run: last.run } });
    }
    // A second release that words, computes and routes anew, and asks no more for one thing.
    await this.edit('Ada Quillfeather', 'gear', (draft) => ({
      ...draft,
      title: 'Gear and tackle',
      fields: draft.fields.map((field) =>
        field.key === 'pieces' && field.source === 'computed'
          ? { ...field, formula: 'sum(lines.count) * 2' }
          : field.key === 'code'
            ? { ...field, label: 'Code on the tag' }
            : field,
      ),
      parts: draft.parts.filter((part) => part.part !== 'question' || part.field !== 'needed_by'),
      routing: { ...draft.routing, rows: draft.routing.rows.slice(0, 1) },
    }));
    await this.release('gear', 'Counted twice');
    await this.ask(
      'Priya Nakamura-Lind',
      'gear',
      { what: 'Buoy', code: 'B1', size: 3, species: 'cod', born: '2026-11-24', lines: [{ what: 'Chain', count: 2 }] },
      2,
    );
    // The species are merged, one renamed, one added under another.
    const known = VOCABULARIES.find((each) => each.key === 'species')?.terms ?? [];
    await this.do('Maren Okafor', 'saveVocabulary', {
      params: { key: 'species' },
      headers: onVersion(1),
      body: {
        name: 'Species',
        terms: known.map((term) =>
          term.key === 'cod'
            ? { ...term, now: 'saithe' }
            : term.key === 'harbour_seal'
              ? { ...term, label: 'Common seal' }
              : term,
        ),
      },
    });
    await this.do('Maren Okafor', 'createVocabulary', { headers: key('vocabulary'), body: { name: 'Hazards' } });
    // A sheet of rows: looked at, and taken in.
    const rows = [
      {
        cells: { what: 'Row one', code: 'R1', size: '8', born: '2026-11-20', species: 'Grey seal' },
        requester: 'hanne.istvan@skerrow.example',
      },
      { cells: { what: 'Row two', code: 'R2', size: '300', born: '2026-11-20' }, requester: '' },
    ];
    for (const apply of [false, true])
      await this.do('Maren Okafor', 'takeInRows', {
        params: { key: 'gear' },
        headers: key(`rows-${apply}`),
        body: { rows, apply },
      });
    // The day turns, and with it what is computed from today.
    await this.pass(3 * DAY);
  }

  private async kinds(): Promise<void> {
    const all = await AllKinds.make(this.desk, this.as('Maren Okafor'), this.as('Priya Nakamura-Lind'));
    const number = await this.ask('Priya Nakamura-Lind', 'all-kinds', all.answers());
    await this.change('Ilse Brandvold', number, {
      [keyOf('text')]: 'Changed',
      [keyOf('date-time')]: '2026-12-20T08:00',
    });
    await all.sendFile(this.desk, this.as('Priya Nakamura-Lind'));
    await this.ask('Priya Nakamura-Lind', 'all-kinds', all.answers());
  }

  /** Files: claimed, not claimed, added at the desk, let go of. */
  private async papers(): Promise<void> {
    await makePermit(this.as('Maren Okafor'));
    const priya = this.as('Priya Nakamura-Lind');
    const file = async (name: string, who = priya, slug = 'permit') =>
      (await upload(this.desk.running.url, who, name, Buffer.concat([PDF, Buffer.from(name)]), { slug })).body.ref;
    const held = await this.ask('Priya Nakamura-Lind', 'permit', {
      what: 'Mooring',
      papers: [await file('Hull papers.pdf')],
    });
    await file('never claimed.pdf');
    const two = await this.ask('Priya Nakamura-Lind', 'permit', {
      what: 'Crane',
      papers: [await file('a.pdf'), await file('b.pdf')],
    });
    const added = await fetch(
      `${this.desk.running.url}/api/requests/${two}/uploads?${new URLSearchParams({ field: 'papers', name: 'added.pdf' })}`,
      {
        method: 'POST',
        headers: { cookie: this.as('Bram Solheim').cookie, 'content-type': 'application/octet-stream' },
        body: PDF,
      },
    );
    const { ref } = (await added.json()) as { ref: string };
    await this.change('Bram Solheim', two, { papers: [ref] });
    await this.say('Bram Solheim', held, 'The papers are in order.', 'internal');
    const token = await this.askOutside(
      'permit-from-outside',
      { what: 'Barge', papers: [await file('own.pdf', this.stranger, 'permit-from-outside')] },
      GRETA,
    );
    await this.do(null, 'confirm', { params: { token } });
  }

  /** What some may not read, and what was allowed on purpose. */
  private async confidence(): Promise<void> {
    await this.ask('Priya Nakamura-Lind', 'concern-report', {
      about: 'safety',
      what_happened: 'A ladder slipped.',
      when: '2026-11-20',
      reply: false,
    });
    const base = simple('Led', 'estates');
    const closed = {
      rules: [
        {
          id: 'closed',
          name: 'It stays with the leads',
          fields: ['what'],
          audience: { in: { everyone: true as const }, outOf: ['desk-leads'], requester: 'out' as const },
          level: 'hidden' as const,
        },
      ],
    };
    const preset = { from: 'field' as const, field: 'what' };
    const draft: FormDesign = {
      ...base,
      subject: '{why}',
      fields: base.fields.map((field) => (field.key === 'why' ? ({ ...field, preset } as Field) : field)),
    };
    const body = { prefix: 'LD', desk: 'estates', doors: { staff: true, outside: false }, draft, access: closed };
    await this.do('Maren Okafor', 'createForm', { headers: key('form-LD'), body });
    const allow = (name: string, reason: string) =>
      this.do('Maren Okafor', 'allowWay', {
        params: { key: 'led' },
        headers: key(name),
        body: { sink: 'preset why', text: JSON.stringify(preset), source: 'what', what: 'value', reason },
      });
    const { id } = await allow('way-1', 'For a week.');
    await this.do('Maren Okafor', 'endWay', { params: { key: 'led', id } });
    await allow('way-2', 'The desk has to know.');
    await this.release('led', '');
    await this.ask('Priya Nakamura-Lind', 'led', { what: 'Hidden thing', why: 'Told reason' });
    await this.do('Maren Okafor', 'protectAlike', {
      params: { key: 'led' },
      body: { source: 'what', field: 'needed_by' },
    });
  }

  /** Drafts under way, trials, doors shut. */
  private async workshop(): Promise<void> {
    const body = { prefix: 'UN', desk: 'boats', doors: { staff: true, outside: true }, draft: simple('Unreleased') };
    await this.do('Maren Okafor', 'createForm', { headers: key('form-UN'), body });
    await this.edit('Maren Okafor', 'unreleased', (draft) => ({ ...draft, intro: 'Begun by Maren.' }));
    const trial = (form: string, name: string, answers: object, more: object = {}) =>
      this.do('Maren Okafor', 'sendTrial', {
        params: { key: form },
        headers: key(name),
        body: { answers, person: null, outside: false, ...more },
      });
    await trial('unreleased', 'trial-4', { what: 'x', why: 'y' });
    await this.edit('Ada Quillfeather', 'unreleased', (draft) => ({
      ...draft,
      intro: 'Continued by Ada.',
      rules: [rule('broken', { when: 'nothing > 3', then: [{ do: 'require', fields: ['why'] }] })],
    }));
    await this.edit('Maren Okafor', 'site-access', (draft) => ({ ...draft, title: 'Come on site, please' }));
    await trial('site-access', 'trial-1', {
      ...WATER,
      arrival: '2026-12-09',
      departure: '2026-12-10',
      visitor: 'Tried',
    });
    await trial(
      'site-access',
      'trial-2',
      { ...VISIT, arrival: '2026-12-09', departure: '2026-12-10' },
      { outside: true },
    );
    const tried = await trial('gear', 'trial-3', {
      what: 'Tried',
      code: 'T1',
      size: 5,
      boat: this.things.get('Skiff'),
    });
    await this.move('Bram Solheim', tried.number, 'in_hand');
    await this.change('Bram Solheim', tried.number, { size: 6 });
    await trial('led', 'trial-5', { what: 'x', why: 'y' });
    await this.do('Maren Okafor', 'clearTrials', { params: { key: 'led' } });
    await this.do('Maren Okafor', 'setDoor', {
      params: { slug: 'school-visit' },
      body: { open: false, closedMessage: 'All mornings are taken.' },
    });
    await this.make('ST', simple('Stopped'));
    await this.do('Maren Okafor', 'setDoor', { params: { slug: 'stopped' }, body: { open: false, closedMessage: '' } });
  }

  /** From outside: every link, used, unused and ended. */
  private async outside(): Promise<void> {
    const later = { ...VISIT, arrival: '2026-12-21', departure: '2026-12-22' };
    // Never confirmed, and too old by the end.
    await this.askOutside('visit', { ...later, visitor: 'Too late' }, UNKNOWN);
    await this.pass(4 * DAY);
    const token = await this.askOutside('visit', { ...later, visitor: 'From outside' }, WIM);
    const { number, follow } = await this.do(null, 'confirm', { params: { token } });
    await this.do(null, 'followMessage', { params: { token: follow }, body: { text: 'We bring a crane.' } });
    await this.say('Ilse Brandvold', number, 'Please send its papers.', 'requester');
    await this.move('Ilse Brandvold', number, 'papers');
    const kept = (contact: typeof WIM, visitor: string) =>
      this.do(null, 'sendKept', {
        params: { slug: 'visit' },
        body: { answers: { ...later, visitor }, contact, typedAt: 1 },
      });
    await kept(GRETA, 'Kept and sent');
    const goOn = await this.desk.tokenFor(GRETA.email, 'go on');
    await this.do(null, 'keepKept', {
      params: { token: goOn },
      body: { answers: { ...later, visitor: 'Kept twice' }, contact: GRETA, typedAt: 2 },
    });
    await kept(PIET, 'Kept only');
    const slug = 'permit-from-outside';
    const file = await upload(this.desk.running.url, this.stranger, 'kept.pdf', PDF, { slug });
    const body = { answers: { what: 'Kept with a file', papers: [file.body.ref] }, contact: PIET, typedAt: 3 };
    await this.do(null, 'sendKept', { params: { slug }, body });
  }

  /** What is fresh when the release ends: links that still open, timers that still wait. */
  private async lately(): Promise<void> {
    const later = { ...VISIT, arrival: '2026-12-28', departure: '2026-12-29' };
    await this.askOutside('visit', { ...later, visitor: 'Waits to be confirmed' }, NOOR);
    const water = { ...WATER, ...later, works_on_water: true, survival_until: '2027-05-01' };
    await this.ask('Hanne Istvan', 'come-on-site', { ...water, visitor: 'To be decided' });
    await this.ask(
      'Priya Nakamura-Lind',
      'vessel-time',
      tripOf(this.things, { leaves: '2026-12-29T09:00', returns: '2026-12-29T11:00' }),
    );
    await this.ask(
      'Priya Nakamura-Lind',
      'gear',
      { what: 'Fresh', code: 'F1', size: 400, species: 'oarweed', born: '2026-12-01' },
      2,
    );
    const keep = (who: (typeof PEOPLE)[number], slug: string, answers: object) =>
      this.do(who, 'keepAnswers', { params: { slug }, body: { answers, typedAt: 7 } });
    await keep('Priya Nakamura-Lind', 'vessel-time', { vessel: this.things.get('Skiff'), purpose: 'Begun' });
    await keep('Hanne Istvan', 'gear', { what: 'Begun', boat: this.things.get('Saithe'), species: 'cod' });
    await this.pass(10);
  }

  /** Letters that are given up, that wait, and one that was under way. */
  async withoutMail(): Promise<void> {
    await this.come();
    this.sent = 1_000;
    const later = LATER;
    await this.ask('Priya Nakamura-Lind', 'come-on-site', { ...later, visitor: 'Given up' });
    for (const wait of [1, 3, 11, 31, 121, 481]) await this.pass(wait);
    await this.ask('Hanne Istvan', 'come-on-site', { ...later, visitor: 'Letters wait' });
    await this.well(
      this.stranger.submit('visit', { ...later, visitor: 'Confirm waits' }, { contact: WIM, key: 'carried-waiting' }),
    );
    await this.pass(1);
  }
}
