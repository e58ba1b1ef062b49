import { expect, it } from 'vitest';
import { paceIn } from './pace.ts';

const pace = (is: number, usually: number) => ({ is, usually, did: Math.round(is * usually) });

it('is a word for how fast a team has been, by all that it took up and finished', () => {
  expect(paceIn({ takes: pace(1, 10), finishes: pace(1, 10) })).toBe('asUsual');
  expect(paceIn({ takes: pace(0.3, 10), finishes: pace(0.4, 10) })).toBe('muchSlower');
  expect(paceIn({ takes: pace(1, 10), finishes: pace(0.5, 10) })).toBe('slower');
  expect(paceIn({ takes: pace(1.5, 10), finishes: pace(1.4, 10) })).toBe('faster');
  // What hardly ever happens says little.
  expect(paceIn({ takes: pace(0.2, 1), finishes: pace(1, 30) })).toBe('asUsual');
  expect(paceIn({ takes: pace(0.2, 0), finishes: pace(0.2, 0) })).toBe('asUsual');
});
