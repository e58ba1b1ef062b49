import type { ValueChange } from '@tolvek/core/access';
import type { Field } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import type { Effects } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { changesBetween } from './changes.ts';
import { factsOfRequest } from './facts.ts';
import { remember } from './history.ts';
import { keepingOf } from './keeping.ts';
import { isToldToAll } from './protection.ts';
import { requestById } from './queries.ts';
import { requestsPointingTo } from './references.ts';
import { requests } from './tables.ts';

/** Carried values that carry values in turn are followed so far. */
const DEEPEST = 5;

/** The fields that a reference carries along live, when one of them changed. */
const followed = (fields: readonly Field[], reference: string, changed: ReadonlySet<string>): boolean =>
  fields.some(
    (field) => field.source === 'carried' && field.live && field.reference === reference && changed.has(field.field),
  );

/**
 * What is carried along live follows at once: every request that points to a changed one gets the
 * new values, and what is computed from them. No rule of saving refuses it, as nobody changed that
 * request.
 */
export function carryOn(
  tx: Transaction,
  effects: Effects,
  now: number,
  target: { readonly id: string; readonly number: string; readonly changes: readonly ValueChange[] },
  depth = 0,
): void {
  const changed = new Set(target.changes.map((change) => change.field));
  if (changed.size === 0 || depth >= DEEPEST) return;
  for (const { requestId, field } of requestsPointingTo(tx, target.id)) {
    const request = requestById(tx, requestId);
    const register = request && registerById(tx, request.registerId);
    if (!request || !register || !followed(register.fields, field, changed)) continue;
    const kept = keepingOf(tx, request, register)(
      request.values,
      new Set(),
      factsOfRequest(tx, request, register, now),
    );
    const changes = changesBetween(register.fields, request.values, kept.values);
    if (changes.length === 0) continue;
    const isTold = isToldToAll(tx, register, request, changes);
    tx.update(requests)
      .set({ values: kept.values, ...(isTold ? { version: request.version + 1, updatedAt: now } : {}) })
      .where(eq(requests.id, request.id))
      .run();
    remember(tx, now, {
      requestId: request.id,
      actorId: null,
      kind: 'fields',
      words: `Followed a change of ${target.number}`,
      changes,
    });
    if (isTold) effects.changed.add(request.id);
    carryOn(tx, effects, now, { id: request.id, number: request.number, changes }, depth + 1);
  }
}
