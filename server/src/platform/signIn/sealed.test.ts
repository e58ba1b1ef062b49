import fc from 'fast-check';
import { expect, it } from 'vitest';
import { seal, unseal } from './sealed.ts';

it('what is sealed is read with the same secret only, and only while it is whole', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), fc.string(), fc.nat(), (text, secret, other, at) => {
      const kept = seal(secret, text);
      expect(unseal(secret, kept)).toBe(text);
      expect(seal(secret, text)).not.toBe(kept);
      if (other !== secret) expect(unseal(other, kept)).toBeNull();
      const bytes = Buffer.from(kept, 'base64');
      const place = at % bytes.length;
      bytes[place] = (bytes[place] ?? 0) ^ 1;
      expect(unseal(secret, bytes.toString('base64'))).toBeNull();
    }),
  );
  for (const broken of ['', 'AA==', 'not sealed']) expect(unseal('secret', broken)).toBeNull();
});
