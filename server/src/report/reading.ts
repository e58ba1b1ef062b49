import type { Viewer } from '@tolvek/core/people';
import { isFact, type ViewDesign, type ViewShape } from '@tolvek/core/view';
import type { Reader } from '../platform/database.ts';
import { naming } from '../view/nameable.ts';
import { beganWith } from '../view/viewed.ts';
import { type Looking, lookingAt } from '../view/workedBy.ts';

/** Whoever reads a report, at a moment, with what views can name for them: found once for all its parts. */
export interface Reading {
  readonly db: Reader;
  readonly viewer: Viewer;
  readonly now: number;
  readonly looking: Looking;
  readonly naming: ReturnType<typeof naming>;
}

export function readingOf(db: Reader, viewer: Viewer, now: number): Reading {
  const looking = lookingAt(db, viewer);
  return { db, viewer, now, looking, naming: naming(looking) };
}

/**
 * A look through a view in a shape, without the columns that whoever looks may not name. `groups`: what its rows are put
 * together by; `says`: the view whose sentence it is.
 */
export function lookAt(
  { now, naming: named }: Pick<Reading, 'now' | 'naming'>,
  view: ViewDesign,
  shape: ViewShape,
  { groups = view.groups, says = view }: { readonly groups?: readonly string[]; readonly says?: ViewDesign } = {},
) {
  const given = named(view.of);
  const isThere = (of: string): boolean => isFact(of) || given.fields.some(({ key }) => key === of);
  const shown = shape.is === 'table' ? view.columns.filter(({ of }) => isThere(of)) : [];
  const columns = shown.length > 0 ? shown : [{ of: 'request.number' }];
  const seen = { ...view, columns, marks: [], groups, shapes: [shape] };
  return beganWith(given, seen, now, { ...says, columns, marks: [] });
}
