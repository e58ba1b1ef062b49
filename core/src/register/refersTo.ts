import type { Reference } from '../design/index.ts';
import type { Field } from './field.ts';

/** What fields name of other designs: vocabularies they take terms from, registers they point to. */
export const designsNamed = (fields: readonly Field[]): readonly Reference[] =>
  fields.flatMap(({ label, type }): readonly Reference[] => {
    if (type.kind === 'reference' || type.kind === 'references')
      return [{ kind: 'register', key: type.register, at: label }];
    const own = type.kind === 'term' || type.kind === 'terms' ? [type.vocabulary] : [];
    const columns =
      type.kind === 'line-items'
        ? type.columns.flatMap((column) => (column.type.kind === 'term' ? [column.type.vocabulary] : []))
        : [];
    return [...new Set([...own, ...columns])].map((key) => ({ kind: 'vocabulary', key, at: label }));
  });
