import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allSteps, withStepsOf } from '../approval/index.ts';
import type { Field } from '../register/index.ts';
import {
  askedInWordsOf,
  draftAfter,
  type FormDesign,
  fieldsBy,
  RECIPES,
  type RegisterContent,
  registerAfter,
  takenFrom,
} from './index.ts';

const recipe = RECIPES.find((each) => each.key === 'purchase')?.make({
  told: english,
  title: 'Purchase',
  team: 'stores',
  approvers: 'managers',
  calendar: 'desk',
}) as FormDesign;

const REGISTER: RegisterContent = {
  ...{ name: 'Purchases', prefix: 'PU', holds: 'requests', left: [], stages: [], access: { rules: [] } },
  ...{ deskGroups: [], staysIn: false, fields: recipe.fields, subject: recipe.subject, unique: recipe.unique },
  usual: { routing: recipe.routing, approval: recipe.approval, deadline: recipe.deadline },
};

const FORMS = ['long', 'short', 'third'] as const;
type Form = (typeof FORMS)[number];

/** Single settings, each read and written by itself. */
const withLabel = (key: string) => ({
  read: (design: FormDesign) => design.fields.find((field) => field.key === key)?.label ?? '',
  write: (design: FormDesign, to: string): FormDesign => ({
    ...design,
    fields: design.fields.map((field) => (field.key === key ? { ...field, label: to } : field)),
  }),
});
const SLOTS = {
  purpose: withLabel('purpose'),
  lines: withLabel('lines'),
  subject: {
    read: (design: FormDesign) => design.subject,
    write: (design: FormDesign, to: string): FormDesign => ({ ...design, subject: to }),
  },
  approval: {
    read: ({ approval }: FormDesign) => allSteps(approval)[0]?.label ?? '',
    write: (design: FormDesign, to: string): FormDesign => ({
      ...design,
      approval: withStepsOf(design.approval, (step) => ({ ...step, label: to })),
    }),
  },
} as const;
type Slot = keyof typeof SLOTS;
const SLOT_NAMES = Object.keys(SLOTS) as Slot[];

const step = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.record({
      does: fc.constant('edit' as const),
      form: fc.constantFrom(...FORMS),
      slot: fc.constantFrom(...SLOT_NAMES),
      to: fc.constantFrom('One', 'Two', 'Three', 'Four'),
    }),
  },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('release' as const), form: fc.constantFrom(...FORMS) }) },
  { weight: 1, arbitrary: fc.record({ does: fc.constant('own' as const), form: fc.constantFrom(...FORMS) }) },
);

