import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import type { AccessPlan } from '../../access/index.ts';
import type { Field } from '../../register/index.ts';
import type { Action, FormDesign, FormRule } from '../design.ts';
import { blankDesign } from '../recipes/index.ts';
import { applyFix, fixInWords } from './fix.ts';
import { flowFindings } from './flow.ts';

const GROUPS = new Map([['safety', 'Site safety']]);
const plan: AccessPlan = {
  rules: [
    {
      id: 'closed',
      name: 'Notes stay with site safety',
      fields: ['note', 'day', 'score'],
      audience: { in: { everyone: true }, outOf: ['safety'], requester: 'out' },
      level: 'hidden',
    },
    {
      id: 'score',
      name: 'Nobody who asks reads the score',
      fields: ['score'],
      audience: { in: { anyOf: [] }, outOf: [], requester: 'in' },
      level: 'hidden',
    },
  ],
};
const text = (key: string, label: string, more: object = {}): Field => ({
  key,
  label,
  type: { kind: 'text' },
  source: 'asked',
  ...more,
});
const fields: readonly Field[] = [
  text('note', 'Note'),
  text('what', 'What'),
  { key: 'day', label: 'Day', type: { kind: 'date' }, source: 'asked' },
  { key: 'until', label: 'Until', type: { kind: 'date' }, source: 'asked' },
  {
    key: 'score',
    label: 'Score',
    type: { kind: 'number', places: 0 },
    source: 'computed',
    formula: 'string length(what)',
  },
  text('escort', 'Escort', { source: 'desk-only' }),
];
const design: FormDesign = {
  ...blankDesign({ told: english, title: 'A form', team: 'safety', approvers: 'safety', calendar: 'desk' }),
  fields,
  parts: [
    { part: 'question', field: 'note', asks: '', help: '', required: false },
    { part: 'page', id: 'page-2', title: 'More', text: '' },
    { part: 'question', field: 'what', asks: '', help: '', required: false },
  ],
};
const ruled = (action: Action, more: Partial<FormRule> = {}): FormDesign => ({
  ...design,
  rules: [
    {
      id: 'rule-1',
      name: 'R',
      says: '',
      when: 'note != null',
      then: [action],
      otherwise: [],
      on: true,
      runs: 'saving',
      ...more,
    },
  ],
});
const withField = (key: string, more: object): FormDesign => ({
  ...design,
  fields: fields.map((field) => (field.key === key ? ({ ...field, ...more } as Field) : field)),
});
const OUTCOME = { team: 'safety', priority: 'normal', workingDays: 1, path: null } as const;
const DESK = 'staff of the desk not in Site safety';
const found = (made: FormDesign) => flowFindings(made, { plan, form: 'form' }, GROUPS);

