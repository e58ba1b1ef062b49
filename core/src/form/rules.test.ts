import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { finishRule } from '../deadline/index.ts';
import type { Field, RawAnswers, RequestFacts } from '../register/index.ts';
import {
  type Action,
  applyFix,
  type FormDesign,
  type FormRule,
  findingsOf,
  isUnanswered,
  type Part,
  prepareCompletion,
  prepareKeeping,
} from './index.ts';

const FACTS: RequestFacts = {
  requesterIsOutside: false,
  requesterId: 'ada',
  requesterGroups: [],
  profile: { fields: [], values: {} },
  department: 'Boats',
  door: 'staff',
  today: '2026-11-23',
  now: '2026-11-23T10:42',
  calendar: { open: [], closed: [] },
  people: [{ id: 'ada', name: 'Ada Quill', groups: [] }],
  files: [],
  vocabularies: [],
  references: [],
  numbers: {},
};
const SIZES = ['small', 'large', 'huge'].map((key) => ({ key, label: key }));
const asked = (key: string, type: Field['type'], preset?: Extract<Field, { preset?: unknown }>['preset']): Field => ({
  key,
  label: key,
  type,
  source: 'asked',
  ...(preset ? { preset } : {}),
});
const question = (field: string, more: object = {}): Part => ({
  part: 'question',
  field,
  asks: '',
  help: '',
  required: false,
  ...more,
});
const rule = (
  when: string,
  then: readonly Action[],
  otherwise: readonly Action[] = [],
  more: Partial<FormRule> = {},
): FormRule => ({
  id: `rule-${when.replace(/\W+/g, '-').toLowerCase()}`,
  name: when,
  says: '',
  when,
  then,
  otherwise,
  on: true,
  runs: 'filling',
  ...more,
});

const FIELDS = [
  asked('pick', { kind: 'choice', options: SIZES }),
  asked('fee', { kind: 'money', currency: 'EUR' }),
  asked('note', { kind: 'text' }),
  asked('sure', { kind: 'yes-no' }),
  asked('day', { kind: 'date' }),
];
const PARTS = FIELDS.map((field) => question(field.key));

function design(rules: readonly FormRule[], more: Partial<FormDesign> = {}): FormDesign {
  return {
    title: 'A form',
    intro: '',
    subject: '{note}',
    fields: FIELDS,
    parts: PARTS,
    rules,
    unique: [],
    routing: {
      columns: [],
      rows: [],
      otherwise: { team: 'boats', priority: 'normal', workingDays: 1, path: null },
    },
    approval: {
      paths: [{ id: 'path', label: '', steps: [{ id: 's', label: 'S', seats: [{ group: 'boats' }], needed: 1 }] }],
    },
    deadline: { calendar: 'desk', leads: 'boats', deadlines: [finishRule(0, 0)] },
    ...more,
  };
}
const complete = (made: FormDesign, answers: RawAnswers = {}, facts = FACTS) => prepareCompletion(made)(answers, facts);
const findings = (made: FormDesign) =>
  findingsOf(made, {
    plan: { rules: [] },
    form: 'form',
    groups: new Map([['boats', 'boats']]),
    outside: false,
    vocabularies: [],
    registers: [],
  });
const messages = (made: FormDesign) => findings(made).map((finding) => finding.message);

