import { parseExpression } from '@tolvek/core/expression';
import type { Field } from '@tolvek/core/register';

/** A condition of one field, one test and one value: what a row of the builder can show. Anything else stays text. */
export interface PlainCondition {
  readonly field: string;
  readonly test: '=' | '!=' | '<' | '<=' | '>' | '>=';
  /** As FEEL text: `true`, `"corrin"`, `500`, `date("2026-11-23")`. */
  readonly value: string;
}

export function readCondition(text: string, fields: readonly Field[]): PlainCondition | null {
  const parsed = parseExpression(text);
  if (!parsed.ok || parsed.value.kind !== 'compare') return null;
  const { left, op, right } = parsed.value;
  if (left.kind !== 'name' || !fields.some((field) => field.key === left.name)) return null;
  if (right.kind !== 'literal' && right.kind !== 'moment') return null;
  return { field: left.name, test: op, value: text.slice(right.from, right.to) };
}

export const writeCondition = ({ field, test, value }: PlainCondition): string => `${field} ${test} ${value}`;

/** A first value that fits a field. */
export function firstValue(field: Field): string {
  switch (field.type.kind) {
    case 'yes-no':
      return 'true';
    case 'choice':
      return JSON.stringify(field.type.options[0]?.key ?? '');
    case 'number':
    case 'money':
      return '0';
    case 'date':
      return 'date("2026-12-01")';
    default:
      return '""';
  }
}

const WORDS = { '=': 'is', '!=': 'is not', '<': 'is below', '<=': 'is at most', '>': 'is above', '>=': 'is at least' } as const;
const DATE_WORDS = { '=': 'is', '!=': 'is not', '<': 'is before', '<=': 'is by', '>': 'is after', '>=': 'is from' } as const;

/** The tests that make sense for a field, in words. */
export function testsFor(field: Field): readonly { readonly test: PlainCondition['test']; readonly words: string }[] {
  const ordered = ['number', 'money', 'date'].includes(field.type.kind);
  const words = field.type.kind === 'date' ? DATE_WORDS : WORDS;
  return (Object.keys(words) as PlainCondition['test'][]).filter((test) => ordered || test === '=' || test === '!=').map((test) => ({ test, words: words[test] }));
}
