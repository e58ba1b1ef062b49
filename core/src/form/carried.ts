import type { CarriedField, FieldValue, RequestFacts } from '../register/index.ts';

/**
 * What a reference brings along for a field, from the request it points to; undefined when that is
 * not known here, or holds nothing there.
 */
export function carriedValue(
  field: CarriedField,
  pointsTo: unknown,
  { references }: Pick<RequestFacts, 'references'>,
): FieldValue | undefined {
  const target = typeof pointsTo === 'string' ? references.find((each) => each.id === pointsTo) : undefined;
  return target && Object.hasOwn(target.values, field.field) ? target.values[field.field] : undefined;
}
