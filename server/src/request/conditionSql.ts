import {
  type Comparator,
  chainOf,
  compile,
  type Node,
  namesRead,
  type Scope,
  type Test,
  typeOf,
  type Value,
} from '@tolvek/core/expression';
import { type Field, storedForm } from '@tolvek/core/register';
import { and, not, or, type SQL, sql } from 'drizzle-orm';
import { requests } from './tables.ts';

/**
 * What a condition may ask besides fields, as SQL or as a value known before the query. What is
 * missing stays in memory.
 */
export interface SqlFacts {
  /** `requester.outside` as 1 or 0. */
  readonly requesterIsOutside?: SQL;
  readonly door?: SQL;
  readonly today?: Value;
}

/**
 * A condition taken apart: what SQLite can decide, and what is left to be evaluated on the rows it
 * finds.
 */
export interface SplitCondition {
  /** Three-valued, as the expression: 1, 0 or NULL. Undefined: nothing of it. */
  readonly where: SQL | undefined;
  /** Null when SQLite decides all of it. */
  readonly rest: Node | null;
}

/**
 * Turns a condition into a `WHERE` over the stored values. A chain of `and` is split: the parts
 * SQLite can decide narrow the rows, the others are evaluated in memory. A row is meant when
 * `where` is true and `rest` holds; that is exactly when the whole condition holds.
 */
export function splitCondition(
  node: Node,
  fields: readonly Field[],
  scope: Scope,
  facts: SqlFacts = {},
): SplitCondition {
  const writer = new Writer(fields, scope, facts);
  const written = chainOf(node, 'and').map((part) => ({ part, condition: writer.condition(part) }));
  const left = written.filter((each) => each.condition === null).map((each) => each.part);
  const [first, ...others] = left;
  return {
    where: and(...written.flatMap((each) => each.condition ?? [])),
    rest: first
      ? others.reduce<Node>((one, other) => ({ kind: 'and', left: one, right: other, from: 0, to: 0 }), first)
      : null,
  };
}

/**
 * A column: the SQL that reads it, what can be compared with it, and how such a value is written as
 * a parameter.
 */
interface Column {
  readonly read: SQL;
  readonly ordered: boolean;
  /** Undefined: a value of another kind, which is left to the expression. */
  readonly parameter: (value: Value) => string | number | undefined;
}

const TURNED: Readonly<Record<Comparator, Comparator>> = {
  '=': '=',
  '!=': '!=',
  '<': '>',
  '<=': '>=',
  '>': '<',
  '>=': '<=',
};

class Writer {
  private readonly fields: ReadonlyMap<string, Field>;

  constructor(
    fields: readonly Field[],
    private readonly scope: Scope,
    private readonly facts: SqlFacts,
  ) {
    this.fields = new Map(fields.map((field) => [field.key, field]));
  }

  /**
   * 1, 0 or NULL just as the expression is yes, no or neither; null when SQLite can’t decide it.
   */
  condition(node: Node): SQL | null {
    switch (node.kind) {
      case 'literal':
        return node.value === true ? sql`1` : node.value === false ? sql`0` : node.value === null ? sql`null` : null;
      case 'and':
      case 'or': {
        const [left, right] = [this.condition(node.left), this.condition(node.right)];
        return left && right ? ((node.kind === 'and' ? and : or)(left, right) ?? null) : null;
      }
      case 'name':
      case 'path': {
        const column = this.column(node);
        return column && typeOf(node, this.scope)?.kind === 'yes-no' ? sql`(${column.read} = 1)` : null;
      }
      case 'call':
        return this.call(node);
      case 'compare': {
        const turned = this.column(node.left) === null;
        const [column, value] = turned
          ? [this.column(node.right), this.constant(node.left)]
          : [this.column(node.left), this.constant(node.right)];
        return column && value ? compared(column, turned ? TURNED[node.op] : node.op, value.value) : null;
      }
      case 'between': {
        const [column, low, high] = [this.column(node.of), this.constant(node.low), this.constant(node.high)];
        return column && low && high
          ? both(compared(column, '>=', low.value), compared(column, '<=', high.value))
          : null;
      }
      case 'in': {
        const column = this.column(node.of);
        return column && this.tests(column, node.tests);
      }
      default:
        return null;
    }
  }

