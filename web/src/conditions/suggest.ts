import { BUILT_INS, type Scope, subjectsOf } from '@tolvek/core/expression';
import { say, told } from '../wire/words.ts';

export interface Suggestion {
  readonly label: string;
  readonly says: string;
  /** What is put in for it. */
  readonly text: string;
}

export interface Suggestions {
  /** Where what is replaced begins, in UTF-16 units. */
  readonly from: number;
  readonly options: readonly Suggestion[];
}

/**
 * What may be meant by the text before the cursor: names and functions, or the options of the
 * choice a text is held against.
 */
export function suggest(before: string, scope: Scope, asked: boolean): Suggestions | null {
  const inText = /"([^"]*)$/.exec(evenQuotes(before) ? '' : before);
  if (inText) return optionsFor(before.slice(0, inText.index), before.length - (inText[1] ?? '').length, scope);
  const known = [
    ...subjectsOf(scope).map(
      ({ of, label }): Suggestion => ({
        label: scope.shownAs(of),
        says: scope.shownAs(of) === label ? '' : told(label),
        text: scope.shownAs(of),
      }),
    ),
    { label: 'today', says: say('conditions:dayAtDesk'), text: 'today' },
    ...[...BUILT_INS.values()].map(
      (each): Suggestion => ({
        label: `${each.name}(${each.takes.map(({ name }) => name).join(', ')})`,
        says: say(`functions:${each.name}`),
        text: `${each.name}(`,
      }),
    ),
  ];
  // Names have spaces in them, so the longest ending that begins a name is what is being written.
  for (const start of wordStarts(before)) {
    const written = before.slice(start).toLowerCase();
    const options = known.filter((each) => each.label.toLowerCase().startsWith(written));
    if (options.length > 0) return { from: start, options };
  }
  return asked ? { from: before.length, options: known } : null;
}

const evenQuotes = (text: string): boolean => (text.match(/"/g)?.length ?? 0) % 2 === 0;

/** Where words begin, from the left; only those close enough to be one name. */
function wordStarts(before: string): readonly number[] {
  const starts = [...before.matchAll(/(?<![\p{L}\p{N}_])[\p{L}_]/gu)].map((match) => match.index);
  return starts.filter((start) => before.length - start < 60 && !/[()[\],]/.test(before.slice(start)));
}

function optionsFor(before: string, from: number, scope: Scope): Suggestions | null {
  const subject = subjectsOf(scope)
    .filter(({ of }) => before.includes(scope.shownAs(of)) || before.includes(of))
    .sort((a, b) => before.lastIndexOf(scope.shownAs(b.of)) - before.lastIndexOf(scope.shownAs(a.of)))[0];
  if (subject?.type.kind !== 'choice') return null;
  return {
    from,
    options: subject.type.options.map((option) => ({ label: told(option.label), says: option.key, text: option.key })),
  };
}
