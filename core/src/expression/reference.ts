import { said, type Words } from '@tolvek/words';
import { BUILT_INS, type BuiltIn } from './functions/index.ts';
import { LIMITS } from './limits.ts';
import { kindSaid } from './types.ts';

/** What the language is made of, each with examples that are tested: a call and what it gives. */
const FORMS: readonly {
  readonly name: string;
  readonly says: string;
  readonly examples: readonly (readonly [string, string])[];
}[] = [
  {
    name: 'Values',
    says: 'Numbers with a point, texts in double quotes, `true` and `false`, dates, times and lengths of time, and `null` for empty.',
    examples: [
      ['12.5', '12.5'],
      ['"a text"', '"a text"'],
      ['date("2026-11-23")', '@"2026-11-23"'],
      ['duration("P2D")', '@"P2D"'],
    ],
  },
  {
    name: 'Lists and ranges',
    says: 'A list in square brackets; a range from one end to the other, square brackets taking the end in, round ones leaving it out.',
    examples: [
      ['[1, 2, 3][2]', '2'],
      ['5 in [1..5]', 'true'],
      ['5 in [1..5)', 'false'],
    ],
  },
  {
    name: 'Calculating',
    says: '`+`, `-`, `*`, `/` and `**`, on exact decimals; texts are joined by `+`; dates move by lengths of time, and their difference is one.',
    examples: [
      ['0.1 + 0.2', '0.3'],
      ['date("2026-01-31") + duration("P1M")', 'date("2026-02-28")'],
      ['date("2026-12-24") - date("2026-11-23")', 'duration("P31D")'],
      ['1 / 0', 'null'],
    ],
  },
  {
    name: 'Comparing',
    says: '`=`, `!=`, `<`, `<=`, `>`, `>=`, `between … and …`, `in (…)`. What is empty can’t be compared: the answer is empty too, except for `=` and `!=`.',
    examples: [
      ['740 > 500', 'true'],
      ['"b" in ("a", "b")', 'true'],
      ['7 between 5 and 9', 'true'],
      ['null > 5', 'null'],
      ['null = null', 'true'],
    ],
  },
  {
    name: 'And, or, not',
    says: 'Three answers: true, not true, and not known yet. One that is not true decides `and`, one that is true decides `or`.',
    examples: [
      ['true and null', 'null'],
      ['false and null', 'false'],
      ['true or null', 'true'],
      ['not(null)', 'null'],
    ],
  },
  {
    name: 'If',
    says: '`if … then … else …`; the first way only where the condition is true.',
    examples: [['if 740 > 500 then "large" else "small"', '"large"']],
  },
  {
    name: 'Going through a list',
    says: '`for x in list return …` makes a list, `some` and `every` ask a question of it, and `list[condition]` is the items for which the condition is true (`item` is the item at hand).',
    examples: [
      ['for x in [1, 2] return x * 10', '[10, 20]'],
      ['for i in 1..3 return i', '[1, 2, 3]'],
      ['some x in [1, 2] satisfies x > 1', 'true'],
      ['every x in [1, 2] satisfies x > 1', 'false'],
      ['[5, 15, 25][item > 10]', '[15, 25]'],
    ],
  },
  {
    name: 'Parts',
    says: '`.` reaches into a group of values, or takes a part of a date or length of time; of a list it takes the part of every item.',
    examples: [
      ['date("2026-11-23").weekday', '1'],
      ['duration("PT90M").hours', '1'],
    ],
  },
];

const example = ([call, gives]: readonly [string, string]): string =>
  `| \`${call.replaceAll('|', '\\|')}\` | \`${gives}\` |`;
const table = (rows: readonly (readonly [string, string])[]): string =>
  ['| expression | gives |', '| --- | --- |', ...rows.map(example)].join('\n');

const signature = ({ name, takes, spreads }: BuiltIn): string =>
  spreads
    ? `${name}(list) or ${name}(item, …)`
    : `${name}(${takes.map((param) => `${param.name}${param.optional ? '?' : ''}`).join(', ')})`;