  private call({ name, args }: Node & { kind: 'call' }): SQL | null {
    const [first, second] = args;
    if (name === 'not' && first) {
      const inner = this.condition(first);
      return inner && not(inner);
    }
    if ((name !== 'contains' && name !== 'starts with') || !first || !second) return null;
    const [column, part] = [this.column(first), this.constant(second)];
    if (!column || typeof part?.value !== 'string' || typeOf(first, this.scope)?.kind !== 'text') return null;
    // An empty text is part of every text; SQLite’s instr says so too.
    return name === 'contains'
      ? sql`(instr(${column.read}, ${part.value}) > 0)`
      : sql`(substr(${column.read}, 1, length(${part.value})) = ${part.value})`;
  }

  private tests(column: Column, tests: readonly Test[]): SQL | null {
    const written = tests.map((test) => this.test(column, test));
    return written.every((each) => each !== null) ? (or(...written) ?? null) : null;
  }

  private test(column: Column, test: Test): SQL | null {
    switch (test.kind) {
      case 'any':
        return sql`1`;
      case 'compare':
      case 'equal': {
        const value = this.constant(test.operand);
        return value && compared(column, test.kind === 'equal' ? '=' : test.op, value.value);
      }
      case 'range': {
        const [low, high] = [this.constant(test.low), this.constant(test.high)];
        return low && high
          ? both(
              compared(column, test.lowOpen ? '>' : '>=', low.value),
              compared(column, test.highOpen ? '<' : '<=', high.value),
            )
          : null;
      }
      case 'condition':
        return null;
      case 'not': {
        const inner = this.tests(column, test.tests);
        return inner && not(inner);
      }
    }
  }

  private column(node: Node): Column | null {
    if (
      node.kind === 'path' &&
      node.of.kind === 'name' &&
      node.of.name === 'requester' &&
      node.name === 'outside' &&
      this.facts.requesterIsOutside
    ) {
      return {
        read: this.facts.requesterIsOutside,
        ordered: false,
        parameter: (value) => (typeof value === 'boolean' ? Number(value) : undefined),
      };
    }
    if (node.kind !== 'name') return null;
    if (node.name === 'door' && this.facts.door)
      return {
        read: this.facts.door,
        ordered: false,
        parameter: (value) => (typeof value === 'string' ? value : undefined),
      };
    const field = this.fields.get(node.name);
    if (!field) return null;
    const { part, ordered, written } = storedForm(field);
    const path = `$."${field.key}"${part ? `.${part}` : ''}`;
    return { read: sql`json_extract(${requests.values}, ${path})`, ordered, parameter: written };
  }

  /** The value of a node that reads no more than is known before the query. */
  private constant(node: Node): { readonly value: Value } | null {
    const reads = namesRead([node]);
    if (reads.some((name) => name !== 'today' || this.facts.today === undefined)) return null;
    const slots: Value[] = [];
    const place = this.scope.placeOf('today');
    if (place) slots[place.index] = this.facts.today ?? null;
    return { value: compile(node, this.scope)(slots, null) };
  }
}

const both = (a: SQL | null, b: SQL | null): SQL | null => (a && b ? (and(a, b) ?? null) : null);

/**
 * `IS` and `IS NOT` are what `=` and `!=` mean here: empty equals nothing but empty, and that is a
 * plain no.
 */
function compared(column: Column, op: Comparator, to: Value): SQL | null {
  if (to === null)
    return op === '=' ? sql`(${column.read} is null)` : op === '!=' ? sql`(${column.read} is not null)` : sql`null`;
  const parameter = column.parameter(to);
  if (parameter === undefined) return null;
  if (op === '=') return sql`(${column.read} is ${parameter})`;
  if (op === '!=') return sql`(${column.read} is not ${parameter})`;
  return column.ordered ? sql`(${column.read} ${sql.raw(op)} ${parameter})` : null;
}