describe('what rules do', () => {
  it('then, otherwise, and neither while it can’t be said', () => {
    const made = design([rule('fee > 100', [{ do: 'require', fields: ['note'] }], [{ do: 'hide', parts: ['note'] }])]);
    const note = (fee: string | null) => complete(made, { fee }).asked.find((each) => each.field === 'note');
    expect(note('200')?.required).toBe(true);
    expect(note('50')).toBeUndefined();
    expect(note(null)?.required).toBe(false);
  });

  it('the later rule decides where two disagree', () => {
    const hides = rule('fee > 100', [{ do: 'hide', parts: ['note'] }]);
    const shows = rule('sure = true', [{ do: 'show', parts: ['note'] }]);
    const asksNote = (rules: readonly FormRule[]) =>
      complete(design(rules), { fee: '200', sure: true }).asked.some((each) => each.field === 'note');
    expect(asksNote([hides, shows])).toBe(true);
    expect(asksNote([shows, hides])).toBe(false);
    expect(english(messages(design([hides, shows])))).toEqual([
      'The rules “fee > 100” and “sure = true” contradict each other about “note” when both are true. “sure = true” counts, because it is later. Change one if that is wrong.',
    ]);
  });

  it('set and empty keep a value, show it, and refuse what is sent in its place', () => {
    const made = design([
      rule('pick = "large"', [{ do: 'set', field: 'fee', value: '2 * 20.25' }]),
      rule('pick = "huge"', [{ do: 'clear', fields: ['fee'] }]),
    ]);
    const large = complete(made, { pick: 'large', fee: '9' });
    expect(large.values.fee).toEqual({ minor: 4_050, currency: 'EUR' });
    expect(english(large.asked.find((each) => each.field === 'fee'))).toMatchObject({ locked: true, shown: '€40.50' });
    expect(english(large.strangers)).toEqual([
      { field: 'fee', message: 'The form fills this in. It cannot be answered.', fix: 'Remove it.' },
    ]);
    expect(complete(made, { pick: 'huge', fee: '9' }).values.fee).toBeUndefined();
    expect(complete(made, { pick: 'small', fee: '9' }).values.fee).toEqual({ minor: 900, currency: 'EUR' });
  });

  it('limits options, warns and refuses, each at its field', () => {
    const made = design([
      rule('sure = true', [
        { do: 'limit', field: 'pick', options: ['small'] },
        { do: 'warn', field: 'pick', text: 'Only small ones are left.' },
        { do: 'refuse', field: 'day', text: 'Not on that day.', fix: 'Ask for another.' },
      ]),
    ]);
    const { asked: shown, problems, warnings } = complete(made, { sure: true, pick: 'large', day: '2026-12-24' });
    expect(shown.find((each) => each.field === 'pick')?.offers).toEqual(['small']);
    expect(english(problems)).toEqual([
      {
        field: 'pick',
        message: '“large”: this option is not available with your other answers.',
        fix: 'Choose another option from the list.',
      },
      { field: 'day', message: 'Not on that day.', fix: 'Ask for another.' },
    ]);
    expect(warnings.map((said) => [said.field, said.text])).toEqual([['pick', 'Only small ones are left.']]);
    expect(complete(made, { sure: false, pick: 'large', day: '2026-12-24' }).problems).toEqual([]);
  });

  it('jumps over pages, and hides what stands in a hidden section', () => {
    const pages: readonly Part[] = [
      question('pick'),
      { part: 'page', id: 'page-1', title: 'Money', text: '' },
      question('fee', { required: true }),
      { part: 'page', id: 'page-2', title: 'More', text: '' },
      { part: 'section', id: 'section-1', title: 'Notes', text: '' },
      question('note'),
      question('sure'),
    ];
    const made = design(
      [
        rule('pick = "small"', [{ do: 'jump', after: 'first', to: 'page-2' }]),
        rule('pick = "large"', [{ do: 'hide', parts: ['section-1'] }]),
      ],
      { parts: pages },
    );
    const shown = (pick: string) =>
      complete(made, { pick }).parts.map((part) => (part.part === 'question' ? part.field : part.id));
    expect(shown('small')).toEqual(['pick', 'page-2', 'section-1', 'note', 'sure']);
    expect(complete(made, { pick: 'small' }).problems).toEqual([]);
    expect(shown('large')).toEqual(['pick', 'page-1', 'fee']);
    expect(complete(made, { pick: 'large' }).problems.every(isUnanswered)).toBe(true);
    expect(shown('huge')).toHaveLength(7);
  });

  it.each([
    ['ignored', undefined, [], ['note']],
    ['cleared', undefined, ['note'], ['note']],
    ['kept', 'typed before', [], []],
  ] as const)('an answer whose question went away is %s', (whenHidden, stored, cleared, strangers) => {
    const made = design([rule('sure = true', [{ do: 'hide', parts: ['note'] }])], {
      parts: [question('sure'), question('note', { whenHidden })],
    });
    const result = complete(made, { sure: true, note: 'typed before' });
    expect(result.values.note).toBe(stored);
    expect(result.cleared).toEqual(cleared);
    expect(result.strangers.map((problem) => problem.field)).toEqual(strangers);
  });
});

