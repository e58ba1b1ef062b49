import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  asKind,
  type Field,
  fitsAsHeld,
  KIND_CHANGES,
  type KindName,
  mayBecome,
  NOTHING_AROUND,
  readAnswer,
} from './index.ts';

const field = (kind: KindName, most?: number): Field =>
  ({ key: 'x', label: 'X', type: { kind, ...(most === undefined ? {} : { most }) }, source: 'asked' }) as Field;
const PAIRS = Object.entries(KIND_CHANGES).flatMap(([from, to]) =>
  (to ?? []).map((each) => [from as KindName, each] as const),
);

describe('a kind that becomes another', () => {
  it('keeps what is held as it is, wherever the new kind takes it', () => {
    const taken = new Map<string, number>();
    const answer = fc.oneof(
      fc.emailAddress(),
      fc.webUrl(),
      fc.constant('https://corrin.example/tides'),
      fc.constantFrom('+49 431 600 12 34', '0049-431-6001234', 'Words', 'two\nlines'),
      fc.string(),
    );
    fc.assert(
      fc.property(fc.constantFrom(...PAIRS), answer, ([from, to], raw) => {
        const before = readAnswer(field(from), raw, NOTHING_AROUND);
        if (before.state !== 'value') return;
        const held = String(before.value);
        const becomes = asKind(field(from), to);
        if (!fitsAsHeld(becomes, held)) return;
        expect(readAnswer(becomes, held, NOTHING_AROUND)).toEqual({ state: 'value', value: held });
        taken.set(`${from} → ${to}`, (taken.get(`${from} → ${to}`) ?? 0) + 1);
      }),
      { numRuns: 3_000 },
    );
    console.log('answers that stay as they are', Object.fromEntries(taken));
    expect([...taken.keys()].sort()).toEqual(PAIRS.map(([from, to]) => `${from} → ${to}`).sort());
  });

  it('has its limit of signs where it has one, and is nothing but words', () => {
    expect(asKind(field('text', 12), 'long-text').type).toEqual({ kind: 'long-text', most: 12 });
    expect(asKind(field('text', 12), 'email').type).toEqual({ kind: 'email' });
    expect(asKind(field('text'), 'number').type).toEqual({ kind: 'text' });
    expect(mayBecome('text', 'number')).toBe(false);
    expect(mayBecome('text', 'link')).toBe(true);
    // Links are written in one way: what is not written so does not fit as it is held.
    expect(fitsAsHeld(field('link'), 'http://corrin.example')).toBe(false);
    expect(fitsAsHeld(field('link'), 'http://corrin.example/')).toBe(true);
  });
});
