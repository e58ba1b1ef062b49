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
