import { type Compiled, compileText, type Scope, type Slots, type Ternary, type Value } from '../expression/index.ts';
import type { Action, AskedForm, FormRule } from './design.ts';
import { pageKeys, pagesBetween } from './layout.ts';

/** What the rules that run come to, for one state of the answers. */
export interface Effects {
  /** Whether each rule’s condition holds, in the order of the rules that run. */
  readonly held: readonly Ternary[];
  /** Parts that a rule shows or hides, as the last rule says. */
  readonly shown: ReadonlyMap<string, boolean>;
  readonly skipped: ReadonlySet<string>;
  readonly required: ReadonlySet<string>;
  readonly locked: ReadonlySet<string>;
  /** Values that rules put into fields; null empties. */
  readonly put: ReadonlyMap<string, Value>;
  readonly limits: ReadonlyMap<string, readonly string[]>;
  readonly warnings: readonly Said[];
  readonly refusals: readonly (Said & { readonly fix: string })[];
}

/** Something a rule says. */
export interface Said {
  readonly rule: string;
  readonly field: string;
  readonly text: string;
}

interface ReadyRule {
  readonly rule: FormRule;
  readonly holds: Compiled;
  readonly then: readonly ReadyAction[];
  readonly otherwise: readonly ReadyAction[];
}

type ReadyAction =
  | { readonly action: Exclude<Action, { do: 'set' }> }
  | { readonly action: Extract<Action, { do: 'set' }>; readonly value: Compiled };

const ready = (action: Action, scope: Scope): ReadyAction =>
  action.do === 'set' ? { action, value: compileText(action.value, scope) } : { action };

/** Rules compiled once; what can’t be read never holds, and findings stop such a form’s release. */
export class ReadyRules {
  private readonly rules: readonly ReadyRule[];
  private readonly pages: readonly string[];
  /** Parts that stay away until a rule shows them. */
  readonly awaiting: ReadonlySet<string>;

  constructor(form: AskedForm, scope: Scope, runs: (rule: FormRule) => boolean) {
    const running = form.rules.filter((rule) => rule.on && runs(rule));
    this.pages = pageKeys(form.parts);
    this.rules = running.map((rule) => ({
      rule,
      holds: compileText(rule.when, scope),
      then: rule.then.map((action) => ready(action, scope)),
      otherwise: rule.otherwise.map((action) => ready(action, scope)),
    }));
    this.awaiting = awaitingParts(running);
  }

  get count(): number {
    return this.rules.length;
  }

  /** The rules that run, in order. */
  get running(): readonly FormRule[] {
    return this.rules.map(({ rule }) => rule);
  }

  /** What they come to before anything is known: no rule holds, none does not. */
  get nothing(): Effects {
    return { ...noEffects(), held: this.rules.map(() => null) };
  }

  /** What the rules come to when all of them read the same values. */
  effects(slots: Slots): Effects {
    const effects = noEffects();
    for (const { rule, holds, then, otherwise } of this.rules) {
      const value = holds(slots, null);
      const held = typeof value === 'boolean' ? value : null;
      effects.held.push(held);
      for (const each of held === true ? then : held === false ? otherwise : [])
        this.carryOut(each, rule.id, slots, effects);
    }
    return effects;
  }

  private carryOut(ready: ReadyAction, rule: string, slots: Slots, effects: Mutable<Effects>): void {
    const { action } = ready;
    switch (action.do) {
      case 'show':
      case 'hide':
        for (const part of action.parts) effects.shown.set(part, action.do === 'show');
        return;
      case 'require':
        for (const field of action.fields) effects.required.add(field);
        return;
      case 'lock':
        for (const field of action.fields) effects.locked.add(field);
        return;
      case 'clear':
        for (const field of action.fields) effects.put.set(field, null);
        return;
      case 'set':
        effects.put.set(action.field, 'value' in ready ? ready.value(slots, null) : null);
        return;
      case 'limit':
        effects.limits.set(action.field, action.options);
        return;
      case 'warn':
        effects.warnings.push({ rule, field: action.field, text: action.text });
        return;
      case 'refuse':
        effects.refusals.push({ rule, field: action.field, text: action.text, fix: action.fix });
        return;
      case 'jump':
        for (const page of pagesBetween(this.pages, action.after, action.to)) effects.skipped.add(page);
    }
  }
}

const noEffects = () => ({
  held: [] as Ternary[],
  shown: new Map<string, boolean>(),
  skipped: new Set<string>(),
  required: new Set<string>(),
  locked: new Set<string>(),
  put: new Map<string, Value>(),
  limits: new Map<string, readonly string[]>(),
  warnings: [] as Said[],
  refusals: [] as (Said & { fix: string })[],
});

type Mutable<T> = {
  readonly [K in keyof T]: T[K] extends ReadonlyMap<infer A, infer B>
    ? Map<A, B>
    : T[K] extends ReadonlySet<infer A>
      ? Set<A>
      : T[K] extends readonly (infer A)[]
        ? A[]
        : T[K];
};

/** Parts that some rule shows: they stay away until one does. */
export function awaitingParts(rules: readonly FormRule[]): ReadonlySet<string> {
  const shown = (actions: readonly Action[]): readonly string[] =>
    actions.flatMap((action) => (action.do === 'show' ? action.parts : []));
  // A rule that shows on one side and hides on the other says all there is; either way the part
  // waits for the rule.
  return new Set(rules.filter((rule) => rule.on).flatMap((rule) => [...shown(rule.then), ...shown(rule.otherwise)]));
}
