import { levelsAsking, momentArriving, speaksToAskers } from '@tolvek/core/access';
import { askedBy, type Unasked } from '@tolvek/core/form';
import { type PreparedForm, prepareIntake } from '@tolvek/core/intake';
import { STRANGER } from '@tolvek/core/people';
import { LRUCache } from 'lru-cache';
import { formById, type ReleaseRow, registerOfForm, releaseById } from '../form/queries.ts';
import { personById, viewerIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { firstStage, type RegisterRow } from '../register/queries.ts';
import { factsFor } from '../request/facts.ts';

/** Who asks, by which kind of door. */
export interface Asking {
  readonly kind: 'staff' | 'outside';
  /** Null for who is not known; at an outside door nobody is before their address is. */
  readonly id: string | null;
}

/** A release as it is asked of somebody. */
export interface AskedRelease extends PreparedForm {
  readonly release: ReleaseRow;
}

/** Forms as they are asked of somebody, by what is kept from them. */
const prepared = new LRUCache<string, AskedRelease>({ max: 200 });

/**
 * The form of a release as it is asked of somebody: without what the access plan of its register keeps from them while
 * they ask. The same for everybody from whom the same is kept.
 */
export function askedAt(db: Reader, release: ReleaseRow, asking: Asking, now: number): AskedRelease {
  const whole = releaseById(db, release.id);
  const register = registerOfForm(db, release.formId);
  const unasked = unaskedBy(db, register, release, asking, now);
  if (unasked.size === 0) return whole;
  const name = JSON.stringify([release.id, [...unasked].toSorted()]);
  let found = prepared.get(name);
  if (!found) {
    const design = askedBy(release.design, unasked);
    prepared.set(name, (found = { release: { ...release, design }, ...prepareIntake(design) }));
  }
  return found;
}

function unaskedBy(db: Reader, register: RegisterRow, release: ReleaseRow, { kind, id }: Asking, now: number): Unasked {
  // Most plans say nothing while somebody asks: nobody is looked up then.
  if (!speaksToAskers(register.access)) return new Map();
  const person = kind === 'staff' && id !== null ? personById(db, id) : undefined;
  const viewer = person ? viewerIn(db, person) : STRANGER;
  const { design } = release;
  const facts = () => factsFor(db, { door: { kind }, design, requester: null, now });
  const at = momentArriving(
    register.fields,
    { form: formById(db, release.formId)?.key ?? '', stage: firstStage(register).key, day: todayAt(db, now) },
    facts,
  );
  return levelsAsking(design.fields, register.access, viewer, at);
}