describe('defaults', () => {
  const fields = [
    asked('when', { kind: 'date-time' }, { from: 'now' }),
    asked('until', { kind: 'date' }, { from: 'today', plus: 3 }),
    asked('who', { kind: 'person', from: [] }, { from: 'me' }),
    asked('team', { kind: 'text' }, { from: 'department' }),
    asked('copy', { kind: 'text' }, { from: 'field', field: 'team' }),
    asked('fixed', { kind: 'choice', options: SIZES }, { from: 'fixed', value: 'large' }),
    {
      key: 'stage_note',
      label: 'Stage note',
      type: { kind: 'text' },
      source: 'desk-only',
      preset: { from: 'formula', formula: '"asked by " + requester.department' },
    } as Field,
  ];
  const made = design([rule('fixed = "huge"', [{ do: 'hide', parts: ['team'] }])], {
    fields,
    parts: fields.filter((field) => field.source === 'asked').map((field) => question(field.key)),
  });

  it('stand until somebody answers, on fields that no form asks as well', () => {
    expect(complete(made).values).toEqual({
      when: '2026-11-23T10:42',
      until: '2026-11-26',
      who: 'ada',
      team: 'Boats',
      copy: 'Boats',
      fixed: 'large',
      stage_note: 'asked by Boats',
    });
    expect(complete(made).asked.find((each) => each.field === 'until')?.stands).toBe('2026-11-26');
    expect(complete(made, { team: 'Lab', until: null }).values).toMatchObject({ team: 'Lab', copy: 'Lab' });
    expect(complete(made, { until: null }).values.until).toBeUndefined();
  });

  it('apply where the question is hidden, and can’t be overridden there', () => {
    const hidden = complete(made, { fixed: 'huge', team: 'somebody else’s' });
    expect(hidden.values.team).toBe('Boats');
    expect(hidden.strangers.map((problem) => problem.field)).toEqual(['team']);
  });

  it('nobody is the default person when nobody is known', () => {
    expect(complete(made, {}, { ...FACTS, requesterId: null }).values.who).toBeUndefined();
  });
});

describe('at every saving', () => {
  const made = design([
    rule('fee > 100', [{ do: 'refuse', field: 'fee', text: 'Too dear.', fix: 'Lower it.' }], [], { runs: 'saving' }),
    rule('sure = true', [{ do: 'set', field: 'note', value: '"sure"' }], [], { runs: 'saving' }),
    rule('pick = "huge"', [{ do: 'refuse', field: 'form', text: 'Only while filling.', fix: '' }]),
  ]);
  const withTotal = {
    ...made,
    fields: [
      ...FIELDS,
      {
        key: 'twice',
        label: 'Twice',
        type: { kind: 'money', currency: 'EUR' },
        source: 'computed',
        formula: 'fee * 2',
      } as Field,
    ],
  };
  const keep = prepareKeeping(withTotal);

  it('only the rules of every saving run, and computed values follow', () => {
    const kept = keep({ fee: { minor: 1_000, currency: 'EUR' }, pick: 'huge', sure: true }, new Set(['fee']), FACTS);
    expect(kept.problems).toEqual([]);
    expect(kept.values).toMatchObject({ twice: { minor: 2_000, currency: 'EUR' }, note: 'sure' });
    expect(keep({ fee: { minor: 20_000, currency: 'EUR' } }, new Set(['fee']), FACTS).problems).toEqual([
      { field: 'fee', message: 'Too dear.', fix: 'Lower it.' },
    ]);
  });

  it('what a rule keeps can’t be changed by hand', () => {
    const { problems } = keep({ sure: true, note: 'by hand' }, new Set(['note']), FACTS);
    expect(problems.map((problem) => problem.field)).toEqual(['note']);
  });
});

