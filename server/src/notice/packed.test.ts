import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { pack, unpack } from './packed.ts';

test('what is packed comes back as it was', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (value) => {
      const plain = JSON.parse(JSON.stringify(value)) as unknown;
      expect(unpack(pack(plain))).toEqual(plain);
    }),
  );
});

test('what was packed by the first words is read for ever', () => {
  const stored = Buffer.from('AcNupqOzroGBgYEhyGzn/NxUUAwUZ5ak4rCnFsWZAA==', 'base64');
  expect(unpack(stored)).toEqual({ letter: { subject: 'AC-00001 · Come on site: we have your request' }, link: null });
  expect(() => unpack(Buffer.from([9, 1, 2]))).toThrow(RangeError);
});
