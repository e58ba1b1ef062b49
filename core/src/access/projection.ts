import { belongs } from '../people/index.ts';
import { columnsOf, type Field, type FieldValue, type ItemRow, type Values, withCells } from '../register/index.ts';
import { type Circumstance, hangs, levelIn, type RequestMoment } from './circumstance.ts';
import type { AccessLevel } from './plan.ts';
import type { Protection } from './protection.ts';
import { readersMeaning } from './relation.ts';
import { ACTIVITY, prepareAccess, type Situation } from './situation.ts';

const CODES: Readonly<Record<AccessLevel | 'none', number>> = { none: 0, hidden: 1, read: 2, write: 3 };

/** Requests of which the plan says more than so many different things are looked at anew. */
const REMEMBERED = 4_096;

/**
 * The values of requests as somebody may read them, and nothing besides: made ready once for all requests that one
 * protection protects and that somebody stands alike to. What hangs on no request is settled beforehand; of a request
 * only the rules are asked that hang on it.
 *
 * @example
 * const project = projectionFor(protection, { viewer, relation, purpose: 'list' });
 * project(request.values, momentOf(request)); // { visitor: 'Elke Marlowe' }
 */
export function projectionFor(
  protection: Protection,
  situation: Omit<Situation, 'at'>,
): (values: Values, at: RequestMoment) => Values {
  const readingOf = prepareAccess(protection);
  const activity = ACTIVITY[situation.purpose];
  const hanging = protection.plan.rules.filter(
    (rule) => hangs(rule) && belongs(rule.audience, situation.viewer, situation.relation),
  );
  const { viewer, relation } = situation;
  // Whoever works on them reads them anyway.
  const readers = relation.isDesk ? [] : readersMeaning(protection.plan.readers ?? [], viewer);
  const known = new Map<number | string, Projecting>();
  const projectingAt = (at: RequestMoment): Projecting => {
    const circumstance: Circumstance = { activity, stage: at.stage, day: at.day, holds: at.holds };
    let code: number | string = 0;
    // As a number, as long as it is exact.
    if (hanging.length <= 26)
      for (const rule of hanging) code = (code as number) * 4 + CODES[levelIn(rule, circumstance) ?? 'none'];
    else code = hanging.map((rule) => CODES[levelIn(rule, circumstance) ?? 'none']).join('');
    if (readers.length > 0) code = `${code} ${readers.some(({ when }) => at.holds(when))}`;
    let found = known.get(code);
    if (found === undefined) {
      const reading = readingOf({ ...situation, at });
      const { readable } = reading;
      found = withLines(copying(protection.fields.flatMap(({ key }: Field) => (readable.has(key) ? [key] : []))), [
        ...reading.partly.values(),
      ]);
      if (known.size < REMEMBERED) known.set(code, found);
    }
    return found;
  };
  return (values, at) => projectingAt(at)(values);
}

type Projecting = (values: Values) => Values;

/** Besides, lines of which some columns may be read. */
function withLines(copy: Projecting, partly: readonly Field[]): Projecting {
  if (partly.length === 0) return copy;
  const lines = partly.map((field) => ({ field, keys: new Set(columnsOf(field).map(({ key }) => key)) }));
  return (values) => {
    const copied: Record<string, FieldValue> = { ...copy(values) };
    for (const { field, keys } of lines) {
      const rows = values[field.key];
      if (rows !== undefined) copied[field.key] = withCells(field, rows as readonly ItemRow[], keys);
    }
    return copied;
  };
}

/**
 * Copies these values of a record, and no others; what is not there is undefined. Written out field by field where the
 * platform allows it: an object that is made whole is made many times as fast as one that grows.
 */
function copying(keys: readonly string[]): Projecting {
  try {
    const each = keys.map((key) => `${JSON.stringify(key)}: values[${JSON.stringify(key)}]`);
    return new Function('values', `return { ${each.join(', ')} };`) as Projecting;
  } catch {
    // Where a page may not make code, as its rules say.
    return (values) =>
      Object.fromEntries(keys.flatMap((key) => (values[key] === undefined ? [] : [[key, values[key]]])));
  }
}
