import type { Field, FieldValue } from '../register/index.ts';

/** One answer about a request: what somebody who reads it may know of it. */
export interface JoinedAnswer {
  readonly values: Readonly<Record<string, FieldValue | undefined>>;
}

/** A field whose answers are numbers or amounts, with how many gave one and what they come to on average. */
export interface Mean {
  readonly field: Field;
  readonly count: number;
  readonly mean: FieldValue;
}

const isMoney = (value: FieldValue): value is Extract<FieldValue, { readonly minor: number }> =>
  typeof value === 'object' && 'minor' in value;

/** The mean of numbers to two digits, or of amounts of one currency to its smallest coin; null for anything else. */
function meanOf(values: readonly FieldValue[]): FieldValue | null {
  const [first] = values;
  if (first === undefined) return null;
  const average = (numbers: readonly number[]): number => numbers.reduce((all, each) => all + each, 0) / numbers.length;
  const numbers = values.filter((value) => typeof value === 'number');
  if (numbers.length === values.length) return Math.round(average(numbers) * 100) / 100;
  const amounts = values.filter(isMoney);
  const { currency } = amounts[0] ?? { currency: '' };
  // Amounts of several currencies have no mean.
  if (amounts.length < values.length || amounts.some((amount) => amount.currency !== currency)) return null;
  return { minor: Math.round(average(amounts.map(({ minor }) => minor))), currency };
}

/** The means of some fields over all answers that give them: those of numbers and amounts, in the order of the fields. */
export function meansOf(fields: readonly Field[], answers: readonly JoinedAnswer[]): readonly Mean[] {
  return fields.flatMap((field): Mean[] => {
    if (field.type.kind !== 'number' && field.type.kind !== 'money') return [];
    const values = answers.map(({ values: given }) => given[field.key]).filter((value) => value !== undefined);
    const mean = meanOf(values);
    return mean === null ? [] : [{ field, count: values.length, mean }];
  });
}
