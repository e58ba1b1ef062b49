import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finishRule } from '../deadline/index.ts';
import { newDoor } from '../door/index.ts';
import {
  compareDesigns,
  type FormDesign,
  type FormRule,
  findingsOf,
  prepareCompletion,
  refusalsOf,
} from '../form/index.ts';
import { type FieldValue, typedForm } from '../register/index.ts';
import { prepareIntake } from './index.ts';

const showing = (id: string, name: string, when: string, part: string): FormRule => ({
  id,
  name,
  says: '',
  when,
  then: [{ do: 'show', parts: [part] }],
  otherwise: [],
  on: true,
  runs: 'filling',
});
const OUTCOME = { team: 'estates', priority: 'normal', workingDays: 2, path: null } as const;
const design: FormDesign = {
  title: 'Access',
  intro: '',
  subject: '{visitor}',
  fields: [
    { key: 'visitor', label: 'Visitor', type: { kind: 'text' }, source: 'asked' },
    { key: 'water', label: 'Works on water', type: { kind: 'yes-no' }, source: 'asked' },
    { key: 'boat', label: 'Boat', type: { kind: 'text' }, source: 'asked' },
    { key: 'skipper', label: 'Skipper', type: { kind: 'text' }, source: 'asked' },
    { key: 'fee', label: 'Fee', type: { kind: 'money', currency: 'EUR' }, source: 'asked' },
    { key: 'escort', label: 'Escort', type: { kind: 'text' }, source: 'desk-only' },
  ],
  parts: ['visitor', 'water', 'boat', 'skipper', 'fee'].map((field) => ({
    part: 'question',
    field,
    asks: '',
    help: '',
    required: field !== 'fee',
  })),
  rules: [showing('r1', 'Boat', 'water = true', 'boat'), showing('r2', 'Skipper', 'boat = "own"', 'skipper')],
  unique: [],
  routing: {
    columns: [
      { id: 'fee', label: 'Fee', input: 'fee' },
      { id: 'outside', label: 'From outside', input: 'requester.outside' },
    ],
    rows: [
      {
        id: 'big',
        note: 'Costly',
        cells: { fee: '> 500', outside: 'true' },
        outcome: { ...OUTCOME, path: 'path' },
      },
      { id: 'in', note: 'Colleagues', cells: { outside: 'false' }, outcome: { ...OUTCOME, priority: 'low' } },
    ],
    otherwise: OUTCOME,
  },
  approval: {
    paths: [
      { id: 'path', label: '', steps: [{ id: 's', label: 'Manager', seats: [{ group: 'managers' }], needed: 1 }] },
    ],
  },
  deadline: { calendar: 'desk', leads: 'estates', deadlines: [finishRule(3_600_000, 0)] },
};
const facts = {
  requesterIsOutside: true,
  requesterId: null,
  requesterGroups: [],
  profile: { fields: [], values: {} },
  department: '',
  door: 'outside',
  today: '2026-11-23',
  now: '2026-11-23T10:00',
  people: [],
  files: [],
  vocabularies: [],
  references: [],
  numbers: {},
  calendar: { open: [true, true, true, true, true, false, false], closed: ['2026-12-25'] },
} as const;
const day = [['08:00', '17:00']] as const;
const calendar = {
  key: 'desk',
  name: 'Desk',
  zone: 'Europe/Dublin',
  week: [day, day, day, day, day, [], []],
  holidays: [],
} as const;
const context = {
  now: Date.parse('2026-11-23T10:00:00Z'),
  calendar,
  facts,
  requester: { kind: 'contact', active: true, groups: [] },
  used: () => 0,
} as const;
const door = newDoor('confirmed-address', 'Outside door');
const complete = prepareCompletion(design);
const { takeIn } = prepareIntake(design);

describe('completing answers', () => {
  it('asks follow-on questions only when their condition holds, through a chain', () => {
    const asked = (answers: Record<string, string | boolean>) =>
      complete(answers, facts).asked.map((question) => question.field);
    expect(asked({})).toEqual(['visitor', 'water', 'fee']);
    expect(asked({ water: true })).toEqual(['visitor', 'water', 'boat', 'fee']);
    expect(asked({ water: true, boat: 'own', skipper: 'Signe' })).toEqual([
      'visitor',
      'water',
      'boat',
      'skipper',
      'fee',
    ]);
    expect(asked({ water: false, boat: 'own' })).toEqual(['visitor', 'water', 'fee']);
  });

  it('does not store the answer to a hidden question, nor ask for it', () => {
    const { values, problems } = complete({ visitor: 'Jonas', water: false, boat: 'own', skipper: 'Signe' }, facts);
    expect(values).toEqual({ visitor: 'Jonas', water: false });
    expect(problems).toEqual([]);
  });

  it('names every problem at its field, with a way out', () => {
    const problems = refusalsOf(complete({ water: true, fee: 'lots', escort: 'me', other: 1 }, facts));
    expect(problems.map((problem) => problem.field)).toEqual(['visitor', 'boat', 'fee', 'escort', 'other']);
    expect(problems.every((problem) => problem.message !== '' && problem.fix !== '')).toBe(true);
  });

  it('stores only what is asked, and completes its own result to the same values', () => {
    const answer = fc.oneof(
      fc.constant(''),
      fc.constant('own'),
      fc.string({ maxLength: 10 }),
      fc.boolean(),
      fc.integer(),
    );
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom('visitor', 'water', 'boat', 'skipper', 'fee'), answer), (answers) => {
        const first = complete(answers, facts);
        const asked = new Set(first.asked.map((question) => question.field));
        expect(Object.keys(first.values).every((key) => asked.has(key))).toBe(true);
        const raw = Object.fromEntries(
          design.fields.flatMap((field) =>
            first.values[field.key] === undefined
              ? []
              : [[field.key, typedForm(field, first.values[field.key] as FieldValue)]],
          ),
        );
        expect(complete(raw, facts).values).toEqual(first.values);
      }),
    );
  });

  it('ends when rules stand in a circle', () => {
    const circle = prepareCompletion({
      ...design,
      rules: [showing('a', 'A', 'skipper = null', 'boat'), showing('b', 'B', 'boat = "x"', 'skipper')],
    });
    expect(circle({ boat: 'x', skipper: 'y' }, facts).asked.length).toBeGreaterThan(0);
  });
});

