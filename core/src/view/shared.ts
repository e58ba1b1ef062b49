import type { ChoiceOption, Field, Kind, Level } from '../register/index.ts';

/** Whether two kinds hold the same values: in one column, one group, one order. */
function isAlike(a: Kind, b: Kind): boolean {
  if (a.kind !== b.kind) return false;
  if (a.kind === 'money' && b.kind === 'money') return a.currency === b.currency;
  if ((a.kind === 'term' || a.kind === 'terms') && (b.kind === 'term' || b.kind === 'terms'))
    return a.vocabulary === b.vocabulary;
  if ((a.kind === 'reference' || a.kind === 'references') && (b.kind === 'reference' || b.kind === 'references'))
    return a.register === b.register;
  return a.kind !== 'line-items';
}

/** What of two lists is in either, once by its name; of what is in both, as the first has it. */
const joined = <T>(a: readonly T[], b: readonly T[], nameOf: (each: T) => unknown): readonly T[] => {
  const known = new Set(a.map(nameOf));
  return [...a, ...b.filter((each) => !known.has(nameOf(each)))];
};

/** A kind with the options or levels that either of two alike has. */
function together(a: Kind, b: Kind): Kind {
  if ((a.kind === 'choice' || a.kind === 'choices') && a.kind === b.kind)
    return { ...a, options: joined<ChoiceOption>(a.options, b.options, ({ key }) => key) };
  if (a.kind === 'level' && b.kind === 'level')
    return { ...a, levels: joined<Level>(a.levels, b.levels, ({ worth }) => worth) };
  return a;
}

/**
 * The fields that several registers share: of the same key and of kinds that hold the same, with the options that any of
 * them has; in the order and wording of the first. Of one register, its own.
 */
export const fieldsShared = ([first = [], ...others]: readonly (readonly Field[])[]): readonly Field[] =>
  first.flatMap((field) => {
    let type: Kind | null = field.type;
    for (const fields of others) {
      const other = fields.find(({ key }) => key === field.key);
      type = type && other && isAlike(type, other.type) ? together(type, other.type) : null;
    }
    return type === null ? [] : [{ ...field, type }];
  });
