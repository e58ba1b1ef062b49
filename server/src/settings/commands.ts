import { DESK, DESK_KEY, type DeskSettings, PROFILE, PROFILE_KEY, type ProfileDesign } from '@tolvek/core/settings';
import { said } from '@tolvek/words';
import { changeAtOnce, type Done, makeInForce } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import type { Transaction } from '../platform/database.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';

/** @throws Problem 422 with every setting that is wrong, under its place. */
export function refuseUnsound(desk: DeskSettings): void {
  const found = DESK.findings(desk, null);
  if (found.length > 0)
    throw wrongFields(found.map(({ at, message }) => ({ field: at, message, fix: said('settings:correctIt') })));
}

/** Lays the desk for the first time. @throws Problem 422 */
export function layDesk(tx: Transaction, desk: DeskSettings, note: string, done: Done): void {
  refuseUnsound(desk);
  makeInForce(tx, DESK, { key: DESK_KEY, content: desk, note }, done);
}

/**
 * Puts another state of the desk in force, at once. Returns the next version.
 *
 * @throws Problem 404 before it is laid, 412 when somebody was faster, 422 when a setting is wrong.
 */
export function changeDesk(
  tx: Transaction,
  { version, desk, note }: { readonly version: number; readonly desk: DeskSettings; readonly note: string },
  done: Done,
): number {
  const design = designByKey(tx, DESK, DESK_KEY);
  if (!design) throw notFound('page');
  if (design.version !== version) throw staleVersion();
  refuseUnsound(desk);
  return changeAtOnce(tx, design, { version, content: desk, note: note.trim() }, done);
}

/**
 * Puts other fields of profiles in force, at once; version 0 before there were any. What stands in
 * fields that are gone stays. Returns the next version.
 *
 * @throws Problem 412 when somebody was faster, 422 with every field that is wrong, under its key.
 */
export function changeProfile(
  tx: Transaction,
  { version, profile, note }: { readonly version: number; readonly profile: ProfileDesign; readonly note: string },
  done: Done,
): number {
  const found = PROFILE.findings(profile, null);
  if (found.length > 0)
    throw wrongFields(found.map(({ at, message }) => ({ field: at, message, fix: said('settings:correctIt') })));
  const design = designByKey(tx, PROFILE, PROFILE_KEY);
  if ((design?.version ?? 0) !== version) throw staleVersion();
  if (design) return changeAtOnce(tx, design, { version, content: profile, note: note.trim() }, done);
  makeInForce(tx, PROFILE, { key: PROFILE_KEY, content: profile, note: note.trim() }, done);
  return designByKey(tx, PROFILE, PROFILE_KEY)?.version ?? 1;
}
