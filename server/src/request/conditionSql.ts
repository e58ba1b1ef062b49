import { instantsOf } from '@tolvek/core/deadline';
import {
  type Comparator,
  chainOf,
  compile,
  DateTime,
  iterationType,
  type Node,
  namesRead,
  type Scope,
  type Test,
  typeOf,
  type Value,
} from '@tolvek/core/expression';
import { type Field, type ItemColumn, storedForm } from '@tolvek/core/register';
import { and, not, or, type SQL, sql } from 'drizzle-orm';
import { heldIn } from '../platform/heldIn.ts';
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
  readonly now?: Value;
  /** Who looks, as `me`. */
  readonly me?: Value;
  /** The zone in which moments of requests are read; without it they are left to memory. */
  readonly zone?: string;
}

/** Kinds whose values are lists of texts: keys and ids. */
const LISTS: ReadonlySet<string> = new Set(['choices', 'people', 'terms', 'references']);

/** What is known before the query, by name. */
const KNOWN = ['today', 'now', 'me'] as const;

/** What of `request` stands in a column of its own, as conditions know it. */
const STANDING = {
  number: requests.number,
  stage: requests.stage,
  phase: requests.phase,
  team: requests.team,
  handler: requests.handlerId,
  priority: requests.priority,
} as const;
const MOMENTS = { arrived: requests.createdAt, due: requests.due, finished: requests.finishedAt } as const;

const MINUTE = 60_000;

/**
 * Compares a moment in epoch ms with one on a wall clock, to the minute, as memory does. Null for one
 * that the clock of the zone shows twice or never: memory decides then.
 */
function comparedMoment(read: SQL, op: Comparator, to: DateTime, zone: string): SQL | null {
  const text = to.toString();
  const minutes = instantsOf(text.slice(0, 16), zone);
  const [at] = minutes;
  if (at === undefined || minutes.length !== 1) return null;
  const isWhole = text.endsWith(':00');
  const next = at + MINUTE;
  // A moment with seconds stands between its minute and the next, and no request is there.
  switch (op) {
    case '=':
      return isWhole ? sql`(${read} is not null and ${read} >= ${at} and ${read} < ${next})` : sql`0`;
    case '!=':
      return isWhole ? sql`(${read} is null or ${read} < ${at} or ${read} >= ${next})` : sql`1`;
    case '<':
      return sql`(${read} < ${isWhole ? at : next})`;
    case '<=':
      return sql`(${read} < ${next})`;
    case '>':
      return sql`(${read} >= ${next})`;
    case '>=':
      return sql`(${read} >= ${isWhole ? at : next})`;
  }
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
  /** Where comparing is more than comparing what is stored; null where it is left to memory. */
  readonly compared?: (op: Comparator, value: Value) => SQL | null;
}

const TURNED: Readonly<Record<Comparator, Comparator>> = {
  '=': '=',
  '!=': '!=',
  '<': '>',
  '<=': '>=',
  '>': '<',
  '>=': '<=',
};

/** One of a list that is gone through: a text, or a row of line items. */
interface Item {
  /** The SQL that reads it. */
  readonly read: SQL;
  /** Null for a text. */
  readonly columns: readonly ItemColumn[] | null;
}

class Writer {
  private readonly fields: ReadonlyMap<string, Field>;

