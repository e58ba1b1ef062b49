import fc from 'fast-check';
import { finishRule } from '../src/deadline/index.ts';
import type { Action, AskedForm, FormDesign, FormRule, Part, Surroundings } from '../src/form/index.ts';
import {
  type Field,
  isFilled,
  type Kind,
  type Preset,
  type RawAnswer,
  type RawAnswers,
  type RequestFacts,
} from '../src/register/index.ts';

/**
 * Forms of every kind of field, with sections, pages, presets, formulas and rules of every action;
 * and answers good and bad.
 */

const OPTIONS = ['red', 'green', 'blue'].map((key) => ({ key, label: key.toUpperCase() }));
const LEVELS = [10, 20, 30].map((worth) => ({ worth, label: `Level ${worth}` }));

export const ANY_KIND: readonly Kind[] = [
  { kind: 'text' },
  { kind: 'long-text' },
  { kind: 'number', places: 2, least: -100, most: 1_000 },
  { kind: 'money', currency: 'EUR' },
  { kind: 'date' },
  { kind: 'date-time' },
  { kind: 'yes-no' },
  { kind: 'email' },
  { kind: 'phone' },
  { kind: 'link' },
  { kind: 'duration' },
  { kind: 'choice', options: OPTIONS },
  { kind: 'choice', options: OPTIONS, other: true },
  { kind: 'choices', options: OPTIONS, most: 2 },
  { kind: 'level', levels: LEVELS },
  { kind: 'person', from: ['boats'] },
  { kind: 'people', from: [] },
  { kind: 'term', vocabulary: 'species' },
  { kind: 'terms', vocabulary: 'species', under: 'seals', most: 2 },
  { kind: 'reference', register: 'vessels', shows: ['name'], among: 'all' },
  { kind: 'references', register: 'vessels', shows: ['name'], among: 'all' },
  { kind: 'files', only: 'any', most: 2 },
  {
    kind: 'line-items',
    most: 3,
    columns: [
      { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
      { key: 'count', label: 'How many', type: { kind: 'number', places: 0, least: 1 }, required: true },
      { key: 'each', label: 'Each', type: { kind: 'money', currency: 'EUR' }, required: false },
      { key: 'sum', label: 'Sum', type: { kind: 'money', currency: 'EUR' }, required: false, formula: 'count * each' },
    ],
  },
];

export const FACTS: RequestFacts = {
  requesterIsOutside: false,
  requesterId: 'ada',
  requesterGroups: ['boats'],
  profile: {
    fields: [
      { key: 'grade', type: { kind: 'number', places: 0 } },
      { key: 'house', type: { kind: 'text' } },
    ],
    values: { grade: 4, house: 'Pier' },
  },
  department: 'Boats',
  door: 'staff',
  today: '2026-11-23',
  now: '2026-11-23T10:42',
  calendar: { open: [true, true, true, true, true, false, false], closed: [] },
  people: [
    { id: 'ada', name: 'Ada Quill', groups: ['boats'] },
    { id: 'bo', name: 'Bo Lind', groups: ['lab'] },
  ],
  files: [
    { ref: '1/plan.pdf', bytes: 9_000, media: 'application/pdf' },
    { ref: '2/pier.png', bytes: 2_000_000, media: 'image/png' },
  ],
  vocabularies: [
    {
      key: 'species',
      name: 'Species',
      terms: [
        { key: 'seals', label: 'Seals' },
        { key: 'grey', label: 'Grey seal', under: 'seals', also: ['Halichoerus grypus'] },
        { key: 'harbour', label: 'Harbour seal', under: 'seals', retired: true },
        { key: 'kelp', label: 'Kelp' },
        { key: 'tangle', label: 'Tangle', now: 'kelp' },
      ],
    },
  ],
  references: [
    { id: 'r1', register: 'vessels', number: 'VS-00001', label: 'Halcyon', values: { name: 'Halcyon', berths: 8 } },
    { id: 'r2', register: 'vessels', number: 'VS-00002', label: 'Petrel', values: { name: 'Petrel' } },
  ],
  numbers: { given: 'N-0007' },
};

/** What forms are checked against. */
export const SURROUNDINGS: Surroundings = {
  groups: new Map([['boats', 'boats']]),
  plan: { rules: [] },
  form: 'form',
  outside: false,
  vocabularies: FACTS.vocabularies,
  registers: [
    {
      key: 'vessels',
      name: 'Vessels',
      restricted: [],
      stages: [],
      fields: [
        { key: 'name', label: 'Name', type: { kind: 'text' }, source: 'asked' },
        { key: 'berths', label: 'Berths', type: { kind: 'number', places: 0 }, source: 'asked' },
      ],
    },
  ],
};

/** A good answer for a kind, as it would be typed. */
export function goodAnswer(type: Kind): fc.Arbitrary<RawAnswer> {
  switch (type.kind) {
    case 'text':
    case 'long-text':
      return fc.string({ maxLength: 12 });
    case 'number':
      return fc.oneof(
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: 0, max: 90_000 }).map((n) => (n / 100).toFixed(2)),
      );
    case 'money':
      return fc.integer({ min: 0, max: 900_000 }).map((minor) => (minor / 100).toFixed(2));
    case 'date':
      return fc.constantFrom('2026-11-22', '2026-11-23', '2026-12-24');
    case 'date-time':
      return fc.constantFrom('2026-11-22T09:00', '2026-11-23T10:42', '2026-12-24 18:30');
    case 'yes-no':
      return fc.boolean();
    case 'email':
      return fc.constantFrom('ada@skerrow.example', 'bo@institute.example');
    case 'phone':
      return fc.constantFrom('+353 1 555 0142', '01 5550142');
    case 'link':
      return fc.constantFrom('institute.example', 'https://institute.example/visit');
    case 'duration':
      return fc.constantFrom('35', '1:35', '2 h', '1 day');
    case 'choice':
      return fc.constantFrom(...type.options.map((option) => option.key));
    case 'choices':
      return fc.subarray(
        type.options.map((option) => option.key),
        { maxLength: 2 },
      );
    case 'level':
      return fc.constantFrom(...type.levels.map((level) => level.worth));
    case 'person':
      return fc.constant('ada');
    case 'term':
      return fc.constantFrom('grey', 'Kelp', 'halichoerus  GRYPUS', 'tangle');
    case 'terms':
      return fc.subarray(['grey']);
    case 'reference':
      return fc.constantFrom('r1', 'r2');
    case 'references':
      return fc.subarray(['r1', 'r2']);
    case 'running-number':
      return fc.constant(null);
    case 'files':
      return fc.subarray(['1/plan.pdf', '2/pier.png']);
    case 'people':
      return fc.subarray(['ada', 'bo']);
    case 'line-items':
      return fc.array(
        fc.record({
          what: fc.constantFrom('Rope', 'Pump seal'),
          count: fc.integer({ min: 1, max: 9 }),
          each: fc.constantFrom('', '12.50', '740'),
        }),
        {
          maxLength: 3,
        },
      );
  }
}

