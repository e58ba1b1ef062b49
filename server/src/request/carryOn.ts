import type { ValueChange } from '@tolvek/core/access';
import type { Field } from '@tolvek/core/register';
import type { Work } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { changesBetween } from './changes.ts';
import { factsOfRequest } from './facts.ts';
import { fieldsOf } from './fields.ts';
import { keepingOf } from './keeping.ts';
import { type RequestRow, requestById } from './queries.ts';
import { requestsPointingTo } from './references.ts';

/** The fields that a reference carries along live, when one of them changed. */
const followed = (fields: readonly Field[], reference: string, changed: ReadonlySet<string>): boolean =>
  fields.some(
    (field) => field.source === 'carried' && field.live && field.reference === reference && changed.has(field.field),
  );

/**
 * What is carried along live follows at once: every request that points to a changed one, with the
 * new values and what is computed from them. No rule of saving refuses it, as nobody changed that
 * request. Each is looked at when its turn comes, after those before it have changed.
 */
export function* carriedFrom(
  { tx, now }: Work,
  targetId: string,
  changes: readonly ValueChange[],
): Generator<{ readonly request: RequestRow; readonly changes: readonly ValueChange[] }> {
  const changed = new Set(changes.map((change) => change.field));
  if (changed.size === 0) return;
  for (const { requestId, field } of requestsPointingTo(tx, targetId)) {
    const request = requestById(tx, requestId);
    const register = request && registerById(tx, request.registerId);
    const fields = request && register ? fieldsOf(tx, register, request) : [];
    if (!request || !register || !followed(fields, field, changed)) continue;
    const facts = factsOfRequest(tx, request, register, now);
    const kept = keepingOf(tx, request, register)(request.values, new Set(), facts);
    yield { request, changes: changesBetween(fields, request.values, kept.values) };
  }
}
