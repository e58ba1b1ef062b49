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

/** As they were packed by the first words, and what they say. */
const STORED: readonly (readonly [packed: string, says: object])[] = [
  [
    'AcNupqOzroGBgYEhyGzn/NxUUAwUZ5ak4rCnFsWZAA==',
    { letter: { subject: 'AC-00001 · Come on site: we have your request' }, link: null },
  ],
  [
    'AcNupqOzroGBgYERFhM8c4pTdTCMwV1+uBaXJJakFuspeOIqfkAp3dgAnGiREqweclljrJCBs7jBViKE5OcmFmMrFrAm//DEEnDSQckDNE/Rvvl5OFIRUugjxT4A',
    {
      letter: {
        subject: 'AC-00002',
        greeting: 'Dear Ilse,',
        paragraphs: [
          'A new request has reached Estates. It should be finished by Mon 30 Nov 2026, 17:30.',
          'There is 3 h of working time left.',
          'was not approved by Tomas. The reason given:',
        ],
        facts: [{ label: 'Water', shown: 'Yes' }],
        action: { label: 'Read and decide', note: 'The link is for you alone, works once, and ends on Mon' },
      },
      path: '/floor/all/AC-00002',
      link: null,
    },
  ],
];

test('what was packed by the first words is read for ever', () => {
  for (const [packed, says] of STORED) expect(unpack(Buffer.from(packed, 'base64'))).toEqual(says);
  expect(() => unpack(Buffer.from([9, 1, 2]))).toThrow(RangeError);
});
