import { type Said, said } from '@tolvek/words';
import { checkExpression, checkTests, typeOf } from './check.ts';
import { parseExpression, parseTests } from './parse.ts';
import type { Scope } from './scope.ts';
import { childrenOf, type Node, nodesOfTest, type Test } from './tree.ts';
import { kindOf, type ScopeType, type TypeKind } from './types.ts';

/** A text written out of habit, and how the language writes it. */
export interface Rewriting {
  /** The whole text as it would be; it can be read, and nothing in it is found wrong. */
  readonly text: string;
  /** What was meant by what was written, a sentence each: `“&&” is written “and”.` */
  readonly says: readonly Said[];
}

interface Asked {
  readonly scope: Scope;
  /** What an expression has to give. */
  readonly wants?: TypeKind | undefined;
  /** For the tests of a table cell: the type of its column. */
  readonly cell?: { readonly column: ScopeType | null };
}

interface Edit {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly says: Said;
}

/**
 * How something written out of habit (from other languages, spreadsheets, or everyday dates and
 * amounts) is written here. Null where nothing of the kind stands, or where the result would not be
 * right as a whole.
 *
 * @example rewritten('fee > 12,50 && water == true', { scope }).text // 'fee > 12.50 and water = true'
 */
export function rewritten(text: string, asked: Asked): Rewriting | null {
  const before = look(text, asked);
  const says = new Map<string, Said>();
  let now = text;
  const apply = (edits: readonly Edit[]): void => {
    for (const { says: each } of edits) says.set(JSON.stringify(each), each);
    now = edited(now, edits);
  };
  if (!before.clean) for (const habit of IN_TEXT) apply(habit(now, asked));
  const read = look(now, asked);
  apply(read.nodes ? inTree(read.nodes, asked) : []);
  if (now === text) return null;
  return look(now, asked).clean ? { text: now, says: [...says.values()] } : null;
}

/** What a text reads as, and whether anything is wrong with it. */
function look(
  text: string,
  { scope, wants, cell }: Asked,
): { clean: boolean; nodes: { node: Node; against: ScopeType | null }[] | null } {
  if (cell) {
    const parsed = parseTests(text, scope);
    if (!parsed.ok) return { clean: false, nodes: null };
    const clean = checkTests(parsed.value, cell.column, scope).length === 0;
    return { clean, nodes: parsed.value.flatMap((test) => inTest(test, cell.column)) };
  }
  const parsed = parseExpression(text, scope);
  if (!parsed.ok) return { clean: false, nodes: null };
  const clean = checkExpression(parsed.value, scope, wants).length === 0;
  return { clean, nodes: [{ node: parsed.value, against: null }] };
}

const inTest = (test: Test, against: ScopeType | null): { node: Node; against: ScopeType | null }[] =>
  nodesOfTest(test).map((node) => ({ node, against: test.kind === 'condition' ? null : against }));

const edited = (text: string, edits: readonly Edit[]): string =>
  [...edits]
    .sort((a, b) => b.from - a.from)
    .reduce((whole, { from, to, text: put }) => whole.slice(0, from) + put + whole.slice(to), text);

/** Every match of a pattern outside of texts in double quotes. */
function matches(text: string, pattern: RegExp): readonly RegExpExecArray[] {
  const bare = text.replace(/"(?:[^"\\]|\\.)*"/g, (quoted) => `"${' '.repeat(Math.max(0, quoted.length - 2))}"`);
  return [...bare.matchAll(pattern)] as RegExpExecArray[];
}

const replaced = (pattern: RegExp, put: (match: RegExpExecArray) => string | null, says: Said) => (text: string) =>
  matches(text, pattern).flatMap((match): Edit[] => {
    const with_ = put(match);
    return with_ === null ? [] : [{ from: match.index, to: match.index + match[0].length, text: with_, says }];
  });

const written = (theirs: string, ours: string): Said => said('expressions:habit.sign', { theirs, ours });

const WORDS = /\b(AND|OR|NOT|IN|BETWEEN|IF|THEN|ELSE|TRUE|FALSE|NULL|And|Or|Not|True|False|Null)\b/g;

