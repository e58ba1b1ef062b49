import { isList } from '../../expression/index.ts';
import type { FieldValue } from '../field.ts';
import { EMPTY, isBlank, type KindWork, STORED_APART, wrong } from './kind.ts';

const keysOf = (value: FieldValue): readonly string[] => (Array.isArray(value) ? (value as readonly string[]) : [String(value)]);

/** Several of a list, kept in the order of the list and each once. */
export const choices: KindWork<'choices'> = {
  listed: true,
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const chosen = raw as readonly unknown[];
    for (const key of chosen) {
      const option = type.options.find((each) => each.key === key);
      if (!option) return wrong('One of these is not among the options.', 'Choose from the list.');
      if (option.retired) return wrong(`“${option.label}” is no longer offered.`, 'Take it out, or choose another.');
    }
    const value = type.options.filter((option) => chosen.includes(option.key)).map((option) => option.key);
    const { least = 0, most = type.options.length } = type;
    if (value.length < least) return wrong(`At least ${least} are needed; you chose ${value.length}.`, `Choose ${least - value.length} more.`);
    if (value.length > most) return wrong(`At most ${most} can be chosen; you chose ${value.length}.`, `Take ${value.length - most} away.`);
    return { state: 'value', value };
  },
  show: (value, type) =>
    keysOf(value)
      .map((key) => type.options.find((each) => each.key === key)?.label ?? key)
      .join(', '),
  typed: keysOf,
  toExpression: keysOf,
  fromExpression: (value, type) => {
    if (!isList(value) || value.length === 0) return undefined;
    const chosen = type.options.filter((option) => value.includes(option.key)).map((option) => option.key);
    return chosen.length > 0 ? chosen : undefined;
  },
  scopeType: (type) => ({ kind: 'list', of: { kind: 'choice', options: type.options } }),
  stored: () => STORED_APART,
};
