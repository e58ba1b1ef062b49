import { finishRule } from '@tolvek/core/deadline';
import { type FormDesign, freshKey, partKey } from '@tolvek/core/form';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addField,
  addPart,
  addQuestion,
  dropParts,
  editField,
  editPart,
  keyedByLabel,
  movePart,
  moveTogether,
  QUESTION_KINDS,
  requireAll,
} from './edits.ts';

const blank: FormDesign = {
  title: 'A form',
  intro: '',
  subject: '',
  fields: [],
  parts: [],
  rules: [],
  unique: [],
  routing: {
    columns: [],
    rows: [],
    otherwise: { team: 'estates', priority: 'normal', workingDays: 2, path: null },
  },
  approval: {
    paths: [
      { id: 'path', label: '', steps: [{ id: 'decision', label: 'Decision', seats: [{ group: 'duty' }], needed: 1 }] },
    ],
  },
  deadline: { calendar: 'desk', leads: 'duty', deadlines: [finishRule(0, 0)] },
};
const kinds = QUESTION_KINDS;
const formOf = (count: number): FormDesign =>
  Array.from({ length: count }).reduce<FormDesign>((design) => addQuestion(design, 'text').design, blank);
const order = (design: FormDesign): string[] => design.parts.map(partKey);

describe('editing the parts of a form', () => {
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

  it('moves a part and back again without loss', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.nat(7), fc.integer({ min: -2, max: 9 }), (count, from, to) => {
        const design = formOf(count);
        const key = order(design)[from % count] ?? '';
        const moved = movePart(design, key, to);
        expect([...order(moved)].sort()).toEqual([...order(design)].sort());
        if (to >= 0 && to < count) expect(order(moved).indexOf(key)).toBe(to);
        else expect(moved).toBe(design);
        expect(order(movePart(moved, key, from % count))).toEqual(order(design));
      }),
    );
  });

  it('moves several together and back again, keeping their order and that of the others', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.array(fc.nat(7)),
        fc.constantFrom(-1 as const, 1 as const),
        (count, picked, way) => {
          const design = formOf(count);
          const keys = new Set(picked.map((at) => order(design)[at % count] ?? ''));
          const moved = moveTogether(design, keys, way);
          const only = (of: FormDesign, chosen: boolean): string[] =>
            order(of).filter((key) => keys.has(key) === chosen);
          expect(only(moved, true)).toEqual(only(design, true));
          expect(only(moved, false)).toEqual(only(design, false));
          if (moved !== design) expect(order(moveTogether(moved, keys, way === 1 ? -1 : 1))).toEqual(order(design));
        },
      ),
    );
  });

  it('knows a new field by its label from when it has one, unless something names it by then', () => {
    const added = addQuestion(formOf(1), 'line-items');
    expect(added.key).toBe('line_items_field');
    const none: ReadonlySet<string> = new Set();
    expect(keyedByLabel(added.design, added.key, none)).toBeNull();
    const named = editField(added.design, added.key, (field) => ({ ...field, label: 'Extras' }));
    const keyed = keyedByLabel(named, added.key, none);
    expect(keyed?.key).toBe('extras');
    expect(keyed?.design.fields.map((field) => field.key)).toContain('extras');
    expect(order(keyed?.design ?? named)).toContain('extras');
    expect(JSON.stringify(keyed?.design)).not.toContain('line_items_field');
    // It holds answers; it has a key of its own; a rule reads it; the label is taken.
    expect(keyedByLabel(named, added.key, new Set([added.key]))).toBeNull();
    expect(keyedByLabel(keyed?.design ?? named, 'extras', none)).toBeNull();
    const rule = {
      id: 'r',
      name: 'R',
      says: '',
      when: 'count(line_items_field) > 1',
      on: true,
      runs: 'filling',
    } as const;
    expect(keyedByLabel({ ...named, rules: [{ ...rule, then: [], otherwise: [] }] }, added.key, none)).toBeNull();
    const twice = addQuestion(keyed?.design ?? named, 'line-items');
    const again = editField(twice.design, twice.key, (field) => ({ ...field, label: 'Extras' }));
    expect(keyedByLabel(again, twice.key, none)?.key).toBe('extras_2');
  });

  it('takes questions off with what rules say of them; a released field keeps its answers', () => {
    const [first = '', second = ''] = order(formOf(2));
    const rule = {
      id: 'r',
      name: 'R',
      says: '',
      when: 'true',
      then: [{ do: 'show' as const, parts: [first, second] }],
      otherwise: [{ do: 'set' as const, field: first, value: '"x"' }],
      on: true,
      runs: 'filling' as const,
    };
    const design: FormDesign = { ...formOf(2), rules: [rule] };
    const unreleased = dropParts(design, new Set([first]), new Set());
    expect(order(unreleased)).toEqual([second]);
    expect(unreleased.rules[0]).toMatchObject({ then: [{ do: 'show', parts: [second] }], otherwise: [] });
    expect(unreleased.fields.map((field) => field.key)).toEqual([second]);
    expect(dropParts(design, new Set([first]), new Set([first])).fields).toEqual(design.fields);
  });

  it('edits one field or part and leaves the others as they were', () => {
    const design = formOf(3);
    const [, second = ''] = order(design);
    const labelled = editField(design, second, (field) => ({ ...field, label: 'Car plate' }));
    expect(labelled.fields.map((field) => field.label)).toEqual([
      design.fields[0]?.label,
      'Car plate',
      design.fields[2]?.label,
    ]);
    const required = (of: FormDesign): boolean[] => of.parts.map((part) => part.part === 'question' && part.required);
    expect(required(editPart(design, second, { required: true }))).toEqual([false, true, false]);
    expect(required(requireAll(design, new Set(order(design)), true))).toEqual([true, true, true]);
  });

  it('adds sections, pages and words with ids that no field can have, and fields no form asks', () => {
    const withPage = addPart(addPart(formOf(1), 'section').design, 'page').design;
    expect(order(withPage).slice(1)).toEqual(['section-1', 'page-1']);
    expect(addPart(withPage, 'section', 'text_field').key).toBe('section-2');
    const { design, key } = addField(withPage, 'computed');
    expect(design.fields.at(-1)).toMatchObject({ key, source: 'computed' });
    expect(design.parts).toEqual(withPage.parts);
  });
});
