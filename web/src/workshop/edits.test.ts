import type { FormDesign } from '@tolvek/core/form';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addQuestion, dropQuestion, editField, editQuestion, freshKey, KIND_NAMES, moveQuestion } from './edits.ts';

const blank: FormDesign = {
  title: 'A form',
  intro: '',
  subject: '',
  fields: [],
  questions: [],
  rules: [],
  routing: { columns: [], rows: [], otherwise: { team: 'estates', priority: 'normal', workingDays: 2, needsApproval: false } },
  approval: { step: { id: 'decision', label: 'Decision', group: 'duty' } },
  deadline: { calendar: 'desk', remindBefore: 0, escalateAfter: 0, escalateTo: 'duty' },
};
const kinds = KIND_NAMES.map((each) => each.kind);
const formOf = (count: number): FormDesign => Array.from({ length: count }).reduce<FormDesign>((design) => addQuestion(design, 'text').design, blank);
const order = (design: FormDesign): string[] => design.questions.map((question) => question.field);

describe('editing questions', () => {
  it('gives every new field a key of its own, whatever the kinds', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...kinds), { maxLength: 12 }), (added) => {
        const design = added.reduce<FormDesign>((before, kind) => addQuestion(before, kind).design, blank);
        expect(new Set(design.fields.map((field) => field.key)).size).toBe(added.length);
        expect(order(design)).toEqual(design.fields.map((field) => field.key));
      }),
    );
  });

  it('makes keys that expressions can name, from any label', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.array(fc.string()), (label, others) => {
        const taken = new Set(others);
        const key = freshKey(label, taken);
        expect(key).toMatch(/^[a-z][a-z0-9_]*$/);
        expect(taken.has(key)).toBe(false);
      }),
    );
    expect(freshKey('Café plate №', new Set(['cafe_plate_no']))).toBe('cafe_plate_no_2');
  });

  it('moves a question and back again without loss', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.nat(7), fc.integer({ min: -2, max: 9 }), (count, from, to) => {
        const design = formOf(count);
        const key = order(design)[from % count] ?? '';
        const moved = moveQuestion(design, key, to);
        expect([...order(moved)].sort()).toEqual([...order(design)].sort());
        if (to >= 0 && to < count) expect(order(moved).indexOf(key)).toBe(to);
        else expect(moved).toBe(design);
        expect(order(moveQuestion(moved, key, from % count))).toEqual(order(design));
      }),
    );
  });

  it('takes a question off with the rules that show it; a released field keeps its answers', () => {
    const design = { ...formOf(2), rules: [{ id: 'r', name: 'R', when: 'true', show: order(formOf(2)), on: true }] };
    const [first = '', second = ''] = order(design);
    const unreleased = dropQuestion(design, first, false);
    expect(order(unreleased)).toEqual([second]);
    expect(unreleased.rules[0]?.show).toEqual([second]);
    expect(unreleased.fields.map((field) => field.key)).toEqual([second]);
    expect(dropQuestion(design, first, true).fields).toEqual(design.fields);
  });

  it('edits one field or question and leaves the others as they were', () => {
    const design = formOf(3);
    const [, second = ''] = order(design);
    const labelled = editField(design, second, { label: 'Car plate' });
    expect(labelled.fields.map((field) => field.label)).toEqual([design.fields[0]?.label, 'Car plate', design.fields[2]?.label]);
    expect(editQuestion(design, second, { required: true }).questions.map((question) => question.required)).toEqual([false, true, false]);
  });
});
