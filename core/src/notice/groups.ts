import { own } from '../own/index.ts';
import type { FieldValue, Values } from '../register/index.ts';
import type { Occasion } from '../telling/index.ts';

/** How many of a group a notice is about. */
export type OfGroup = Extract<Occasion, { is: 'group' }>;

/** What parts requests into groups: one value of a field; null for all of them together. */
export type GroupValue = string | number | boolean | null;

/** A group that a notice is about, by the value that makes it, and how many it has. */
export interface GroupCount {
  readonly value: GroupValue;
  readonly count: number;
}

const isPart = (value: unknown): value is string | number | boolean =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean';

/**
 * The groups that something is in by a field: that of its value, those of each value where it has several, none where it has
 * none; the one of all where no field parts them.
 */
export function groupsIn(values: Values, by: string | null): readonly GroupValue[] {
  if (by === null) return [null];
  const value: FieldValue | undefined = own(values, by);
  if (Array.isArray(value)) return [...new Set((value as readonly unknown[]).filter(isPart))];
  return isPart(value) ? [value] : [];
}

/** Whether a group has become too small, or too large, from one count to the next. */
export const isCrossed = (
  { counts, than }: Pick<OfGroup, 'counts' | 'than'>,
  before: number,
  after: number,
): boolean => (counts === 'fewer' ? before >= than && after < than : before <= than && after > than);

/** How many have to be counted to tell: from then on more make no difference. */
export const enoughFor = ({ than }: Pick<OfGroup, 'than'>): number => than + 2;