describe('what a form would tell', () => {
  it.each<readonly [what: string, design: FormDesign, way: readonly string[], fix: string]>([
    [
      'a default',
      withField('escort', { preset: { from: 'field', field: 'note' } }),
      ['The default of “Escort” comes from “Note”.', `“Escort” is read by ${DESK}.`],
      'Remove the default',
    ],
    [
      'a value that is set',
      ruled({ do: 'set', field: 'escort', value: 'note' }, { when: 'true' }),
      ['The rule “R” copies “Note” to “Escort”.', `“Escort” is read by ${DESK}.`],
      'Remove this from the rule',
    ],
    [
      'a condition that sets',
      ruled({ do: 'set', field: 'escort', value: '"x"' }),
      ['The rule “R” sets “Escort”, depending on “Note”.', `“Escort” is read by ${DESK}.`],
      'Remove this from the rule',
    ],
    [
      'a page that is jumped over',
      ruled({ do: 'jump', after: 'first', to: 'end' }),
      ['The rule “R” skips “What”, depending on “Note”.', `“What” is read by ${DESK}.`],
      'Remove this from the rule',
    ],
    [
      'a refusal at every saving',
      ruled({ do: 'refuse', field: 'form', text: 'No.', fix: '' }),
      ['The rule “R” refuses, depending on “Note”.', `Everyone who changes something sees it, including ${DESK}.`],
      'Remove this from the rule',
    ],
    [
      'a limit at every saving',
      ruled({ do: 'limit', field: 'what', options: ['x'] }),
      ['The rule “R” limits “What”, depending on “Note”.', `Everyone who changes “What” sees it, including ${DESK}.`],
      'Remove this from the rule',
    ],
    [
      'an order of days',
      withField('until', { type: { kind: 'date', notBefore: 'day' } }),
      ['“Until” may not be before “Day”.', `Everyone who changes “Until” sees it, including ${DESK}.`],
      'Remove this limit',
    ],
    [
      'an offer',
      withField('what', {
        type: { kind: 'reference', register: 'x', shows: [], among: 'all', offered: 'it.place = note' },
      }),
      ['The list of “What” is limited by “Note”.', `Everyone who changes “What” sees it, including ${DESK}.`],
      'Remove the limit of the list',
    ],
    [
      'a unique rule',
      { ...design, unique: [{ id: 'unique-1', fields: ['note', 'what'], among: 'all' }] },
      ['Anyone who gives the same Note again learns that it is taken.', `Every requester sees it, including ${DESK}.`],
      'Remove the duplicate check',
    ],
    [
      'a routing column',
      {
        ...design,
        routing: {
          ...design.routing,
          columns: [{ id: 'c', label: 'C', input: 'string length(note)' }],
          rows: [{ id: 'row-1', note: '', cells: { c: '> 3' }, outcome: OUTCOME }],
        },
      },
      ['The routing table tests “Note”.', `Team, stage and due date show which row was used, also to ${DESK}.`],
      'Remove the column',
    ],
    [
      'a field by whose change who decides is asked again',
      {
        ...design,
        routing: { ...design.routing, otherwise: { ...OUTCOME, path: 'path' } },
        approval: { paths: design.approval.paths.map((path) => ({ ...path, again: ['note'] })) },
      },
      [
        'The approval path “Approval” asks again when “Note” changes.',
        `Who is asked to decide shows it, also to ${DESK}.`,
      ],
      'Do not ask again for it',
    ],
    [
      'words that show it to who asks',
      {
        ...design,
        parts: [...design.parts, { part: 'instruction', id: 'words-1', text: 'Your score: {score} points.' }],
      },
      ['A text between questions shows “Score”.', 'It is shown to the requester not in Site safety.'],
      'Remove this from the text',
    ],
  ])('by %s is an error with its way, and its step takes it away', (_, made, way, words) => {
    const [finding, ...more] = found(made);
    expect(more).toEqual([]);
    expect(finding?.severity).toBe('error');
    expect(english(finding?.way)).toEqual(way);
    expect(finding?.fix && english(fixInWords(finding.fix))).toBe(words);
    expect(found(finding?.fix ? applyFix(made, finding.fix, english) : made)).toEqual([]);
  });

  it('is an error where who is asked to decide, or handles it, shows whom an answer names', () => {
    const byAnswer = { ...OUTCOME, handler: { ways: [{ by: 'field' as const, field: 'note' }] } };
    const handled = { ...design, routing: { ...design.routing, otherwise: byAnswer } };
    expect(found(handled).map(({ way }) => english(way)[0])).toEqual([
      'The routing table makes whoever “Note” names the handler.',
    ]);
    const steps = [{ id: 'one', label: 'One', seats: [{ field: 'note' }], needed: 1 }];
    const decided: FormDesign = {
      ...{ ...design, approval: { paths: [{ id: 'path', label: '', steps }] } },
      routing: { ...design.routing, otherwise: { ...OUTCOME, path: 'path' } },
    };
    expect(found(decided).map(({ way }) => english(way)[0])).toEqual([
      'The approval step “One” asks whoever “Note” names.',
    ]);
  });

  it('goes through other fields to the end, and is said where it leaves those who may read it', () => {
    const chained: FormDesign = {
      ...ruled({ do: 'set', field: 'escort', value: 'gist' }, { when: 'true' }),
      fields: [...fields, text('gist', 'Gist', { source: 'computed', formula: 'upper case(note)' })],
      routing: {
        ...design.routing,
        columns: [{ id: 'c', label: 'C', input: 'escort' }],
        rows: [{ id: 'row-1', note: '', cells: { c: '"X"' }, outcome: OUTCOME }],
      },
    };
    const [finding, ...more] = found(chained);
    expect(more).toEqual([]);
    expect(english(finding?.way)).toEqual([
      '“Gist” is computed from “Note”.',
      'The rule “R” copies “Gist” to “Escort”.',
      `“Escort” is read by ${DESK}.`,
    ]);
    expect(finding?.protect).toEqual({ source: 'note', field: 'escort' });
  });

  it('is nothing where who is told may read it, where only the asker is told, and in a rule that is off', () => {
    expect(found(design)).toEqual([]);
    expect(found(ruled({ do: 'refuse', field: 'form', text: 'No.', fix: '' }, { runs: 'filling' }))).toEqual([]);
    expect(found(ruled({ do: 'set', field: 'escort', value: 'note' }, { on: false }))).toEqual([]);
    expect(found(ruled({ do: 'set', field: 'note', value: 'what' }, { when: 'true' }))).toEqual([]);
    expect(found(ruled({ do: 'require', fields: ['note'] }, { when: 'true', runs: 'filling' }))).toEqual([]);
  });

  it('is said to be too much to look through when the plan tells too many kinds of people apart', () => {
    const many: AccessPlan = {
      rules: Array.from({ length: 14 }, (_, index) => ({
        id: `r${index}`,
        name: '',
        fields: ['note'],
        audience: { in: { anyOf: [`g${index}`] }, outOf: [] },
        level: 'hidden' as const,
      })),
    };
    const findings = flowFindings(design, { plan: many, form: 'form' }, GROUPS);
    expect(findings.map(({ severity, at }) => [severity, at])).toEqual([['error', 'access']]);
  });
});
