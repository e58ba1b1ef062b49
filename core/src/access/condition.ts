import {
  compile,
  conditionFindings,
  entriesIn,
  namesIn,
  parseExpression,
  Scope,
  type ScopeName,
  type Value,
} from '../expression/index.ts';
import { isOfEveryObject, own } from '../own/index.ts';
import { belongs } from '../people/index.ts';
import {
  columnsOf,
  expressionValue,
  FACT_NAMES,
  type Field,
  factSlots,
  type KnownStanding,
  type RequestFacts,
  type RequestStanding,
  requestOf,
  standingScope,
  type Values,
} from '../register/index.ts';
import { accessTo } from './accessTo.ts';
import { classesOf, type ViewerClass } from './classes.ts';
import { type AccessRule, isAbout, leavesToBuilders } from './plan.ts';
import type { Protection } from './protection.ts';

/** Conditions that are remembered. */
const REMEMBERED = 1_000;

/** The place of who looks among what is known of a standing request. */
const ME = 'me';

/**
 * The names that the condition of an exception may use: the fields of a request, and where it stands. Never who looks:
 * that is said by whom the rule is for.
 */
export const exceptionScope = (fields: readonly Field[], known: KnownStanding = {}): Scope =>
  new Scope(standingScope(fields, known).names.filter(({ name }) => name !== ME));

/** What of `request` a condition on whole requests may ask: what a change of it writes. */
const WRITTEN: ReadonlySet<string> = new Set(['form', 'stage', 'phase', 'team', 'handler', 'priority']);

const onlyWritten = new Map<string, boolean>();

/** Whether a condition asks of where a request stands only for what a change of it writes. */
export function asksOnlyWritten(condition: string): boolean {
  let found = onlyWritten.get(condition);
  if (found === undefined) {
    if (onlyWritten.size >= REMEMBERED) onlyWritten.clear();
    const asked = entriesIn(condition, 'request');
    // Asked for as a whole, it may be anything of it.
    found = asked.length > 0 && asked.every((name) => WRITTEN.has(name)) && !/\brequest\b(?!\s*\.)/.test(condition);
    onlyWritten.set(condition, found);
  }
  return found;
}

/** The names that a condition on whole requests may use: fields, and of where a request stands what no clock changes. */
export const readerScope = (fields: readonly Field[], known: KnownStanding = {}): Scope =>
  new Scope(
    exceptionScope(fields, known).names.flatMap((each): readonly ScopeName[] => {
      if (fields.some(({ key }) => key === each.name)) return [each];
      if (each.name !== 'request' || !each.type || !('entries' in each.type)) return [];
      const entries = Object.fromEntries(Object.entries(each.type.entries).filter(([name]) => WRITTEN.has(name)));
      return [{ ...each, type: { kind: 'context', entries } }];
    }),
  );

/** What a condition of an exception is asked of; what is not a field is looked up where one names it. */
export interface Asked {
  readonly fields: readonly Field[];
  readonly values: Values;
  readonly facts: () => RequestFacts;
  readonly standing: () => RequestStanding;
}

type Compiled = (asked: Asked) => boolean;
const compiled = new WeakMap<readonly Field[], Map<string, Compiled>>();

/** Requests are asked one after the other, and most are of the same fields. */
let last: { readonly fields: readonly Field[]; readonly known: Map<string, Compiled> } | undefined;

/** A condition over the fields that it names alone: what it does not name takes no time. */
function compiledFor(fields: readonly Field[], condition: string): Compiled {
  if (last?.fields !== fields) {
    const known = compiled.get(fields) ?? new Map<string, Compiled>();
    compiled.set(fields, known);
    last = { fields, known };
  }
  const { known } = last;
  let found = known.get(condition);
  if (!found) known.set(condition, (found = compileOver(fields, condition)));
  return found;
}

function compileOver(all: readonly Field[], condition: string): Compiled {
  const parsed = parseExpression(condition);
  if (!parsed.ok) return () => false;
  const names = new Set(namesIn(condition));
  const fields = all.filter(({ key }) => names.has(key));
  const isOwn = (name: string): boolean => fields.some(({ key }) => key === name);
  const asksStanding = names.has('request') && !isOwn('request');
  const asksFacts = [...names].some((name) => name !== 'request' && FACT_NAMES.has(name) && !isOwn(name));
  const run = compile(parsed.value, exceptionScope(fields));
  // What no object has by itself is there or not: asking whether it is its own takes longer than reading it.
  const reads = fields.map((field) => ({ field, key: field.key, isPlain: !isOfEveryObject(field.key) }));
  return ({ values, facts, standing }) => {
    const slots: Value[] = [asksStanding ? requestOf(standing()) : null];
    for (const { field, key, isPlain } of reads)
      slots.push(expressionValue(field, isPlain ? values[key] : own(values, key)));
    if (asksFacts) slots.push(...factSlots(facts()));
    return run(slots, null) === true;
  };
}

/** Whether a condition holds of a request. One that can’t be read does not. */
export const conditionHolds = (condition: string, asked: Asked): boolean => compiledFor(asked.fields, condition)(asked);

/** What is wrong with a condition of a rule. */
export type ConditionProblem =
  | { readonly kind: 'unreadable'; readonly message: ReturnType<typeof conditionFindings>[number]['message'] }
  /** Whether something is hidden would tell somebody of a field that they may not read. */
  | { readonly kind: 'tells'; readonly field: Field; readonly to: ViewerClass }
  | { readonly kind: 'too-many' };

/**
 * What is wrong with the conditions of a rule: what can’t be read, and what would tell somebody whom the rule is for of a
 * field that is hidden from them on any request.
 */
export function conditionProblems(
  rule: AccessRule,
  protection: Protection,
  known: KnownStanding = {},
): readonly ConditionProblem[] {
  const { fields, plan } = protection;
  const scope = exceptionScope(fields, known);
  return (rule.exceptions ?? []).flatMap(({ when }): readonly ConditionProblem[] => {
    if (!when) return [];
    const unreadable = conditionFindings(when, scope).map(({ message }) => ({ kind: 'unreadable' as const, message }));
    if (unreadable.length > 0) return unreadable.slice(0, 1);
    const names = namesIn(when);
    const asked = fields.filter(({ key }) => names.includes(key));
    return asked.flatMap((field): readonly ConditionProblem[] => {
      const asks = [field, ...columnsOf(field)];
      const from = [...asks, ...protection.madeFrom(field.key)].map(({ key }) => key);
      const rules = plan.rules.filter((each) => each === rule || from.some((key) => isAbout(each, key)));
      const classes = classesOf({ rules }, undefined, leavesToBuilders(plan, fields));
      if (classes === null) return [{ kind: 'too-many' }];
      const to = classes.find(
        (each) =>
          belongs(rule.audience, each, each.relation) &&
          asks.some((part) => accessTo(part, protection, each, each.relation, each.at).level === 'hidden'),
      );
      return to ? [{ kind: 'tells', field, to }] : [];
    });
  });
}
