import type { OpenStretch } from './calendar.ts';

/** What of a stretch is within another; nothing or one. */
export function within({ from, to }: OpenStretch, other: OpenStretch): readonly OpenStretch[] {
  const part = { from: Math.max(from, other.from), to: Math.min(to, other.to) };
  return part.to > part.from ? [part] : [];
}

/** What of a stretch is not within another that has some length: nothing, one or two. */
export const without = (stretch: OpenStretch, other: OpenStretch): readonly OpenStretch[] => [
  ...within(stretch, { from: Number.NEGATIVE_INFINITY, to: other.from }),
  ...within(stretch, { from: other.to, to: Number.POSITIVE_INFINITY }),
];

/** What of some stretches is in none of others. */
export const withoutAll = (some: readonly OpenStretch[], others: readonly OpenStretch[]): readonly OpenStretch[] =>
  others.reduce<readonly OpenStretch[]>((left, other) => left.flatMap((part) => without(part, other)), some);

/** All that some stretches cover, in order; those that touch are one. */
export function union(stretches: readonly OpenStretch[]): readonly OpenStretch[] {
  const all: { from: number; to: number }[] = [];
  for (const { from, to } of stretches.toSorted((a, b) => a.from - b.from)) {
    const last = all.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else all.push({ from, to });
  }
  return all;
}