/** Anything at all that JSON can carry as an answer. */
export const anyAnswer: fc.Arbitrary<RawAnswer> = fc.oneof(
  fc.string({ maxLength: 8 }),
  fc.double({ noNaN: true, noDefaultInfinity: true }).map((n) => n + 0),
  fc.boolean(),
  fc.constant(null),
  fc.array(fc.string({ maxLength: 4 }), { maxLength: 4 }),
  fc.array(
    fc.dictionary(
      fc.constantFrom('what', 'count', 'sum', '__proto__'),
      fc.oneof(fc.string({ maxLength: 4 }), fc.integer(), fc.constant(null)),
      { maxKeys: 3 },
    ),
    {
      maxLength: 5,
    },
  ),
);

const CONDITIONS: Readonly<Partial<Record<Kind['kind'], readonly string[]>>> = {
  'yes-no': ['F = true', 'F = false', 'F != null'],
  number: ['F > 100', 'F between 10 and 20', 'F = null'],
  money: ['F >= 500', 'F < 10'],
  choice: ['F = "red"', 'F in ("green", "blue")', 'F != "red"'],
  choices: ['list contains(F, "red")', 'count(F) > 1'],
  level: ['F >= 20'],
  date: ['F > today', 'F <= today + duration("P3D")'],
  'date-time': ['F < now'],
  text: ['F = "own"', 'F = null'],
  person: ['F = requester.person'],
  term: ['is under(F, "seals")', 'F = "kelp"'],
  reference: ['F = "r1"'],
  'line-items': ['count(F) > 1', 'sum(F.sum) > 100'],
};

