import { freshKey } from '@tolvek/core/form';
import { MOST_TERMS, type Term } from '@tolvek/core/register';

/** How far a line stands in: a tab, or two blanks, is one step. */
const stepsOf = (line: string): number => {
  const indent = /^[\t ]*/.exec(line)?.[0] ?? '';
  return [...indent].filter((sign) => sign === '\t').length + Math.floor(indent.replaceAll('\t', '').length / 2);
};

/**
 * Terms from lines of text, added to those there are: lines that stand in are put under the line
 * before them, and words after `=` are other words for a term: `Grey seal = Halichoerus grypus`.
 */
export function withPasted(terms: readonly Term[], text: string, under: string | undefined): readonly Term[] {
  const made = [...terms];
  const taken = new Set(terms.map((term) => term.key));
  const way: { readonly steps: number; readonly key: string }[] = [];
  for (const line of text.split(/\r?\n/)) {
    const [label = '', ...others] = line.split(/[=;]/).map((each) => each.trim());
    if (label === '' || made.length >= MOST_TERMS) continue;
    const steps = stepsOf(line);
    while ((way.at(-1)?.steps ?? -1) >= steps) way.pop();
    const parent = way.at(-1)?.key ?? under;
    const known = made.find((term) => term.label.toLowerCase() === label.toLowerCase() && term.under === parent);
    const key = known?.key ?? freshKey(label, taken);
    way.push({ steps, key });
    if (known) continue;
    taken.add(key);
    const also = others.filter(Boolean).slice(0, 20);
    made.push({
      key,
      label: label.slice(0, 200),
      ...(parent === undefined ? {} : { under: parent }),
      ...(also.length > 0 ? { also } : {}),
    });
  }
  return made;
}
