import { said } from '@tolvek/words';
import { isList } from '../../expression/index.ts';
import type { FieldValue } from '../field.ts';
import { chosen, NOT_OFFERED, optionLabel } from './choice.ts';
import { EMPTY, isBlank, type KindWork, STORED_APART, wrong } from './kind.ts';

const keysOf = (value: FieldValue): readonly string[] =>
  Array.isArray(value) ? (value as readonly string[]) : [String(value)];

/** How many things besides the options may be said. */
const MOST_OTHERS = 5;

/** Several of a list, kept in the order of the list and each once. */
export const choices: KindWork<'choices'> = {
  listed: true,
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const keys = new Set<string>();
    for (const each of (raw as readonly unknown[]).filter((said) => said !== '')) {
      const found = chosen(type, each);
      if (!('key' in found))
        return wrong(
          found.message === NOT_OFFERED ? said('answers:oneNotAnOption') : found.message,
          said('answers:removeOrChoose'),
        );
      if (found.key !== '') keys.add(found.key);
    }
    if (keys.size === 0) return EMPTY;
    const listed = type.options.filter((option) => keys.has(option.key)).map((option) => option.key);
    const value = [...listed, ...[...keys].filter((key) => !listed.includes(key))];
    const { least = 0, most = type.options.length + (type.other ? MOST_OTHERS : 0) } = type;
    if (value.length < least)
      return wrong(
        said('answers:tooFewChosen', { least, chosen: value.length }),
        said('answers:chooseMore', { n: least - value.length }),
      );
    if (value.length > most)
      return wrong(
        said('answers:tooManyChosen', { most, chosen: value.length }),
        said('answers:removeSome', { n: value.length - most }),
      );
    return { state: 'value', value };
  },
  show: (value, type) =>
    keysOf(value)
      .map((key) => optionLabel(type, key))
      .join(', '),
  typed: keysOf,
  toExpression: keysOf,
  fromExpression: (value, type) => {
    if (!isList(value) || value.length === 0) return undefined;
    const chosen = type.options.filter((option) => value.includes(option.key)).map((option) => option.key);
    return chosen.length > 0 ? chosen : undefined;
  },
  scopeType: (type) => ({
    kind: 'list',
    of: { kind: 'choice', options: type.options, ...(type.other ? { open: true } : {}) },
  }),
  stored: () => STORED_APART,
};