describe('forms that ask into one register', () => {
  it('put in force exactly what each one’s draft changed, and see what the others changed', () => {
    const did = { edit: 0, release: 0, own: 0, reached: 0, kept: 0 };
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 25 }), (steps) => {
        // The model: a cell for each setting of the register and of each draft, and nothing else.
        const cell = (): Record<Slot, string> =>
          Object.fromEntries(SLOT_NAMES.map((slot) => [slot, SLOTS[slot].read(recipe)])) as Record<Slot, string>;
        const inForce = cell();
        const inDraft = { long: cell(), short: cell(), third: cell() };
        const own = new Set<Form>();
        let register = REGISTER;
        const drafts: Record<Form, FormDesign> = { long: recipe, short: recipe, third: recipe };
        for (const each of steps) {
          did[each.does] += 1;
          if (each.does === 'edit') {
            drafts[each.form] = SLOTS[each.slot].write(drafts[each.form], each.to);
            inDraft[each.form][each.slot] = each.to;
          } else if (each.does === 'own') {
            own.add(each.form);
            drafts[each.form] = { ...drafts[each.form], own: ['approval'] };
          } else {
            const before = register;
            register = registerAfter(before, drafts[each.form]);
            for (const other of FORMS)
              if (other !== each.form) drafts[other] = draftAfter(drafts[other], before, register);
            for (const slot of SLOT_NAMES) {
              if (slot === 'approval' && own.has(each.form)) continue;
              for (const other of FORMS) {
                if (other === each.form || (slot === 'approval' && own.has(other))) continue;
                const isUntouched = inDraft[other][slot] === inForce[slot];
                if (inDraft[each.form][slot] !== inForce[slot]) did[isUntouched ? 'reached' : 'kept'] += 1;
                if (isUntouched) inDraft[other][slot] = inDraft[each.form][slot];
              }
              inForce[slot] = inDraft[each.form][slot];
            }
          }
          for (const slot of SLOT_NAMES) {
            const whole = { ...recipe, ...takenFrom(register) };
            expect([slot, SLOTS[slot].read(whole)]).toEqual([slot, inForce[slot]]);
            for (const form of FORMS)
              expect([form, slot, SLOTS[slot].read(drafts[form])]).toEqual([form, slot, inDraft[form][slot]]);
          }
        }
      }),
      { numRuns: 900 },
    );
    console.log('three forms on one register', did);
    for (const times of Object.values(did)) expect(times).toBeGreaterThan(100);
  });

  it('learn of each other’s new fields, and keep away what they let go of', () => {
    const extra: Field = { key: 'urgent', label: 'Urgent', type: { kind: 'yes-no' }, source: 'asked' };
    const short = { ...recipe, fields: recipe.fields.filter((field) => field.key !== 'needed_by') };
    const after = registerAfter(REGISTER, { ...recipe, fields: [...recipe.fields, extra] });
    const seen = draftAfter(short, REGISTER, after);
    expect(seen.fields.map((field) => field.key)).toEqual([...short.fields.map((field) => field.key), 'urgent']);
    // What the short form does not know stays in the register when it is released.
    expect(registerAfter(after, short).fields).toEqual(after.fields);
    const left = { ...after, left: ['urgent'] };
    expect(draftAfter(seen, after, left).fields).toEqual(short.fields);
    expect(takenFrom(left).fields).toEqual(recipe.fields);
  });
});

const choice = (label: string, ...options: readonly (readonly [string, string])[]): Field => ({
  ...{ key: 'size', label, source: 'asked' },
  type: { kind: 'choice', options: options.map(([key, said]) => ({ key, label: said })) },
});
const sum = (formula: string, label = 'Sum'): Field => ({
  ...{ key: 'sum', label, source: 'computed', formula },
  type: { kind: 'number', places: 0 },
});
const limited = (most: number, label: string): Field => ({
  ...{ key: 'note', label, source: 'asked' },
  type: { kind: 'text', most },
});

describe('the fields of a request', () => {
  const then = [choice('Size', ['s', 'Small'], ['m', 'Middle']), sum('1 + 1'), limited(10, 'Note')];
  const now = [
    choice('How big', ['s', 'Little'], ['m', 'Middle'], ['l', 'Large']),
    sum('2 + 2', 'Total'),
    limited(99, 'Remark'),
  ];

  it('are computed as its release says, in the words of now', () => {
    const fields = fieldsBy(now, { fields: then });
    expect(fields.map((field) => field.label)).toEqual(['How big', 'Total', 'Remark']);
    expect(fields[1]).toMatchObject({ formula: '1 + 1' });
    expect(fields[2]).toMatchObject({ type: { most: 10 } });
    expect(fields[0]?.type).toEqual(now[0]?.type);
    expect(fieldsBy(now, { fields: then })).toBe(fields);
    expect(fieldsBy(now, { fields: [...now] })).toBe(now);
  });

  it('leave out what its release did not compute, and have what anybody can fill in', () => {
    const keys = (fields: readonly Field[]): readonly string[] => fields.map((field) => field.key);
    expect(keys(fieldsBy(now, { fields: [] }))).toEqual(['size', 'note']);
    expect(keys(fieldsBy([...now, limited(5, 'x')], { fields: now }))).toEqual(['size', 'sum', 'note', 'note']);
  });

  it('are asked at a door in the words of now, with the options of the release', () => {
    const [size, , note] = askedInWordsOf(then, now);
    expect(size).toEqual(choice('How big', ['s', 'Little'], ['m', 'Middle']));
    expect(note).toMatchObject({ label: 'Remark', type: { most: 10 } });
  });
});
