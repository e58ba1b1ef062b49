import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byStage, underHeadings } from './home.ts';

const form = (title: string, topic = '') => ({ title, topic });
const heads = (found: readonly { readonly head: string }[]) => found.map(({ head }) => head);

describe('forms under their headings', () => {
  it('are by the alphabet of who reads, and those under none come last, in the order they had', () => {
    const forms = [form('Kit'), form('Boat', 'Ärger'), form('Visit', 'Zoo'), form('Dive', 'Boote'), form('Lab')];
    const found = underHeadings(forms, 'de');
    expect(heads(found)).toEqual(['Ärger', 'Boote', 'Zoo', '']);
    expect(found.at(-1)?.items.map(({ title }) => title)).toEqual(['Kit', 'Lab']);
    expect(heads(underHeadings([form('Kit'), form('Lab')], 'en'))).toEqual(['']);
    expect(underHeadings([], 'en')).toEqual([]);
  });

  it('are all there, each once, whatever they stand under', () => {
    const anyForms = fc.array(fc.record({ title: fc.string(), topic: fc.constantFrom('', 'A', 'B', 'b', 'Ä') }));
    fc.assert(
      fc.property(anyForms, (forms) => {
        const found = underHeadings(forms, 'de').flatMap(({ items }) => items);
        expect(new Set(found)).toEqual(new Set(forms));
        expect(found).toHaveLength(forms.length);
      }),
    );
  });
});

describe('requests by where they stand', () => {
  const at = (...stages: readonly string[]) => stages.map((stage, n) => ({ stage, n }));

  it('stand under their stages once there are many, at more than one', () => {
    expect(byStage(at('In hand', 'Being decided'))).toEqual([{ head: '', items: at('In hand', 'Being decided') }]);
    expect(heads(byStage(at('a', 'a', 'a', 'a', 'a', 'a', 'a')))).toEqual(['']);
    const many = at('b', 'a', 'b', 'a', 'c', 'b');
    expect(byStage(many).map(({ head, items }) => [head, items.map(({ n }) => n)])).toEqual([
      ['b', [0, 2, 5]],
      ['a', [1, 3]],
      ['c', [4]],
    ]);
  });
});
