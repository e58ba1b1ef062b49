import type { DesignKind, Reference } from '../design/index.ts';
import { compareDesigns } from './compare.ts';
import type { FormDesign } from './design.ts';
import { findingsOf, type Surroundings } from './findings/findings.ts';
import { mergeDesigns } from './merge.ts';
import { isReferring } from './offers.ts';

/** What a form names of other designs, by the fields that do. */
export function referencesOf({ fields }: Pick<FormDesign, 'fields'>): readonly Reference[] {
  return fields.flatMap(({ label, type }): readonly Reference[] => {
    if (isReferring(type)) return [{ kind: 'register', key: type.register, at: label }];
    const own = type.kind === 'term' || type.kind === 'terms' ? [type.vocabulary] : [];
    const columns =
      type.kind === 'line-items'
        ? type.columns.flatMap((column) => (column.type.kind === 'term' ? [column.type.vocabulary] : []))
        : [];
    return [...new Set([...own, ...columns])].map((key) => ({ kind: 'vocabulary', key, at: label }));
  });
}

/** Forms as designs. */
export const FORM: DesignKind<FormDesign, Surroundings> = {
  kind: 'form',
  titleOf: (form) => form.title,
  compare: compareDesigns,
  merge: mergeDesigns,
  findings: findingsOf,
  refersTo: referencesOf,
};
