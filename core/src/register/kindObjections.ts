import { type Said, said, type Words } from '@tolvek/words';
import type { ChoiceOption, Kind } from './field.ts';

/** What is wrong with how a kind is set: its options, its scale, its limits. */
export interface KindObjection {
  readonly message: Said;
  /** `no-options`: there is nothing to choose. */
  readonly why: 'no-options' | 'set-wrong';
}

/** What is wrong with the options of a field, or of a column of line items. */
export function optionObjections(label: Words, options: readonly ChoiceOption[]): readonly KindObjection[] {
  const objections: KindObjection[] = [];
  if (options.every((option) => option.retired))
    objections.push({ message: said('findings:noOptions', { label }), why: 'no-options' });
  if (options.some((option) => option.label.trim() === ''))
    objections.push({ message: said('findings:optionNoLabel', { label }), why: 'set-wrong' });
  return objections;
}

/** What is wrong with the kind of a field by itself. */
export function kindObjections(label: Words, type: Kind): readonly KindObjection[] {
  const objection = (message: Said): KindObjection => ({ message, why: 'set-wrong' });
  switch (type.kind) {
    case 'choice':
    case 'choices':
      return optionObjections(label, type.options);
    case 'level':
      return [
        ...(type.levels.filter((level) => !level.retired).length < 2
          ? [objection(said('findings:fewLevels', { label }))]
          : []),
        ...(type.levels.some((level, index) => index > 0 && level.worth <= (type.levels[index - 1]?.worth ?? 0))
          ? [objection(said('findings:levelsNotRising', { label }))]
          : []),
      ];
    case 'number':
    case 'money':
      return type.least !== undefined && type.most !== undefined && type.least > type.most
        ? [objection(said('findings:lowestAboveHighest', { label }))]
        : [];
    default:
      return [];
  }
}
