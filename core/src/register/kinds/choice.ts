import { said, type Words } from '@tolvek/words';
import type { ChoiceOption, FieldValue } from '../field.ts';
import type { Problem } from '../problem.ts';
import { EMPTY, isBlank, type KindWork, STORED_TEXT, wrong } from './kind.ts';

/** How long something else may be that is said instead of an option. */
export const OTHER_LENGTH = 200;

export const NOT_OFFERED: Words = said('answers:notAnOption');

interface Choosing {
  readonly options: readonly ChoiceOption[];
  readonly other?: boolean;
}

/** What was chosen: an option’s key, words where they may be said, or why it is neither. */
export function chosen(
  { options, other }: Choosing,
  raw: unknown,
): { readonly key: string } | Pick<Problem, 'message' | 'fix'> {
  const option = options.find((each) => each.key === raw);
  if (option)
    return option.retired
      ? { message: said('answers:optionRetired', { label: option.label }), fix: said('answers:chooseFromList') }
      : { key: option.key };
  if (!other || typeof raw !== 'string') return { message: NOT_OFFERED, fix: said('answers:chooseAnOption') };
  const words = raw.replace(/\s+/g, ' ').trim().normalize('NFC');
  // Words that are an option’s are that option: it counts and sorts with the others.
  const meant = options.find((each) => !each.retired && each.label.toLowerCase() === words.toLowerCase());
  if (meant) return { key: meant.key };
  if (words.length > OTHER_LENGTH)
    return {
      message: said('answers:tooLong', { length: words.length, most: OTHER_LENGTH }),
      fix: said('answers:shorten'),
    };
  return { key: words };
}

export const optionLabel = ({ options }: Choosing, value: FieldValue): string =>
  options.find((each) => each.key === value)?.label ?? String(value);

export const choice: KindWork<'choice'> = {
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const found = chosen(type, raw);
    return 'key' in found ? { state: 'value', value: found.key } : wrong(found.message, found.fix);
  },
  show: (value, type) => optionLabel(type, value),
  typed: (value) => String(value),
  toExpression: (value) => String(value),
  fromExpression: (value, type) => (type.options.some((each) => each.key === value) ? String(value) : undefined),
  scopeType: (type) => ({ kind: 'choice', options: type.options, ...(type.other ? { open: true } : {}) }),
  stored: () => STORED_TEXT,
};
