import { compile, conditionFindings, namesIn, parseExpression, Scope, type Slots } from '../expression/index.ts';
import { belongs } from '../people/index.ts';
import {
  type Field,
  type KnownStanding,
  type RequestFacts,
  type RequestStanding,
  standingScope,
  standingSlots,
  type Values,
} from '../register/index.ts';
import { accessTo } from './accessTo.ts';
import { classesOf, type ViewerClass } from './classes.ts';
import type { AccessRule } from './plan.ts';
import type { Protection } from './protection.ts';

/** The place of who looks among what is known of a standing request. */
const ME = 'me';

/**
 * The names that the condition of an exception may use: the fields of a request, and where it stands. Never who looks:
 * that is said by whom the rule is for.
 */
export const exceptionScope = (fields: readonly Field[], known: KnownStanding = {}): Scope =>
  new Scope(standingScope(fields, known).names.filter(({ name }) => name !== ME));

/** What a condition of an exception is asked of. */
export interface Asked {
  readonly fields: readonly Field[];
  readonly values: Values;
  readonly facts: RequestFacts;
  readonly standing: RequestStanding;
}

type Compiled = (slots: Slots) => boolean;
const compiled = new WeakMap<readonly Field[], Map<string, Compiled>>();

function compiledFor(fields: readonly Field[], condition: string): Compiled {
  const known = compiled.get(fields) ?? new Map<string, Compiled>();
  compiled.set(fields, known);
  let found = known.get(condition);
  if (!found) {
    const parsed = parseExpression(condition);
    const run = parsed.ok ? compile(parsed.value, exceptionScope(fields)) : null;
    known.set(condition, (found = (slots) => run?.(slots, null) === true));
  }
  return found;
}

const NOBODY = { person: '', groups: [], department: '', profile: { fields: [], values: {} } };

/** Whether a condition holds of a request. One that can’t be read does not. */
export function conditionHolds(condition: string, { fields, values, facts, standing }: Asked): boolean {
  const [request, , ...rest] = standingSlots(fields, values, facts, standing, NOBODY);
  return compiledFor(fields, condition)([request ?? null, ...rest]);
}

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
    const asked = fields.filter(({ key }) => namesIn(when).includes(key));
    return asked.flatMap((field): readonly ConditionProblem[] => {
      const from = [field, ...protection.madeFrom(field.key)].map(({ key }) => key);
      const rules = plan.rules.filter(
        (each) => each === rule || each.fields === 'all' || each.fields.some((key) => from.includes(key)),
      );
      const classes = classesOf({ rules });
      if (classes === null) return [{ kind: 'too-many' }];
      const to = classes.find(
        (each) =>
          belongs(rule.audience, each, each.relation) &&
          accessTo(field, protection, each, each.relation, each.at).level === 'hidden',
      );
      return to ? [{ kind: 'tells', field, to }] : [];
    });
  });
}
