import { promisedBy } from '../deadline/index.ts';
import {
  type Compiled,
  compile,
  entriesRead,
  type Node,
  namesRead,
  parseExpression,
  printExpression,
  type Scope,
  type Slots,
  typeOf,
} from '../expression/index.ts';
import { priorities } from '../register/index.ts';
import { allRows, type ComputedName, formulasOf, type RoutingSaid, type SayingRow } from './table.ts';

/** What an expression can come to: the texts that are written out in it, and whether it can be anything else as well. */
export interface Results {
  readonly texts: ReadonlySet<string>;
  readonly isOpen: boolean;
}

/** What an expression comes to one way or another. */
const endsOf = (node: Node): readonly Node[] =>
  node.kind === 'if' ? [...endsOf(node.whenTrue), ...endsOf(node.otherwise)] : [node];

/** The texts that an expression can come to. Nothing at all, as `null` says it, is none of them. */
export function resultsOf(node: Node, scope: Scope): Results {
  const texts = new Set<string>();
  let isOpen = false;
  for (const end of endsOf(node)) {
    const type = end.kind === 'literal' ? null : typeOf(end, scope);
    if (end.kind === 'literal' && typeof end.value === 'string') texts.add(end.value);
    else if (type?.kind === 'choice' && !type.open) for (const { key } of type.options) texts.add(key);
    else isOpen ||= end.kind !== 'literal' || end.value !== null;
  }
  return { texts, isOpen };
}

/** The texts that are written out as results of a formula. */
export function resultsWritten(text: string): readonly string[] {
  const parsed = parseExpression(text);
  return parsed.ok
    ? endsOf(parsed.value).flatMap((end) =>
        end.kind === 'literal' && typeof end.value === 'string' ? [end.value] : [],
      )
    : [];
}

/** A formula with the texts that are written out as its results called otherwise. */
export function withResults(text: string, called: (result: string) => string): string {
  const renamed = (node: Node): Node => {
    if (node.kind === 'if') return { ...node, whenTrue: renamed(node.whenTrue), otherwise: renamed(node.otherwise) };
    return node.kind === 'literal' && typeof node.value === 'string' ? { ...node, value: called(node.value) } : node;
  };
  const parsed = parseExpression(text);
  if (!parsed.ok || resultsWritten(text).every((result) => called(result) === result)) return text;
  return printExpression(renamed(parsed.value));
}

/** The same of a formula as it is written. */
export function resultsIn(text: string, scope: Scope): Results {
  const parsed = parseExpression(text);
  return parsed.ok ? resultsOf(parsed.value, scope) : { texts: new Set(), isOpen: false };
}

/** A formula of a row, compiled. */
export interface ReadyFormula {
  readonly name: ComputedName;
  readonly node: Node;
  readonly reads: readonly string[];
  readonly ofRequester: readonly string[];
  readonly value: Compiled;
  readonly texts: ReadonlySet<string>;
}

/** The formulas of a row. What can’t be read says nothing; findings stop such a table’s release. */
export const readyFormulas = (row: SayingRow, scope: Scope): readonly ReadyFormula[] =>
  formulasOf(row).flatMap(([name, text]): ReadyFormula[] => {
    const parsed = parseExpression(text);
    if (!parsed.ok) return [];
    const node = parsed.value;
    return [
      {
        ...{ name, node, value: compile(node, scope), texts: resultsOf(node, scope).texts },
        ...{ reads: namesRead([node]), ofRequester: entriesRead(node, 'requester') },
      },
    ];
  });

/** What is computed of an outcome for one request. */
export type Computations = Partial<Pick<RoutingSaid, ComputedName>>;

/** What a formula says of a request; nothing where it comes to nothing that can be so. */
export function computedBy({ name, value, texts }: ReadyFormula, slots: Slots): Computations {
  const result = value(slots, null);
  if (name === 'workingDays') {
    const days = promisedBy(result);
    return days === null ? {} : { workingDays: days };
  }
  if (typeof result !== 'string' || !texts.has(result)) return {};
  if (name !== 'priority') return { [name]: result };
  const priority = priorities.find((each) => each === result);
  return priority ? { priority } : {};
}

/** What a row names or may compute, by its key: a group, a path, or a stage. `scope`: of its formulas. */
export const mayBe = (row: SayingRow, name: 'team' | 'path' | 'stage', scope: () => Scope): readonly string[] => {
  if (row.leaves.includes(name)) return [];
  const text = row.outcome.formulas?.[name];
  return [row.outcome[name] ?? [], text === undefined ? [] : [...resultsIn(text, scope()).texts]].flat();
};

/** All that rows of a table name or may compute. */
export const allThatMayBe = (
  table: Parameters<typeof allRows>[0],
  name: 'team' | 'path' | 'stage',
  scope: () => Scope,
): ReadonlySet<string> => {
  let known: Scope | undefined;
  return new Set(allRows(table).flatMap((row) => mayBe(row, name, () => (known ??= scope()))));
};