describe('taking a request in', () => {
  const answers = { visitor: 'Jonas', water: false, fee: '740' };

  it('routes by the first row that holds, and says why', () => {
    const intake = takeIn(door, answers, context);
    if (!intake.taken) throw new Error('refused');
    const { routed, approval, deadlines } = intake.request;
    expect(routed).toMatchObject({ row: 1, rowId: 'big', isOtherwise: false });
    expect(english(routed?.reasons[0]?.cells.map((cell) => cell.words))).toEqual([
      'Fee: 740 EUR. The row requires: above 500 EUR. The cell matches.',
      'From outside: yes. The row requires: yes. The cell matches.',
    ]);
    expect(approval?.steps.map((step) => step.seats)).toEqual([[{ group: 'managers' }]]);
    expect(deadlines.map(({ key, deadline }) => [key, new Date(deadline.due).toISOString()])).toEqual([
      ['finish', '2026-11-25T17:00:00.000Z'],
    ]);
  });

  it('falls to the last row when nothing holds, with the failing cell of each row', () => {
    const intake = takeIn(door, { ...answers, fee: '' }, context);
    if (!intake.taken) throw new Error('refused');
    expect(intake.request.routed).toMatchObject({ row: 3, rowId: 'otherwise', isOtherwise: true });
    expect(intake.request.routed?.reasons.map((row) => [row.row, row.won])).toEqual([
      [1, false],
      [2, false],
      [3, true],
    ]);
    expect(english(intake.request.routed?.reasons[0]?.cells[0]?.words)).toBe(
      'Fee: empty. The row requires: above 500 EUR. It is not known yet whether the cell matches.',
    );
  });

  it('neither routes a thing nor has it decided, and nothing about it is due', () => {
    const intake = takeIn(door, answers, { ...context, holds: 'things' });
    expect(intake).toMatchObject({ taken: true, request: { routed: null, approval: null, deadlines: [] } });
  });

  it('refuses at a closed door, a door not open yet, and for who may not come in', () => {
    const refusal = (intake: ReturnType<typeof takeIn>) => ('refusal' in intake ? intake.refusal.why : 'taken');
    expect(refusal(takeIn({ ...door, open: false }, answers, context))).toBe('closed');
    expect(refusal(takeIn({ ...door, closesAt: context.now }, answers, context))).toBe('closed');
    expect(refusal(takeIn({ ...door, opensAt: context.now + 1 }, answers, context))).toBe('not-yet');
    expect(
      refusal(takeIn(door, answers, { ...context, requester: { kind: 'contact', active: false, groups: [] } })),
    ).toBe('inactive');
    expect(refusal(takeIn(newDoor('sign-in', 'Staff door'), answers, context))).toBe('sign-in');
  });
});

describe('findings and changes', () => {
  const groups = {
    plan: { rules: [] },
    form: 'form',
    groups: new Map([
      ['estates', 'estates'],
      ['managers', 'managers'],
    ]),
    outside: true,
    vocabularies: [],
    registers: [],
  };

  it('finds nothing in a sound design', () => expect(findingsOf(design, groups)).toEqual([]));

  it('finds unknown names, cells of the wrong kind, rows that can never win, teams that do not exist', () => {
    const broken: FormDesign = {
      ...design,
      rules: [showing('r', 'R', 'watr = true', 'boat')],
      routing: {
        ...design.routing,
        rows: [
          { id: 'all', note: '', cells: {}, outcome: OUTCOME },
          { id: 'x', note: '', cells: { fee: '> "a"' }, outcome: { ...OUTCOME, team: 'ghosts' } },
        ],
      },
    };
    const found = findingsOf(broken, groups);
    expect(found.map((finding) => `${finding.severity} ${finding.at}`)).toEqual([
      'error r',
      'error x',
      'error x',
      'caution x',
    ]);
    expect(english(found[0]?.message)).toContain('Did you mean “Works on water”');
  });

  it('tells a release from a draft in words', () => {
    const draft: FormDesign = { ...design, title: 'Come in', parts: design.parts.slice(0, 4) };
    expect(english(compareDesigns(design, draft).map((change) => change.words))).toEqual([
      'Title: “Access” becomes “Come in”.',
      '“Fee” is no longer on the form. Existing answers stay.',
    ]);
    expect(compareDesigns(design, design)).toEqual([]);
  });
});
