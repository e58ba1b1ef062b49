import { type Edition, editionOf, type FormDesign, partKey } from '@tolvek/core/form';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as edits from './editionEdits.ts';

const form = {
  title: 'T',
  fields: [
    { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
    {
      key: 'b',
      label: 'B',
      type: { kind: 'choice', options: ['x', 'y', 'z'].map((key) => ({ key, label: key })) },
      source: 'asked',
    },
    { key: 'c', label: 'C', type: { kind: 'text' }, source: 'asked' },
  ],
  parts: ['a', 'b'].map((field) => ({ part: 'question', field, asks: '', help: '', required: false })),
  rules: [],
} as unknown as FormDesign;
const begun = edits.addEdition('edition-1', 'One')(form);
const one = begun.editions?.[0] as Edition;
const question = (edition: Edition, key: string) => {
  const part = editionOf(form, edition).parts.find((each) => partKey(each) === key);
  return part?.part === 'question' ? part : undefined;
};

describe('editions on their page', () => {
  it('begins for nobody, and is as the form is', () => {
    expect(one.audience).toEqual({ in: { anyOf: [] }, outOf: [] });
    expect(editionOf(form, one).parts).toEqual(form.parts);
    expect(edits.freshEditionId(begun)).toBe('edition-2');
    // A form whose last edition goes is as it was before there was any.
    expect(edits.removeEdition('edition-1')(begun)).toEqual(form);
  });

  it('puts another like it right after it, for nobody yet', () => {
    const changed = edits.changeEdition('edition-1', (edition) => edits.withShown(edition, 'a', 'hide'))(begun);
    const two = edits.likeEdition('edition-1', 'edition-2', 'Two')(changed);
    const three = edits.addEdition('edition-3', 'Three')(two);
    expect(three.editions?.map(({ name }) => name)).toEqual(['One', 'Two', 'Three']);
    expect(three.editions?.[1]).toMatchObject({ differences: [{ does: 'hide', part: 'a' }], audience: one.audience });
    const order = (design: FormDesign) => design.editions?.map(({ id }) => id);
    expect(order(edits.moveEdition('edition-3', -1)(three))).toEqual(['edition-1', 'edition-3', 'edition-2']);
    expect(edits.moveEdition('edition-1', -1)(three)).toEqual(three);
  });

  it('says one thing of each kind about a part, and takes it back to what the form has', () => {
    const locked = edits.withShown(edits.withShown(one, 'a', 'hide'), 'a', 'lock');
    expect(locked.differences).toEqual([{ does: 'lock', part: 'a' }]);
    const required = edits.withRequired(edits.withRequired(one, 'a', 'spare'), 'a', 'require');
    expect(question(required, 'a')?.required).toBe(true);
    const worded = edits.withWords(edits.withWords(one, 'a', 'asks', 'Which?'), 'a', 'help', 'This.');
    expect(question(worded, 'a')).toMatchObject({ asks: 'Which?', help: 'This.' });
    expect(edits.withWords(worded, 'a', 'help', undefined).differences).toMatchObject([{ asks: 'Which?' }]);
    expect(
      edits.withOffers(edits.withOffers(one, 'b', ['x'], ['x', 'y', 'z']), 'b', ['z', 'y', 'x'], ['x', 'y', 'z']),
    ).toEqual(one);
    expect(edits.withPreset(edits.withPreset(one, 'a', null), 'a', undefined)).toEqual(one);
    expect(edits.withPlace(edits.withPlace(one, 'b', null), 'b', undefined)).toEqual(one);
    expect(edits.withOnly(edits.withOnly(one, ['a']), null)).toEqual(one);
  });

  it('has words and questions of its own, with ids that nothing else has', () => {
    const first = edits.addWords(one, form, 'a');
    const second = edits.addWords(first.edition, form, first.key);
    expect(new Set([first.key, second.key]).size).toBe(2);
    const asked = edits.addQuestionOf(second.edition, 'c', null);
    const said = edits.withOwn(asked, 'c', { after: 'b' });
    expect(editionOf(form, said).parts.map(partKey)).toEqual(['a', first.key, second.key, 'b', 'c']);
    const changed = edits.withOwn(said, first.key, { adds: { part: 'instruction', id: first.key, text: 'Mind.' } });
    expect(editionOf(form, changed).parts[1]).toMatchObject({ text: 'Mind.' });
  });

  it('whatever is set and taken back leaves nothing behind', () => {
    const ways: readonly (readonly [(e: Edition) => Edition, (e: Edition) => Edition])[] = [
      [(e) => edits.withShown(e, 'a', 'lock'), (e) => edits.withShown(e, 'a', 'asForm')],
      [(e) => edits.withRequired(e, 'b', 'require'), (e) => edits.withRequired(e, 'b', 'asForm')],
      [(e) => edits.withWords(e, 'a', 'asks', 'W'), (e) => edits.withWords(e, 'a', 'asks', undefined)],
      [(e) => edits.withWords(e, 'b', 'help', 'H'), (e) => edits.withWords(e, 'b', 'help', undefined)],
      [(e) => edits.withPreset(e, 'a', { from: 'fixed', value: 'v' }), (e) => edits.withPreset(e, 'a', undefined)],
      [(e) => edits.withPlace(e, 'b', null), (e) => edits.withPlace(e, 'b', undefined)],
      [(e) => edits.addQuestionOf(e, 'c', 'a'), (e) => edits.withoutDifference(e, 'add c')],
    ];
    const order = fc.shuffledSubarray(ways.map((_, index) => index));
    fc.assert(
      fc.property(order, order, (set, back) => {
        const after = set.reduce((edition, index) => ways[index]?.[0](edition) ?? edition, one);
        expect(after.differences.length).toBe(set.length);
        const all = [...back, ...ways.keys()];
        expect(all.reduce((edition, index) => ways[index]?.[1](edition) ?? edition, after)).toEqual(one);
      }),
    );
  });
});