const conditionOn = (field: Field): fc.Arbitrary<string> =>
  fc.constantFrom(
    ...(CONDITIONS[field.type.kind] ?? ['F != null', 'F = null']).map((text) => text.replaceAll('F', field.key)),
  );

function presetFor(type: Kind, others: readonly Field[]): fc.Arbitrary<Preset | undefined> {
  const same = others.filter((field) => field.type.kind === type.kind);
  const copies: fc.Arbitrary<Preset>[] = same.map((field) => fc.constant({ from: 'field', field: field.key }));
  const own: fc.Arbitrary<Preset>[] = [goodAnswer(type).map((value) => ({ from: 'fixed', value }))];
  if (type.kind === 'date' || type.kind === 'date-time')
    own.push(fc.integer({ min: -5, max: 5 }).map((plus) => ({ from: 'today', plus })));
  if (type.kind === 'person' || type.kind === 'people') own.push(fc.constant({ from: 'me' }));
  if (type.kind === 'text') own.push(fc.constant({ from: 'department' }));
  return fc.option(fc.oneof(...own, ...copies), { nil: undefined, freq: 2 });
}

/**
 * What a rule may do with parts that come after what its condition reads, so that no circle arises.
 */
function actionOn(later: readonly Field[], parts: readonly string[]): fc.Arbitrary<Action> {
  const keys = later.map((field) => field.key);
  const some = fc.subarray(keys, { minLength: 1 });
  const anyField = fc.constantFrom(...keys);
  const choices = later
    .filter((field) => field.type.kind === 'choice' || field.type.kind === 'choices')
    .map((field) => field.key);
  const settable = later.flatMap((field): Action[] => {
    const same = later.find((other) => other.type.kind === field.type.kind && other.key < field.key);
    return [{ do: 'set', field: field.key, value: field.type.kind === 'yes-no' ? 'true' : same ? same.key : 'null' }];
  });
  return fc.oneof(
    fc
      .subarray([...keys, ...parts], { minLength: 1 })
      .chain((chosen) => fc.constantFrom<Action>({ do: 'show', parts: chosen }, { do: 'hide', parts: chosen })),
    some.chain((fields) =>
      fc.constantFrom<Action>({ do: 'require', fields }, { do: 'lock', fields }, { do: 'clear', fields }),
    ),
    fc.constantFrom(...settable),
    choices.length > 0
      ? fc.constantFrom(...choices).map((field): Action => ({ do: 'limit', field, options: ['red', 'green'] }))
      : fc.constant<Action>({ do: 'warn', field: 'form', text: 'Mind the tide.' }),
    anyField.map((field): Action => ({ do: 'warn', field, text: 'Mind the tide.' })),
    fc.oneof({
      weight: 1,
      arbitrary: anyField.map(
        (field): Action => ({ do: 'refuse', field, text: 'Not this week.', fix: 'Ask for another.' }),
      ),
    }),
  );
}

/**
 * A form without circles: rules act on fields after those they read, and presets copy from fields
 * before.
 */