const kindsOf = ({ takes, spreads }: BuiltIn, told: (words: Words) => string): string =>
  spreads
    ? ''
    : takes
        .map(
          (param) =>
            `${param.name}: ${param.kinds.map((kind) => (kind === 'unknown' ? 'anything' : told(kindSaid(kind)))).join(', ')}`,
        )
        .join('; ');

/** Every example of the reference: an expression and one that gives the same. */
export const referenceExamples = (): readonly (readonly [call: string, gives: string])[] => [
  ...FORMS.flatMap((form) => form.examples),
  ...[...BUILT_INS.values()].flatMap((builtIn) => builtIn.examples),
];

/**
 * The reference as Markdown, made from the tables that the engine runs on.
 *
 * @param told Makes words of what each function is said to give.
 */
export function referenceInMarkdown(told: (words: Words) => string): string {
  const groups = [...new Set([...BUILT_INS.values()].map((builtIn) => builtIn.group))];
  const functions = groups.flatMap((group) => [
    `### ${group}`,
    '',
    ...[...BUILT_INS.values()]
      .filter((builtIn) => builtIn.group === group)
      .flatMap((builtIn) => [
        `**${signature(builtIn)}** — ${told(said(`functions:${builtIn.name}`))}.`,
        ...(kindsOf(builtIn, told) ? [`*${kindsOf(builtIn, told)}*`] : []),
        '',
        ...(builtIn.examples.length > 0 ? [table(builtIn.examples), ''] : []),
      ]),
  ]);
  return [
    '# Expressions',
    '',
    'Everything that decides in Tolvek is an expression in FEEL, the expression language of the open DMN standard (OMG DMN 1.5, chapter 10), in the subset below.',
    'This page is made from the tables the engine runs on (`npm run reference`); every example on it is a test.',
    '',
    '## What an expression is',
    '',
    'Fields are named by their labels or their keys. They are stored by key, so that a changed label changes nothing. A label with signs or reserved words in it is written by its key.',
    '',
    ...FORMS.flatMap((form) => [`**${form.name}.** ${form.says}`, '', table(form.examples), '']),
    '## Cells of a table',
    '',
    'A cell has tests of its column’s value; one of them is enough. An empty cell, or `-`, accepts any value. `?` is the column’s value in a longer test.',
    '',
    '| cell | matches |',
    '| --- | --- |',
    '| `> 500` | more than 500 |',
    '| `"corrin", "merrow"` | either |',
    '| `[1..5)` | from 1 to below 5 |',
    '| `not("corrin")` | anything else |',
    '| `? > Fee` | more than the field Fee |',
    '',
    '## Functions',
    '',
    ...functions,
    '**old value(field)** — what a field was before the change at hand; only where something is being changed.',
    '',
    '## Bounds',
    '',
    `An expression has at most ${LIMITS.length} characters and ${LIMITS.depth} levels of nesting. Its loops take at most ${LIMITS.steps / LIMITS.turn} turns together, its lists have at most ${LIMITS.items} items and its texts ${LIMITS.text} characters: what would go beyond is empty.`,
    'Numbers are exact to 15 digits.',
    '',
    '## Left out, and why',
    '',
    '- Dates and times carry no zone: they are the desk’s own wall clock. A zone in a literal is a finding.',
    '- `matches`, `replace` and patterns in `split`: a pattern can take longer than anybody waits. `contains`, `starts with` and `substring before` cover most uses.',
    '- Functions of one’s own, contexts in braces, `instance of`, and names for a function’s values.',
    '- `today()` and `now()`: time is given to an expression as the names `today` and `now`, so that a rehearsal can give another.',
    '',
    'Where Tolvek answers otherwise than another implementation of the standard, the reason stands beside a test in `core/laws/feelin.test.ts`.',
    '',
  ].join('\n');
}
