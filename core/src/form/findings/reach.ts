import type { Words } from '@tolvek/words';
import { classTold, leaksOf, Origins } from '../../access/index.ts';
import { partsOf } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { sinksOf } from '../sinks.ts';
import { type Guarded, howRead, nameIn } from './flow.ts';

/** A place of a form that a field’s value gets to, or where something depends on it. */
export interface Reached {
  /** What is made there, as a sentence. */
  readonly says: Words;
  /** Whether the value itself gets there, or only whether something holds. */
  readonly how: 'value' | 'verdict';
  /** The fields and places it goes through, in sentences; that place last. */
  readonly way: readonly Words[];
  /** Who learns of it there although the plan hides it from them; null where nobody does. */
  readonly leaksTo: Words | null;
}

/**
 * Everything that the value of a field reaches in a form, to the end: what rules and formulas make of it, what is routed,
 * offered, asked and refused by it; each with the way there and who learns of it that may not read it. Null where the
 * plan tells too many kinds of viewer apart.
 */
export function reachOf(
  design: FormDesign,
  { plan, form }: Guarded,
  key: string,
  names: ReadonlyMap<string, Words>,
): readonly Reached[] | null {
  const sinks = sinksOf(design);
  const disclosures = (plan.disclosures ?? []).filter((each) => each.form === form);
  const leaks = leaksOf({ fields: design.fields, sinks, plan, disclosures });
  if (leaks === null) return null;
  const origins = new Origins(partsOf(design.fields), sinks, disclosures);
  const bit = origins.bits.of(key);
  return sinks.flatMap((sink): Reached[] => {
    const told = origins.toldAt(sink);
    if ((told.all & bit) === 0n) return [];
    const steps = origins.way(key, sink);
    const last = steps.at(-1)?.field ?? key;
    const leak = leaks.find((each) => each.sink === sink && each.source.key === key);
    const concerned = [key, ...(sink.readers.who === 'field' ? [sink.readers.field] : [])];
    return [
      {
        says: sink.says(nameIn(design, last), howRead(sink, last)),
        how: (told.value & bit) === 0n ? 'verdict' : 'value',
        way: steps.map((step) => step.sink.says(nameIn(design, step.field), howRead(step.sink, step.field))),
        leaksTo: leak ? classTold(leak.to, plan, concerned, (word) => names.get(word) ?? word) : null,
      },
    ];
  });
}