  constructor(
    fields: readonly Field[],
    private readonly scope: Scope,
    private readonly facts: SqlFacts,
    /** What lists are gone through around this place, by name. */
    private readonly items: ReadonlyMap<string, Item> = new Map(),
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
      case 'some':
      case 'every':
        return this.quantified(node);
      default:
        return null;
    }
  }

  /**
   * Whether something holds for one of a list, or for each: neither where there is no list, nor where one can’t be
   * told and no other settles it, as the expression says.
   */
  private quantified({ kind, over, test }: Node & { kind: 'some' | 'every' }): SQL | null {
    const [iteration, another] = over;
    if (!iteration || another || iteration.over.kind !== 'list') return null;
    const { list } = iteration.over;
    const field = list.kind === 'name' && !this.items.has(list.name) ? this.fields.get(list.name) : undefined;
    const columns = field?.type.kind === 'line-items' ? field.type.columns : null;
    if (!field || !(columns || LISTS.has(field.type.kind))) return null;
    const place = sql.raw(`item${this.items.size}`);
    const bound = { name: iteration.name, label: iteration.name, type: iterationType(iteration, this.scope) };
    const items = new Map(this.items).set(iteration.name, { read: sql`${place}.value`, columns });
    const inner = new Writer([...this.fields.values()], this.scope.within([bound]), this.facts, items).condition(test);
    if (!inner) return null;
    const path = `$."${field.key}"`;
    const settles = kind === 'some' ? 1 : 0;
    // Named first: what reads nothing of the list would be summed over the rows around it.
    const each = sql`(select (${inner}) as holds from json_each(${requests.values}, ${path}) as ${place})`;
    return sql`(case when coalesce(json_type(${requests.values}, ${path}), 'null') <> 'array' then null else (select case when sum(holds is ${settles}) > 0 then ${settles} when sum(holds is null) > 0 then null else ${1 - settles} end from ${each}) end)`;
  }

  private call({ name, args }: Node & { kind: 'call' }): SQL | null {
    const [first, second] = args;
    if (name === 'not' && first) {
      const inner = this.condition(first);
      return inner && not(inner);
    }
    if (name === 'list contains' && first && second) return this.holding(first, second);
    if ((name !== 'contains' && name !== 'starts with') || !first || !second) return null;
    const [column, part] = [this.column(first), this.constant(second)];
    if (!column || typeof part?.value !== 'string' || typeOf(first, this.scope)?.kind !== 'text') return null;
    // An empty text is part of every text; SQLite’s instr says so too.
    return name === 'contains'
      ? sql`(instr(${column.read}, ${part.value}) > 0)`
      : sql`(substr(${column.read}, 1, length(${part.value})) = ${part.value})`;
  }

  /** Whether a list that is stored has an item: neither where there is none, as the expression says. */
  private holding(of: Node, item: Node): SQL | null {
    const path = this.listAt(of);
    const sought = this.constant(item);
    if (path === null || !sought) return null;
    // Items are texts: nothing else is one of them.
    const { value } = sought;
    const has =
      typeof value === 'string'
        ? sql`exists (select 1 from json_each(${requests.values}, ${path}) where json_each.value = ${value})`
        : sql`0`;
    return sql`(case when json_type(${requests.values}, ${path}) is null then null else ${has} end)`;
  }

  /** Where the list of a field stands; null for what is none, or whose items are more than texts. */
  private listAt(node: Node): string | null {
    const field = node.kind === 'name' && !this.items.has(node.name) ? this.fields.get(node.name) : undefined;
    return field && LISTS.has(field.type.kind) ? `$."${field.key}"` : null;
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
    const within = this.within(node);
    if (within !== undefined) return within;
    if (
      node.kind === 'path' &&
      node.of.kind === 'name' &&
      node.of.name === 'requester' &&
      !this.hides('requester') &&
      node.name === 'outside' &&
      this.facts.requesterIsOutside
    ) {
      return {
        read: this.facts.requesterIsOutside,
        ordered: false,
        parameter: (value) => (typeof value === 'boolean' ? Number(value) : undefined),
      };
    }
    const standing = this.standing(node);
    if (standing) return standing;
    const counted = node.kind === 'call' && node.name === 'count' && node.args[0] ? this.listAt(node.args[0]) : null;
    if (counted !== null)
      return {
        read: sql`json_array_length(${requests.values}, ${counted})`,
        ordered: true,
        parameter: (value) => (typeof value === 'number' ? value : undefined),
      };
    if (node.kind !== 'name') return null;
    if (node.name === 'door' && this.facts.door && !this.hides('door'))
      return {
        read: this.facts.door,
        ordered: false,
        parameter: (value) => (typeof value === 'string' ? value : undefined),
      };
    const field = this.fields.get(node.name);
    if (!field) return null;
    const { ordered, written } = storedForm(field);
    return { read: heldIn(requests.values, field), ordered, parameter: written };
  }

  /** What is gone through, or a cell of it; undefined for what is neither. */
  private within(node: Node): Column | null | undefined {
    if (node.kind === 'name') {
      const item = this.items.get(node.name);
      if (!item) return undefined;
      return item.columns
        ? null
        : { read: item.read, ordered: false, parameter: (value) => (typeof value === 'string' ? value : undefined) };
    }
    const item = node.kind === 'path' && node.of.kind === 'name' ? this.items.get(node.of.name) : undefined;
    if (!item || node.kind !== 'path') return undefined;
    const column = item.columns?.find(({ key }) => key === node.name);
    if (!column) return null;
    const { ordered, written } = storedForm(column);
    return { read: heldIn(item.read, column), ordered, parameter: written };
  }

  /** Where the request stands, as far as it has a column for it. */
  private standing(node: Node): Column | null {
    if (node.kind !== 'path' || node.of.kind !== 'name' || node.of.name !== 'request' || this.hides('request'))
      return null;
    const { name } = node;
    const text = (value: Value): string | undefined => (typeof value === 'string' ? value : undefined);
    if (Object.hasOwn(STANDING, name))
      return { read: sql`${STANDING[name as keyof typeof STANDING]}`, ordered: false, parameter: text };
    if (name === 'trial')
      return {
        read: sql`${requests.trial}`,
        ordered: false,
        parameter: (value) => (typeof value === 'boolean' ? Number(value) : undefined),
      };
    const { zone } = this.facts;
    if (!Object.hasOwn(MOMENTS, name) || zone === undefined) return null;
    const read = sql`${MOMENTS[name as keyof typeof MOMENTS]}`;
    return {
      ...{ read, ordered: true, parameter: () => undefined },
      compared: (op, value) => (value instanceof DateTime ? comparedMoment(read, op, value, zone) : null),
    };
  }

  /** Whether a name stands for something else here: a field, or what is gone through. */
  private hides(name: string): boolean {
    return this.fields.has(name) || this.items.has(name);
  }

  /** The value of a node that reads no more than is known before the query. */
  private constant(node: Node): { readonly value: Value } | null {
    const reads = namesRead([node]);
    const known = KNOWN.filter(
      (name) => this.facts[name] !== undefined && !this.fields.has(name) && !this.items.has(name),
    );
    if (reads.some((name) => !(known as readonly string[]).includes(name))) return null;
    const slots: Value[] = [];
    for (const name of known) {
      const place = this.scope.placeOf(name);
      if (place) slots[place.index] = this.facts[name] ?? null;
    }
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
  if (column.compared) return column.compared(op, to);
  const parameter = column.parameter(to);
  if (parameter === undefined) return null;
  if (op === '=') return sql`(${column.read} is ${parameter})`;
  if (op === '!=') return sql`(${column.read} is not ${parameter})`;
  return column.ordered ? sql`(${column.read} ${sql.raw(op)} ${parameter})` : null;
}