/** Habits that can be seen in the text alone, in the order in which they are put right. */
const IN_TEXT: readonly ((text: string, asked: Asked) => readonly Edit[])[] = [
  quotes,
  replaced(/={2,3}/g, () => '=', written('==', '=')),
  replaced(/!={1,2}=|!==/g, () => '!=', written('!==', '!=')),
  replaced(/<>/g, () => '!=', written('<>', '!=')),
  replaced(/\s*&&?\s*/g, () => ' and ', written('&&', 'and')),
  replaced(/\s*\|\|?\s*/g, () => ' or ', written('||', 'or')),
  replaced(WORDS, ([word]) => word.toLowerCase(), said('expressions:habit.smallWords')),
  ifThenElse,
  replaced(/\s+is\s+not\s+(empty|blank|null)\b/gi, () => ' != null', written('is not empty', '!= null')),
  replaced(/\s+is\s+(empty|blank|null)\b/gi, () => ' = null', written('is empty', '= null')),
  negations,
  replaced(/(?<![\w.])(\d{4}-\d\d-\d\d)(?![\w-])/g, ([day]) => dateOf(day), said('expressions:habit.date')),
  replaced(/(?<![\w.])(\d{1,2}\.\d{1,2}\.\d{4})(?![\w.])/g, ([day]) => dateOf(day), said('expressions:habit.date')),
  amounts,
  commas,
];

/** `'a'` and typographic quotes; an apostrophe inside a word is none. */
function quotes(text: string): readonly Edit[] {
  const says = said('expressions:habit.quotes');
  return matches(text, /(?<![\p{L}\d])'([^'"]*)'|[“„]([^“”"]*)[”“]|‘([^’"]*)’/gu).map((match) => {
    const from = match.index;
    const to = from + match[0].length;
    return { from, to, text: JSON.stringify(text.slice(from + 1, to - 1)), says };
  });
}

