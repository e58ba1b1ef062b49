import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import {
  blankDesign,
  type FormDesign,
  findingsOf,
  type KnownRegister,
  lookedAtTogether,
  offerScope,
  prepareCompletion,
  prepareKeeping,
  prepareObstacles,
  prepareOffer,
} from '../src/form/index.ts';
import type { Field, FieldValue, Kind, ReferenceKind, RequestFacts } from '../src/register/index.ts';
import { FACTS } from './anyForm.ts';

const BOATS: KnownRegister = {
  key: 'vessels',
  name: 'Vessels',
  fields: [
    { key: 'name', label: 'Name', type: { kind: 'text' }, source: 'asked' },
    { key: 'berths', label: 'Berths', type: { kind: 'number', places: 0 }, source: 'asked' },
    { key: 'secret', label: 'Mooring code', type: { kind: 'text' }, source: 'desk-only' },
  ],
  stages: [
    { key: 'in_use', label: 'In use' },
    { key: 'gone', label: 'Out of use' },
  ],
  restricted: ['secret'],
};
const pointing = (more: Partial<ReferenceKind> = {}): Kind => ({
  kind: 'reference',
  register: 'vessels',
  shows: ['name'],
  among: 'all',
  ...more,
});
const asked = (key: string, type: Kind): Field => ({ key, label: key, type, source: 'asked' });
const carried = (key: string, field: string, live: boolean): Field => ({
  key,
  label: key,
  type: { kind: 'number', places: 0 },
  source: 'carried',
  reference: 'boat',
  field,
  live,
});
const designOf = (fields: readonly Field[]): FormDesign => ({
  ...blankDesign({ told: english, title: 'Trip', team: 'boats', approvers: 'boats', calendar: 'desk' }),
  fields,
  parts: fields
    .filter((field) => field.source === 'asked')
    .map((field) => ({ part: 'question', field: field.key, asks: '', help: '', required: false })),
});
const messages = (fields: readonly Field[], outside = false, registers = [BOATS]): readonly string[] =>
  english(
    findingsOf(designOf(fields), {
      groups: new Map([['boats', 'boats']]),
      plan: { rules: [] },
      form: 'form',
      outside,
      vocabularies: FACTS.vocabularies,
      registers,
    }).map((finding) => finding.message),
  );