export const anyForm: fc.Arbitrary<AskedForm> = fc
  .array(fc.constantFrom(...ANY_KIND), { minLength: 2, maxLength: 9 })
  .chain((kinds) => {
    const plain = kinds.map(
      (type, index): Field => ({ key: `f${index}`, label: `Field ${index}`, type, source: 'asked' }),
    );
    const presets = fc.tuple(...plain.map((field, index) => presetFor(field.type, plain.slice(0, index))));
    const shape = fc.array(
      fc.constantFrom('question', 'question', 'question', 'section', 'page', 'instruction', 'desk-only'),
      { minLength: plain.length, maxLength: plain.length },
    );
    const whenHidden = fc.array(fc.constantFrom('ignored' as const, 'cleared' as const, 'kept' as const), {
      minLength: plain.length,
      maxLength: plain.length,
    });
    const required = fc.array(fc.boolean(), { minLength: plain.length, maxLength: plain.length });
    return fc.tuple(presets, shape, whenHidden, required).chain(([made, shapes, hidden, needs]) => {
      const fields = plain.map((field, index): Field => {
        const preset = made[index];
        return {
          ...field,
          source: shapes[index] === 'desk-only' ? 'desk-only' : 'asked',
          ...(preset ? { preset } : {}),
        };
      });
      const money = fields.find((field) => field.type.kind === 'money');
      const items = fields.find((field) => field.type.kind === 'line-items');
      const computed: Field[] = [
        ...(money
          ? [
              {
                key: 'double',
                label: 'Double',
                type: { kind: 'money', currency: 'EUR' } as const,
                source: 'computed' as const,
                formula: `${money.key} * 2`,
              },
            ]
          : []),
        ...(items
          ? [
              {
                key: 'total',
                label: 'Total',
                type: { kind: 'money', currency: 'EUR' } as const,
                source: 'computed' as const,
                formula: `sum(${items.key}.sum)`,
              },
            ]
          : []),
      ];
      const pointer = fields.find((field) => field.type.kind === 'reference');
      const brought: Field[] = [
        { key: 'given', label: 'Number', type: { kind: 'running-number', prefix: 'N-', digits: 4 }, source: 'given' },
        ...(pointer
          ? [
              {
                key: 'berths',
                label: 'Berths',
                type: { kind: 'number', places: 0 } as const,
                source: 'carried' as const,
                reference: pointer.key,
                field: 'berths',
                live: true,
              },
            ]
          : []),
      ];
      const parts = fields.flatMap((field, index): Part[] => {
        const shape = shapes[index];
        const question: Part = {
          part: 'question',
          field: field.key,
          asks: '',
          help: '',
          required: needs[index] ?? false,
          whenHidden: hidden[index] ?? 'ignored',
        };
        if (shape === 'desk-only') return [];
        if (shape === 'section' || shape === 'page')
          return [{ part: shape, id: `${shape}-${index}`, title: shape, text: '' }, question];
        return shape === 'instruction'
          ? [{ part: 'instruction', id: `words-${index}`, text: 'Mind {f0}.' }, question]
          : [question];
      });
      const rules = fc.array(
        fc.integer({ min: 0, max: fields.length - 2 }).chain((reads) => {
          const later = fields.slice(reads + 1);
          const partsLater = parts.flatMap((part) =>
            part.part !== 'question' && Number(part.id.split('-')[1]) > reads ? [part.id] : [],
          );
          const action = actionOn(later, partsLater);
          return fc.tuple(
            conditionOn(fields[reads] as Field),
            fc.array(action, { minLength: 1, maxLength: 2 }),
            fc.array(action, { maxLength: 1 }),
            fc.boolean(),
            fc.constantFrom('filling' as const, 'saving' as const),
          );
        }),
        { maxLength: 5 },
      );
      return rules.map(
        (specs): AskedForm => ({
          fields: [...fields, ...computed, ...brought],
          parts,
          rules: specs.map(
            ([when, then, otherwise, on, runs], index): FormRule => ({
              id: `rule-${index}`,
              name: `Rule ${index}`,
              says: '',
              when,
              then,
              otherwise,
              on,
              runs,
            }),
          ),
        }),
      );
    });
  });

/** Answers to a form: most of them good, some untouched, some nonsense. */
export const answersTo = (form: AskedForm): fc.Arbitrary<RawAnswers> =>
  fc
    .tuple(
      ...form.fields.map((field) =>
        fc.oneof(
          { weight: 6, arbitrary: goodAnswer(field.type) },
          { weight: 1, arbitrary: anyAnswer },
          { weight: 2, arbitrary: fc.constant(undefined) },
        ),
      ),
    )
    .map((answers) =>
      Object.fromEntries(
        form.fields.flatMap((field, index) =>
          isFilled(field) && answers[index] !== undefined ? [[field.key, answers[index] as RawAnswer]] : [],
        ),
      ),
    );

/** A form with what else a release freezes. */
export const asDesign = (form: AskedForm): FormDesign => ({
  ...form,
  title: 'T',
  intro: '',
  subject: '',
  unique: [],
  routing: {
    columns: [],
    rows: [],
    otherwise: { team: 'boats', priority: 'normal', workingDays: 1, path: null },
  },
  approval: {
    paths: [
      {
        id: 'path',
        label: '',
        steps: [{ id: 's', label: 'S', seats: [{ group: 'boats' }, { person: 'p-1' }], needed: 1 }],
      },
    ],
  },
  deadline: { calendar: 'desk', leads: 'boats', deadlines: [finishRule(0, 0)] },
});