/** `if(a, b, c)`. */
function ifThenElse(text: string): readonly Edit[] {
  const [match] = matches(text, /\bif\s*\(/g);
  if (!match) return [];
  const open = match.index + match[0].length;
  const parts = argumentsFrom(text, open);
  if (parts?.values.length !== 3 || /^\s*then\b/.test(text.slice(parts.end + 1))) return [];
  const [test = '', then = '', otherwise = ''] = parts.values;
  const put = `(if ${test.trim()} then ${then.trim()} else ${otherwise.trim()})`;
  const whole = match.index === 0 && text.slice(parts.end + 1).trim() === '' ? put.slice(1, -1) : put;
  return [{ from: match.index, to: parts.end + 1, text: whole, says: written('if(a, b, c)', 'if a then b else c') }];
}

/** What stands between brackets that opened just before `from`, parted by commas or semicolons. */
function argumentsFrom(text: string, from: number): { values: readonly string[]; end: number } | null {
  const values: string[] = [];
  let depth = 0;
  let start = from;
  let quoted = false;
  for (let at = from; at < text.length; at += 1) {
    const sign = text[at] ?? '';
    if (sign === '"' && text[at - 1] !== '\\') quoted = !quoted;
    if (quoted) continue;
    if (depth === 0 && (sign === ',' || sign === ';')) {
      values.push(text.slice(start, at));
      start = at + 1;
    } else if ('([{'.includes(sign)) depth += 1;
    else if (')]}'.includes(sign)) {
      if (depth === 0) return { values: [...values, text.slice(start, at)], end: at };
      depth -= 1;
    }
  }
  return null;
}

/** `!water`, `!(a or b)`. */
function negations(text: string, { scope }: Asked): readonly Edit[] {
  return matches(text, /!(?!=)\s*/g).flatMap((match): Edit[] => {
    const start = match.index + match[0].length;
    const end = text[start] === '(' ? (argumentsFrom(text, start + 1)?.end ?? -1) + 1 : nameEnd(text, start, scope);
    if (end <= start) return [];
    const inner = text[start] === '(' ? text.slice(start + 1, end - 1) : text.slice(start, end);
    return [{ from: match.index, to: end, text: `not(${inner})`, says: written('!', 'not(…)') }];
  });
}

function nameEnd(text: string, start: number, scope: Scope): number {
  const known = scope.written.filter((name) => text.startsWith(name, start)).sort((a, b) => b.length - a.length)[0];
  if (known !== undefined) return start + known.length;
  const word = /^[\p{L}_][\p{L}\p{N}_.]*/u.exec(text.slice(start))?.[0] ?? '';
  const end = start + word.length;
  return text[end] === '(' ? (argumentsFrom(text, end + 1)?.end ?? -1) + 1 : end;
}

/**
 * `500 EUR`, `€500`, `12 m`: the unit is the field’s, and not written. Where fields of several
 * units are about, nothing is guessed.
 */
function amounts(text: string, { scope, cell }: Asked): readonly Edit[] {
  const named = scope.names.filter(
    ({ name, label }) => text.includes(name) || (typeof label === 'string' && text.includes(label)),
  );
  const types = [...named.map((each) => each.type), cell?.column ?? null];
  const units = new Set(types.flatMap((type) => (type?.kind === 'number' && type.unit ? [type.unit] : [])));
  const [unit] = units;
  if (unit === undefined || units.size > 1) return [];
  const sign = SIGNS[unit] ?? unit;
  const either = [unit, sign].map((each) => each.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
  const says = said('expressions:habit.unit', { unit });
  const edit = (match: RegExpExecArray): Edit => ({
    from: match.index,
    to: match.index + match[0].length,
    text: match[1] ?? '',
    says,
  });
  return [
    ...matches(text, new RegExp(`(\\d[\\d.,]*)\\s*(?:${either})(?![\\p{L}\\d])`, 'giu')).map(edit),
    ...matches(text, new RegExp(`(?<![\\p{L}\\d])(?:${either})\\s*(\\d[\\d.,]*)`, 'giu')).map(edit),
  ];
}

const SIGNS: Readonly<Record<string, string>> = { EUR: '€', GBP: '£', USD: '$', JPY: '¥', CHF: 'Fr.' };

/**
 * `12,50` and `1.148,00`, where a comma parts nothing: outside of lists and of what a function is
 * given.
 */
function commas(text: string, { cell }: Asked): readonly Edit[] {
  if (cell) return [];
  return matches(text, /(?<![\w.,])(\d{1,3}(?:\.\d{3})+,\d+|\d{1,3}(?:,\d{3})+\.\d+|\d+,\d+)(?![\w,])/g).flatMap(
    (match): Edit[] => {
      const [written] = match;
      if (isInList(text, match.index)) return [];
      const point = Math.max(written.lastIndexOf(','), written.lastIndexOf('.'));
      const put = `${written.slice(0, point).replace(/[.,]/g, '')}.${written.slice(point + 1)}`;
      const to = match.index + written.length;
      return [{ from: match.index, to, text: put, says: said('expressions:habit.decimals') }];
    },
  );
}

/** Whether a place is inside of square brackets or of what a function is given. */
function isInList(text: string, at: number): boolean {
  const open: boolean[] = [];
  for (const match of matches(text, /[()[\]]/g)) {
    if (match.index >= at) break;
    if (match[0] === '[') open.push(true);
    else if (match[0] === '(') open.push(/[\p{L}\p{N}_]\s*$/u.test(text.slice(0, match.index)));
    else open.pop();
  }
  return open.some(Boolean);
}

/** A day as people write it, as the language does; null where it is none. */
function dateOf(written: string): string | null {
  const iso = /^(\d{4})-(\d\d)-(\d\d)$/.exec(written);
  const day = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(written);
  const [, y, m, d] = iso ?? (day ? ['', day[3], day[2], day[1]] : []);
  if (!y || !m || !d) return null;
  const text = `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`;
  const moment = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(moment.getTime()) && moment.toISOString().startsWith(text) ? `date("${text}")` : null;
}

/** Habits that need the types of what stands at the other side. */
function inTree(roots: readonly { node: Node; against: ScopeType | null }[], { scope }: Asked): readonly Edit[] {
  const edits: Edit[] = [];
  const beside = (written: Node, type: ScopeType | null, name: Node | null): void => {
    if (written.kind !== 'literal' || typeof written.value !== 'string') return;
    const { from, to, value } = written;
    const kind = kindOf(type);
    if (value === '' && name?.kind === 'name' && kind !== 'unknown')
      edits.push({ from, to, text: 'null', says: said('expressions:habit.null') });
    if (kind === 'date') {
      const text = dateOf(value.trim());
      if (text !== null) edits.push({ from, to, text, says: said('expressions:habit.date') });
    }
    if (kind === 'date-time') {
      const text = momentOf(value.trim());
      if (text !== null) edits.push({ from, to, text, says: said('expressions:habit.moment') });
    }
  };
  const visit = (node: Node): void => {
    if (node.kind === 'compare') {
      beside(node.right, safeType(node.left, scope), node.left);
      beside(node.left, safeType(node.right, scope), node.right);
    }
    if (node.kind === 'between') for (const end of [node.low, node.high]) beside(end, safeType(node.of, scope), null);
    if (node.kind === 'in') {
      const type = safeType(node.of, scope);
      for (const test of node.tests)
        if (test.kind !== 'condition') for (const operand of nodesOfTest(test)) beside(operand, type, node.of);
    }
    childrenOf(node).forEach(visit);
  };
  for (const { node, against } of roots) {
    beside(node, against, null);
    visit(node);
  }
  return edits;
}

/** The type of a part, as far as names outside of loops tell it. */
const safeType = (node: Node, scope: Scope): ScopeType | null => typeOf(node, scope);

function momentOf(written: string): string | null {
  const [, day = '', clock = '00:00'] = /^(\S+?)(?:[ T](\d{1,2}:\d\d))?$/.exec(written) ?? [];
  const date = dateOf(day);
  return date && `date and time("${date.slice(6, -2)}T${clock.padStart(5, '0')}:00")`;
}
