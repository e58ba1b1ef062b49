import { type Field, partsOf } from '../register/index.ts';
import { Readership } from './flow.ts';
import { Origins } from './origins.ts';
import type { AccessPlan, Disclosure } from './plan.ts';
import type { Protection } from './protection.ts';
import type { Sink } from './sinks.ts';

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
  const parts = partsOf(fields);
  const origins = new Origins(parts, sinks, disclosures);
  const known = new Map(parts.map((field) => [field.key, field]));
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
