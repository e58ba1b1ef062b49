import { EMPTY, isBlank, type KindWork, STORED_TEXT, wrong } from './kind.ts';

export const choice: KindWork<'choice'> = {
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const option = type.options.find((each) => each.key === raw);
    if (!option) return wrong('This is not one of the options.', 'Choose one from the list.');
    if (option.retired) return wrong(`“${option.label}” is no longer offered.`, 'Choose another from the list.');
    return { state: 'value', value: option.key };
  },
  show: (value, type) => type.options.find((each) => each.key === value)?.label ?? String(value),
  typed: (value) => String(value),
  toExpression: (value) => String(value),
  fromExpression: (value, type) => (type.options.some((each) => each.key === value) ? String(value) : undefined),
  scopeType: (type) => ({ kind: 'choice', options: type.options }),
  stored: () => STORED_TEXT,
};