describe('findings', () => {
  it('a circle is an error, told by the way round', () => {
    const circle = design([
      rule('note != null', [{ do: 'set', field: 'fee', value: '1' }]),
      rule('fee > 0', [{ do: 'hide', parts: ['note'] }]),
    ]);
    expect(
      english(
        findings(circle)
          .filter((finding) => finding.severity === 'error')
          .map((finding) => finding.message),
      ),
    ).toEqual([
      'These fields depend on each other, so they have no clear value: “fee” and “note”. Change one of the rules.',
    ]);
    expect(english(messages(design([rule('note = "x"', [{ do: 'show', parts: ['note'] }])])))[0]).toContain(
      'depends on itself',
    );
  });

  it.each<[string, FormDesign, string, object]>([
    [
      'a rule that only fills',
      design([rule('fee = null', [{ do: 'set', field: 'fee', value: '5' }])]),
      'only fills in a field',
      { rules: [], fields: [{ key: 'fee', preset: { from: 'formula', formula: '5' } }] },
    ],
    [
      'a rule that can never hold',
      design([rule('fee > 5 and fee < 3', [{ do: 'require', fields: ['note'] }])]),
      'is never true',
      { rules: [] },
    ],
    [
      'a rule that does nothing',
      design([rule('sure = true', [{ do: 'show', parts: [] }])]),
      'does nothing yet',
      { rules: [] },
    ],
    [
      'a part that is gone',
      design([rule('sure = true', [{ do: 'hide', parts: ['note', 'gone'] }])]),
      'not on the form',
      { rules: [{ then: [{ do: 'hide', parts: ['note'] }] }] },
    ],
    [
      'a question that is never shown',
      design([rule('fee > 5 and fee < 3', [{ do: 'show', parts: ['note'] }])]),
      '“note” is never shown',
      { parts: [{ field: 'pick' }, { field: 'fee' }, { field: 'sure' }, { field: 'day' }] },
    ],
    [
      'an offer of a retired option',
      design([rule('sure = true', [{ do: 'limit', field: 'pick', options: ['small', 'old'] }])], {
        fields: [
          asked('pick', { kind: 'choice', options: [...SIZES, { key: 'old', label: 'old', retired: true }] }),
          ...FIELDS.slice(1),
        ],
      }),
      'nobody can choose any more',
      { rules: [{ then: [{ do: 'limit', field: 'pick', options: ['small'] }] }] },
    ],
    [
      'a field nobody asks',
      design([], { parts: PARTS.slice(0, 4) }),
      '“day” is not on the form',
      { parts: [{}, {}, {}, {}, { field: 'day' }] },
    ],
  ])('%s is mended in one step', (_, broken, message, mended) => {
    const finding = findings(broken).find((each) => english(each.message).includes(message));
    if (!finding?.fix) throw new Error(`no fix among: ${english(messages(broken)).join(' ')}`);
    const fixed = applyFix(broken, finding.fix, english);
    const expected = mended as { fields?: readonly { key: string }[] };
    if (expected.fields)
      expect(fixed.fields.find((field) => field.key === expected.fields?.[0]?.key)).toMatchObject(
        expected.fields[0] as object,
      );
    else expect(fixed).toMatchObject(mended);
    expect(english(messages(fixed)).filter((each: string) => each.includes(message))).toEqual([]);
  });

  it('formulas and defaults must fit what they fill', () => {
    const fields = [
      ...FIELDS,
      { key: 'sum', label: 'Sum', type: { kind: 'number', places: 0 }, source: 'computed', formula: '"text"' } as Field,
      asked('late', { kind: 'number', places: 0 }, { from: 'now' }),
    ];
    expect(english(messages(design([], { fields, parts: [...PARTS, question('late')] })))).toEqual([
      '“Sum” is computed as text, but the field has a number. Change the formula, or the kind of the field.',
      'The default of “late” is a date and time, which does not fit this kind of field. Choose another default.',
    ]);
  });

  it('rules, rows and steps that ask for a retired option are told', () => {
    const fields = [
      asked('pick', { kind: 'choice', options: [...SIZES, { key: 'old', label: 'Old', retired: true }] }),
      ...FIELDS.slice(1),
    ];
    const routing = {
      columns: [{ id: 'pick', label: 'Pick', input: 'pick' }],
      rows: [
        {
          id: 'r',
          note: '',
          cells: { pick: '"old"' },
          outcome: { team: 'boats', priority: 'normal' as const, workingDays: 1, path: null },
        },
      ],
      otherwise: { team: 'boats', priority: 'normal' as const, workingDays: 1, path: null },
    };
    const step = { id: 's', label: 'Lead', seats: [{ group: 'boats' }], needed: 1 };
    const steps = [step, { ...step, id: 't', when: 'pick = "old"' }];
    const approval = { paths: [{ id: 'path', label: '', steps }] };
    const rules = [rule('pick in ("old", "small")', [{ do: 'require', fields: ['note'] }])];
    expect(english(messages(design(rules, { fields, routing, approval })))).toEqual([
      'The rule “pick in ("old", "small")” tests for “Old” of “pick”, which nobody can choose any more. Remove it from the condition.',
      'The approval step “Lead” tests for “Old” of “pick”, which nobody can choose any more. Remove it from the condition.',
      'Row 1 tests for “Old” of “pick”, which nobody can choose any more. Change the cell.',
    ]);
  });
});
