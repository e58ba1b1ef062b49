import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { piecesOf, subjectOf, withFieldAtEnd, withoutField } from './subject.ts';

describe('what requests are called', () => {
  it('comes apart into words and fields, and together again as it was', () => {
    const piece = fc.oneof(fc.string({ maxLength: 6 }), fc.constantFrom('{visitor}', '{reason}', '{', '}', '{}', ', '));
    let fields = 0;
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
        const subject = pieces.join('');
        const { rest } = piecesOf(subject);
        expect(subjectOf(piecesOf(subject))).toBe(subject);
        expect(rest.map(({ field }) => field)).toEqual([...subject.matchAll(/\{(\w+)\}/g)].map(([, key]) => key));
        fields += rest.length;
      }),
    );
    expect(fields).toBeGreaterThan(50);
  });

  it.each([
    ['', '{a}'],
    ['{b}', '{b}, {a}'],
    ['For ', 'For {a}'],
  ])('gets a field at the end of “%s”', (before, after) => expect(withFieldAtEnd(before, 'a')).toBe(after));

  it.each([
    ['{a}, {b}', 0, '{b}'],
    ['{a}, {b}', 1, '{a}'],
    ['{a}, {b} (x)', 1, '{a} (x)'],
    ['Trip of {a} to {b}', 0, 'Trip of  to {b}'],
    ['{a}, {b}, {c}', 1, '{a}, {c}'],
    ['{a}', 0, ''],
    ['{a}', 3, '{a}'],
  ])('lets a field of “%s” go', (before, at, after) => expect(withoutField(before, at)).toBe(after));
});
