import type { Field } from '../register/index.ts';
import { Readership } from './flow.ts';
import { Origins } from './origins.ts';
import type { AccessPlan, Disclosure } from './plan.ts';
import type { Sink } from './sinks.ts';

/** What protects the fields of a request: the plan in force, and what each field is made from. */
export interface Protection {
  readonly fields: readonly Field[];
  readonly plan: AccessPlan;
  /** The fields that one is made from, to the end. */
  readonly madeFrom: (key: string) => readonly Field[];
  /** Whether a field is brought along from where it was closed since: nobody reads it here. */
  readonly isClosedElsewhere: (key: string) => boolean;
  /**
   * The keys of the fields that a place tells of although somebody who is told may not read them:
   * what is said there is withheld from whoever may not.
   */
  readonly tells: (sink: Sink) => readonly string[];
}

/**
 * Puts a protection together. `sinks`: where fields are made from fields; the disclosures are those
 * of the form these belong to. `closed`: fields that are brought along from where they are closed.
 */
export function protect(
  fields: readonly Field[],
  plan: AccessPlan,
  sinks: readonly Sink[],
  disclosures: readonly Disclosure[] = [],
  closed: readonly string[] = [],
): Protection {
  const origins = new Origins(fields, sinks, disclosures);
  const known = new Map(fields.map((field) => [field.key, field]));
  const made = new Map<string, readonly Field[]>();
  const madeFrom = (key: string): readonly Field[] => {
    let from = made.get(key);
    if (!from) {
      from = origins.of(key).flatMap((each) => known.get(each) ?? []);
      made.set(key, from);
    }
    return from;
  };
  let readers: Readership | undefined;
  const tells = (sink: Sink): readonly string[] => {
    readers ??= new Readership(fields, plan);
    return origins.bits.keysIn(readers.tooMuch(sink, origins));
  };
  return { fields, plan, madeFrom, isClosedElsewhere: (key) => closed.includes(key), tells };
}
