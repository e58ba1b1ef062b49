import type { ValueChange } from '@tolvek/core/access';
import { namesIn } from '@tolvek/core/expression';
import { type AskedForm, prepareKeeping } from '@tolvek/core/form';
import type { Field, RawAnswers } from '@tolvek/core/register';
import type { Happening } from '@tolvek/core/request';
import type { Work } from '../platform/work.ts';
import type { RegisterRow } from '../register/queries.ts';
import { changesBetween, withChanges } from './changes.ts';
import { factsOfRequest } from './facts.ts';
import { fieldsOf } from './fields.ts';
import type { ShownRow } from './queries.ts';

/** Forms without rules, by the fields they keep: made ready once for each list of fields. */
const computing = new WeakMap<readonly Field[], ReturnType<typeof prepareKeeping>>();

/** Keeps values with what is computed from them, and nobody’s rules. */
export function computedBy(fields: readonly Field[]): ReturnType<typeof prepareKeeping> {
  const nothing: Pick<AskedForm, 'parts' | 'rules'> = { parts: [], rules: [] };
  const found = computing.get(fields) ?? prepareKeeping({ fields, ...nothing });
  computing.set(fields, found);
  return found;
}

const AT_REST: ReadonlySet<string> = new Set(['changed', 'followed', 'day', 'recomputed']);

/**
 * What changes, with what is computed from it. What is changed by hand, carried along or computed on a
 * new day has come to rest already; nobody’s rules run for the rest.
 */
export function settledChanges(
  { tx, now }: Work,
  request: ShownRow,
  register: RegisterRow,
  change: Extract<Happening, { kind: 'values' }>,
): readonly ValueChange[] {
  if (AT_REST.has(change.why)) return change.changes;
  const fields = fieldsOf(tx, register, request);
  if (!followsFrom(fields, new Set(change.changes.map(({ field }) => field)))) return change.changes;
  const values = withChanges(request.values, change.changes);
  const facts = factsOfRequest(tx, request, register, now, { changes: values as unknown as RawAnswers });
  return changesBetween(fields, request.values, computedBy(fields)(values, new Set(), facts).values);
}

/** Tells whether something is computed from fields, or brought along by them. */
const followsFrom = (fields: readonly Field[], changed: ReadonlySet<string>): boolean =>
  fields.some((field) =>
    field.source === 'computed'
      ? namesIn(field.formula).some((name) => changed.has(name))
      : field.source === 'carried' && changed.has(field.reference),
  );
