import { type AccessPlan, type Protection, protect, type Sink } from '../access/index.ts';
import type { Field } from '../register/index.ts';
import type { Action, FormDesign, FormRule } from './design.ts';
import { type FormSink, fieldSinks, RuleSinks, sinksOf } from './sinks.ts';

/** What a register’s fields are made by, besides its plan. */
export interface MadeBy {
  /** As the register has them now. */
  readonly fields: readonly Field[];
  /** The release a request came by; null for what has none. */
  readonly release: { readonly form: string; readonly design: FormDesign } | null;
  /** Rules that were applied to the requests that were there, whatever they came by. */
  readonly ran?: readonly RanRule[];
  /** Carried fields that are closed by now where they come from; the same list for the same fields. */
  readonly closed?: readonly string[];
}

/** A rule as it was applied to requests that were there, and the id of its form. */
export interface RanRule {
  readonly form: string;
  readonly rule: FormRule;
}

type Kept = WeakMap<object, Kept | Protection>;
const kept: Kept = new WeakMap();
const NONE: readonly RanRule[] = [];
const NOTHING_CLOSED: readonly string[] = [];
const NO_RELEASE = {};

/** Finds what was kept for several things together, or makes it. */
function keptFor(keys: readonly object[], make: () => Protection): Protection {
  let at = kept;
  for (const key of keys.slice(0, -1)) {
    const next = (at.get(key) as Kept | undefined) ?? new WeakMap();
    at.set(key, next);
    at = next;
  }
  const last = keys.at(-1) as object;
  const found = (at.get(last) as Protection | undefined) ?? make();
  at.set(last, found);
  return found;
}

/**
 * What protects the fields of requests that came by a release: the plan in force, and what the
 * fields are made from, by that release, by their register as it is now, and by rules that were
 * applied to what was there. Asked for the same again, it is the same one.
 */
export function protectionOf(
  plan: AccessPlan,
  { fields, release, ran = NONE, closed = NOTHING_CLOSED }: MadeBy,
): Protection {
  return keptFor([plan, fields, release?.design ?? NO_RELEASE, ran, closed], () => {
    const forms = new Set([release?.form, ...ran.map((each) => each.form)]);
    const rules = [...(release?.design.rules ?? []), ...ran.map((each) => ({ ...each.rule, on: true }))];
    // Routing, unique rules and instructions put nothing into fields.
    const sinks = [
      ...sinksOf({ parts: release?.design.parts ?? [], editions: release?.design.editions, fields, rules }),
      ...(release ? fieldsOfRelease(release.design, fields) : []),
    ];
    return protect(
      fields,
      plan,
      sinks,
      (plan.disclosures ?? []).filter((each) => forms.has(each.form)),
      closed,
    );
  });
}

/** What fields were made from by a release, where the register has them otherwise now. */
const fieldsOfRelease = (design: FormDesign, now: readonly Field[]): readonly FormSink[] =>
  design.fields.filter((field) => !now.includes(field)).flatMap((field) => fieldSinks(field, design));

/**
 * The rules as they speak to somebody: those that would tell what this reader may not read still
 * set and clear, but neither refuse, require, limit, lock nor warn. `speaks`: whether something may
 * be said at a place.
 */
export function withoutTelling(
  design: Pick<FormDesign, 'fields' | 'parts' | 'rules'>,
  speaks: (sink: Sink) => boolean,
): readonly FormRule[] {
  return design.rules.map((rule) => {
    const told = (actions: readonly Action[]): readonly Action[] =>
      actions.flatMap((action): readonly Action[] => {
        switch (action.do) {
          case 'set':
          case 'clear':
          case 'show':
          case 'hide':
          case 'jump':
            return [action];
          case 'require':
          case 'lock': {
            // Field by field: each is a place of its own.
            const fields = action.fields.filter((key) =>
              madeBy(rule, { ...action, fields: [key] }, design).every(speaks),
            );
            return fields.length > 0 ? [{ ...action, fields }] : [];
          }
          default:
            return madeBy(rule, action, design).every(speaks) ? [action] : [];
        }
      });
    return { ...rule, then: told(rule.then), otherwise: told(rule.otherwise) };
  });
}

/** The places that one thing a rule does makes. */
const madeBy = (rule: FormRule, action: Action, design: Pick<FormDesign, 'fields' | 'parts'>): readonly FormSink[] =>
  new RuleSinks({ ...rule, then: [action], otherwise: [] }, design).all;