describe('what limits a reference', () => {
  const fields = [asked('persons', { kind: 'number', places: 0 }), asked('boat', pointing())];
  const offered = prepareOffer(
    pointing({ offered: 'it.stage = "in_use" and it.berths >= persons' }) as ReferenceKind,
    fields,
    BOATS,
  );
  const boat = (berths: number, stage = 'in_use') => ({ values: { berths }, stage });

  it('has to hold for what is offered, with the other answers', () => {
    expect([boat(8), boat(3), boat(8, 'gone')].map((each) => offered(each, { persons: 5 }, FACTS))).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('offers nothing while it can’t be said, and everything where there is none', () => {
    expect(offered(boat(8), {}, FACTS)).toBe(false);
    expect(prepareOffer(pointing() as ReferenceKind, fields, BOATS)(boat(1, 'gone'), {}, FACTS)).toBe(true);
    expect(
      prepareOffer(pointing({ offered: 'it.berths >=' }) as ReferenceKind, fields, BOATS)(boat(1), {}, FACTS),
    ).toBe(false);
  });

  it('is looked at with the answers it reads, and knows the stages by name', () => {
    const limited = [
      asked('persons', { kind: 'number', places: 0 }),
      asked('boat', pointing({ offered: 'it.berths >= persons' })),
    ];
    expect(
      lookedAtTogether({ ...designOf(limited), unique: [{ id: 'u', fields: ['persons'], among: 'all' }] }),
    ).toEqual([['persons'], ['boat', 'persons']]);
    const stage = offerScope(fields, BOATS).find('it')?.type;
    expect(stage?.kind === 'context' && stage.entries.stage?.type).toMatchObject({
      kind: 'choice',
      options: BOATS.stages,
    });
  });
});

describe('what keeps something from being offered', () => {
  const fields = [asked('persons', { kind: 'number', places: 0 }), asked('boat', pointing())];
  const parts = ['it.stage = "in_use"', 'it.berths >= persons', 'it.name != "Skiff"', 'persons > 0'] as const;

  it('is told of by the conditions that fail, and by nothing where it is offered', () => {
    const told = { offered: 0, stage: 0, berths: 0, name: 0, answersAlone: 0, awaited: 0 };
    for (const berths of [2, 6, undefined])
      for (const stage of ['in_use', 'gone'])
        for (const name of ['Skiff', 'Tern'])
          for (const persons of [0, 4, undefined])
            for (let which = 1; which < 2 ** parts.length; which += 1) {
              const asks = parts.filter((_, index) => (which >> index) % 2 === 1);
              const type = pointing({ offered: asks.join(' and ') }) as ReferenceKind;
              const values: Record<string, FieldValue> = { name, ...(berths === undefined ? {} : { berths }) };
              const answers: Record<string, FieldValue> = persons === undefined ? {} : { persons };
              const isOffered = prepareOffer(type, fields, BOATS)({ values, stage }, answers, FACTS);
              const found = prepareObstacles(type, fields, BOATS)({ values, stage }, answers, FACTS);
              // Each condition, reckoned here by hand.
              const isLarge = berths !== undefined && persons !== undefined && berths >= persons;
              const isAwaited = persons === undefined && (asks.includes(parts[1]) || asks.includes(parts[3]));
              const things = [
                ...(asks.includes(parts[0]) && stage !== 'in_use' ? ['stage'] : []),
                ...(asks.includes(parts[1]) && !isLarge && persons !== undefined ? ['berths'] : []),
                ...(asks.includes(parts[2]) && name === 'Skiff' ? ['name'] : []),
              ];
              const isShut =
                (asks.includes(parts[1]) && !isLarge) || (asks.includes(parts[3]) && !(Number(persons) > 0));
              const isFree = !isShut && things.length === 0;
              expect([asks, isOffered, found]).toEqual([
                asks,
                isFree,
                { things, answers: isAwaited ? ['persons'] : [] },
              ]);
              for (const each of things) told[each as 'stage'] += 1;
              told.offered += isOffered ? 1 : 0;
              told.answersAlone += isShut && things.length === 0 ? 1 : 0;
              told.awaited += isAwaited ? 1 : 0;
            }
    expect(Object.values(told).every((count) => count > 50)).toBe(true);
  });

  it('is never a field that its plan closes to somebody', () => {
    const type = pointing({ offered: 'it.secret = "open" and it.berths > 3' }) as ReferenceKind;
    const boat = { values: { berths: 2, secret: 'shut' }, stage: 'in_use' };
    expect(prepareObstacles(type, fields, BOATS)(boat, {}, FACTS)).toEqual({ things: ['berths'], answers: [] });
    expect(prepareObstacles(pointing({ offered: 'it.' }) as ReferenceKind, fields, BOATS)(boat, {}, FACTS)).toEqual({
      ...{ things: [], answers: [] },
    });
  });
});

describe('findings about what fields name elsewhere', () => {
  it('stop what is not there, and what the other register restricts', () => {
    expect(english(messages([asked('boat', pointing({ register: 'rooms' }))]))).toContain(
      '“boat” refers to a register that does not exist. Nobody could answer. Choose one.',
    );
    expect(messages([asked('boat', pointing({ shows: ['secret'] }))])).toContain(
      '“boat” would show “Mooring code”, and the access plan of “Vessels” hides that from some people. Remove it.',
    );
    expect(messages([asked('boat', pointing()), carried('code', 'secret', true)])).toEqual(
      expect.arrayContaining([
        '“boat” would show “Mooring code”, and the access plan of “Vessels” hides that from some people. Remove it.',
        '“code” comes from “Mooring code”, which is of another kind. Choose a field of the same kind.',
      ]),
    );
    expect(messages([asked('boat', pointing({ offered: 'it.bertss > 3' }))]).join()).toContain('limit of the list');
    expect(messages([asked('boat', pointing({ offered: 'it.berths' }))]).join()).toContain('limit of the list');
    expect(messages([asked('kind', { kind: 'term', vocabulary: 'hazards' })])).toContain(
      '“kind” uses a vocabulary that does not exist. Nobody could answer. Choose one.',
    );
    expect(messages([asked('kind', { kind: 'term', vocabulary: 'species', under: 'ghost' })])).toContain(
      '“kind” uses a part of “Species” that does not exist. Nobody could answer. Choose another part.',
    );
    expect(
      messages([{ ...asked('no', { kind: 'running-number', prefix: ' ', digits: 3 }), source: 'given' }]),
    ).toContain('The running number “no” has nothing before its digits. Enter something like SA-.');
    expect(messages([{ key: 'x', label: 'x', type: { kind: 'text' }, source: 'given' }])).toContain(
      '“x” is given automatically, and only running numbers can be. Change its source.',
    );
  });

  it('are about cards as about names', () => {
    const cards = (more: object) =>
      messages([asked('boat', pointing({ cards: { facts: [], unavailable: 'grey', ...more } }))]);
    expect(cards({ facts: ['berths'], picture: undefined })).toEqual([]);
    for (const closed of [{ facts: ['secret'] }, { picture: 'secret' }])
      expect(cards(closed)).toContain(
        '“boat” would show “Mooring code”, and the access plan of “Vessels” hides that from some people. Remove it.',
      );
    expect(cards({ facts: ['colour'] })).toEqual(['“boat” shows a field that “Vessels” does not have. Remove it.']);
    expect(english(cards({ picture: 'name' }))).toEqual([
      'The cards of “boat” have “Name” for a picture, and that is no field for files. Choose a field for files.',
    ]);
    const outside = asked('boat', pointing({ cards: { facts: ['berths'], unavailable: 'grey' } }));
    expect(english(messages([outside], true))).toEqual([
      '“boat”: people from outside can search “Vessels” by Name, Berths and number. Limit the list if they should not.',
    ]);
  });

  it('warn of a register that anybody could look through', () => {
    expect(english(messages([asked('boat', pointing())], true))).toEqual([
      '“boat”: people from outside can search “Vessels” by Name and number. Limit the list if they should not.',
    ]);
    expect([
      messages([asked('boat', pointing())]),
      messages([asked('boat', pointing({ among: 'mine' }))], true),
    ]).toEqual([[], []]);
  });
});

describe('values that a reference brings along', () => {
  const design = designOf([
    asked('boat', pointing()),
    carried('now', 'berths', true),
    carried('then', 'berths', false),
  ]);
  const facts = (berths: Readonly<Record<string, number>>): RequestFacts => ({
    ...FACTS,
    references: Object.entries(berths).map(([id, value]) => ({
      id,
      register: 'vessels',
      number: id,
      label: id,
      values: { berths: value },
    })),
  });
  const keep = (
    before: Readonly<Record<string, FieldValue>>,
    touched: readonly string[],
    berths: Readonly<Record<string, number>>,
  ) => prepareKeeping(design)(before, new Set(touched), facts(berths)).values;

  it('come with the choice, and go with it', () => {
    const complete = prepareCompletion(design);
    expect(complete({ boat: 'tern' }, facts({ tern: 12 })).values).toEqual({ boat: 'tern', now: 12, then: 12 });
    expect(complete({}, facts({ tern: 12 })).values).toEqual({});
    expect(complete({ boat: 'tern', now: 5 }, facts({ tern: 12 })).strangers.map((problem) => problem.field)).toEqual([
      'now',
    ]);
  });

  it('follow or stay as they were meant to, until the reference points elsewhere', () => {
    const stored = { boat: 'tern', now: 12, then: 12 };
    expect(keep(stored, [], { tern: 10 })).toEqual({ boat: 'tern', now: 10, then: 12 });
    expect(keep({ ...stored, boat: 'skiff' }, ['boat'], { skiff: 4 })).toEqual({ boat: 'skiff', now: 4, then: 4 });
    // What is not known just now takes nothing away.
    expect(keep(stored, [], {})).toEqual(stored);
    expect(keep({ now: 12, then: 12 }, ['boat'], {})).toEqual({});
  });
});
