import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inOrderOf } from './inOrderOf.ts';

const keys = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g'));

describe('a list that is held still', () => {
  it('moves nothing that stood there, and has what came since at its end', () => {
    const seen = { gone: 0, came: 0 };
    fc.assert(
      fc.property(keys, keys, (held, now) => {
        const shown = inOrderOf(held, now, (key) => key);
        const stayed = held.filter((key) => now.includes(key));
        expect(shown.slice(0, stayed.length)).toEqual(stayed);
        expect(shown.slice(stayed.length)).toEqual(now.filter((key) => !held.includes(key)));
        if (stayed.length < held.length) seen.gone += 1;
        if (stayed.length < now.length) seen.came += 1;
      }),
    );
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(10);
  });
});
