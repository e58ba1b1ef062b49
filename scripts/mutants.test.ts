import { existsSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

interface Mutant {
  readonly breaks: string;
  readonly file: string;
  readonly from: string;
  readonly to: string;
  readonly test: string;
}

it('every promise that is broken by hand still stands where it is broken, and has its tests', () => {
  const mutants = JSON.parse(readFileSync('scripts/mutants.json', 'utf8')) as readonly Mutant[];
  const places = mutants.map(({ breaks, file, from }) => ({
    breaks,
    times: readFileSync(file, 'utf8').split(from).length - 1,
  }));
  expect(places.filter(({ times }) => times !== 1)).toEqual([]);
  const tests = mutants.flatMap(({ test }) => test.split(' '));
  expect(tests.filter((path) => !existsSync(path))).toEqual([]);
  expect(new Set(mutants.map(({ breaks }) => breaks)).size).toBe(mutants.length);
  expect(mutants.length).toBeGreaterThan(80);
});
