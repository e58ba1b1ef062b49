import { type Field, isFilled } from '../register/index.ts';
import { Origins } from './origins.ts';
import type { AccessPlan, Disclosure } from './plan.ts';
import type { Sink } from './sinks.ts';

/** What protects the fields of a request: the plan in force, and what each field is made from. */
export interface Protection {
  readonly fields: readonly Field[];
  readonly plan: AccessPlan;
  /** The fields that one is made from, to the end. */
  readonly madeFrom: (key: string) => readonly Field[];
}

/**
 * Puts a protection together. `sinks`: where fields are made from fields; the disclosures are those
 * of the form these belong to.
 */
export function protect(
  fields: readonly Field[],
  plan: AccessPlan,
  sinks: readonly Sink[],
  disclosures: readonly Disclosure[] = [],
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
  return { fields, plan, madeFrom };
}

/** How a field comes from another, as the beginning of a sentence. */
export const comesFrom = (field: Field): string =>
  isFilled(field) ? 'It is made from' : field.source === 'carried' ? 'It is brought along by' : 'It is computed from';
