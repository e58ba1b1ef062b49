import type { BuiltIn } from './builtIn.ts';
import { LIST_FUNCTIONS } from './lists.ts';
import { NUMBER_FUNCTIONS } from './numbers.ts';
import { OWN_FUNCTIONS } from './own.ts';
import { RANGE_FUNCTIONS } from './ranges.ts';
import { TEXT_FUNCTIONS } from './text.ts';
import { TIME_FUNCTIONS } from './times.ts';

/**
 * Every function that expressions may call, by name: those of the standard that Tolvek carries, and
 * its own.
 */
export const BUILT_INS: ReadonlyMap<string, BuiltIn> = new Map(
  [
    ...TEXT_FUNCTIONS,
    ...NUMBER_FUNCTIONS,
    ...LIST_FUNCTIONS,
    ...TIME_FUNCTIONS,
    ...RANGE_FUNCTIONS,
    ...OWN_FUNCTIONS,
  ].map((entry) => [entry.name, entry]),
);

export type { BuiltIn, Group, Param } from './builtIn.ts';
