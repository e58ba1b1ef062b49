import { type Said, said } from '@tolvek/words';
import { BUDGETS, Budget } from '../../budget/index.ts';
import {
  canBothHold,
  checkExpression,
  kindOf,
  kindSaid,
  type Node,
  type Outcome,
  outcomeOf,
  parseExpression,
  printExpression,
  rewritten,
  type Scope,
  typeOf,
  type Verdict,
  verdictOn,
} from '../../expression/index.ts';
import { type Field, scopeTypeOf } from '../../register/index.ts';
import { type Action, type FormDesign, type FormRule, partKey } from '../design.ts';
import { circleOf, isPage } from './circles.ts';
import type { Add } from './finding.ts';
import { onlyFills } from './fix.ts';

interface ReadRule {
  readonly rule: FormRule;
  /** Null when the condition can’t be read or checked. */
  readonly when: Node | null;
  readonly verdict: Verdict | null;
  /** Where its condition holds; null when that is not known. */
  readonly outcome: Outcome | null;
}

/** What is wrong or doubtful in the rules, one by one and between them. */
export function ruleFindings(design: FormDesign, scope: Scope, add: Add): void {
  // For all rules together: what is beyond it is said.
  const budget = new Budget(BUDGETS.reasoning.form);
  const rules = design.rules.map((rule) => readRule(rule, scope, add, budget));
  for (const { rule, verdict } of rules) {
    verdictFindings(rule, verdict, add);
    const actions = [...rule.then, ...rule.otherwise];
    if (actions.every(isIdle))
      add('caution', 'rules', rule.id, said('findings:ruleIdle', { rule: rule.name }), {
        fix: 'drop-rule',
        rule: rule.id,
      });
    for (const action of actions) actionFindings(rule, action, design, scope, add);
    if (rule.on && onlyFills(rule))
      add('caution', 'rules', rule.id, said('findings:ruleOnlyFills', { rule: rule.name }), {
        fix: 'preset-instead',
        rule: rule.id,
      });
  }
  unreachable(design, rules, add);
  conflicts(rules, design, budget, add);
  const circle = circleOf(design);
  if (circle) {
    const labels = circle.map((key) => design.fields.find((field) => field.key === key)?.label ?? key);
    const rule = design.rules.find((each) => each.on && circle.some((key) => actsOn(each, key)));
    const message =
      circle.length === 2
        ? said('findings:circleSelf', { label: labels[0] ?? '' })
        : said('findings:circle', { labels: [...new Set(labels)] });
    add('error', rule ? 'rules' : 'questions', rule?.id ?? circle[0] ?? '', message);
  }
}

function readRule(rule: FormRule, scope: Scope, add: Add, budget: Budget): ReadRule {
  const parsed = parseExpression(rule.when);
  const problems = parsed.ok ? checkExpression(parsed.value, scope, 'yes-no') : parsed.findings;
  const habit = problems.length > 0 ? rewritten(rule.when, { scope, wants: 'yes-no' }) : null;
  const meant = habit ? parseExpression(habit.text, scope) : null;
  const fix = meant?.ok
    ? ({
        fix: 'write-as',
        rule: rule.id,
        text: printExpression(meant.value),
        shown: printExpression(meant.value, scope),
      } as const)
    : undefined;
  for (const { message } of problems)
    add('error', 'rules', rule.id, said('findings:ruleWrong', { rule: rule.name, message }), fix, 'condition');
  const when = parsed.ok && problems.length === 0 ? parsed.value : null;
  if (!when || !rule.on) return { rule, when, verdict: null, outcome: null };
  const own = budget.part(BUDGETS.reasoning.one);
  return { rule, when, verdict: verdictOn(when, scope, own), outcome: outcomeOf(when, scope, own) };
}

function verdictFindings(rule: FormRule, verdict: Verdict | null, add: Add): void {
  const isPlain = rule.when.trim() === 'true';
  if (verdict?.kind === 'always' && !isPlain && rule.otherwise.length > 0)
    add('caution', 'rules', rule.id, said('findings:ruleAlwaysElse', { rule: rule.name }));
  else if (verdict?.kind === 'always' && rule.then.every((action) => action.do === 'show') && rule.then.length > 0)
    add('caution', 'rules', rule.id, said('findings:ruleAlwaysShow', { rule: rule.name }), {
      fix: 'always-show',
      rule: rule.id,
    });
  if (verdict?.kind !== 'never') return;
  if (rule.otherwise.length > 0) add('caution', 'rules', rule.id, said('findings:ruleNeverThen', { rule: rule.name }));
  else
    add('caution', 'rules', rule.id, said('findings:ruleNever', { rule: rule.name }), {
      fix: 'drop-rule',
      rule: rule.id,
    });
}

/** Questions that wait for rules of which none can ever show them. */
function unreachable(design: FormDesign, rules: readonly ReadRule[], add: Add): void {
  const shows = (actions: readonly Action[], key: string): boolean =>
    actions.some((action) => action.do === 'show' && action.parts.includes(key));
  for (const part of design.parts) {
    const key = partKey(part);
    const showing = rules.filter(({ rule }) => rule.on && (shows(rule.then, key) || shows(rule.otherwise, key)));
    const canShow = ({ rule, verdict }: ReadRule): boolean =>
      (shows(rule.then, key) && verdict?.kind !== 'never') ||
      (shows(rule.otherwise, key) && verdict?.kind !== 'always');
    if (showing.length === 0 || showing.some(canShow)) continue;
    const label =
      part.part === 'question'
        ? (design.fields.find((field) => field.key === key)?.label ?? key)
        : part.part === 'instruction'
          ? said('findings:aText')
          : part.title;
    add(
      'caution',
      'questions',
      key,
      said('findings:neverShown', { label }),
      part.part === 'question' ? { fix: 'take-off', field: key } : undefined,
    );
  }
}

const OPPOSITES: readonly (readonly [Action['do'], Action['do']])[] = [
  ['show', 'hide'],
  ['require', 'hide'],
  ['set', 'clear'],
  ['set', 'set'],
];

/** Rules that want contrary things of the same part, in a case where both hold. */
function conflicts(rules: readonly ReadRule[], design: FormDesign, budget: Budget, add: Add): void {
  const live = rules.filter(({ rule, when }) => rule.on && when !== null);
  for (const [index, first] of live.entries()) {
    for (const second of live.slice(index + 1)) {
      const about = contraryAbout(first.rule.then, second.rule.then);
      if (about === null) continue;
      const together = first.outcome && second.outcome ? canBothHold(first.outcome, second.outcome, budget) : null;
      if (budget.isSpent) {
        tooManyToCompare(live.slice(index), add);
        return;
      }
      if (together === false) continue;
      const label = design.fields.find((field) => field.key === about)?.label ?? about;
      add(
        'caution',
        'rules',
        second.rule.id,
        said('findings:rulesContradict', {
          first: first.rule.name,
          second: second.rule.name,
          label,
          later: second.rule.name,
        }),
      );
    }
  }
}

/** Said once: which rules were not held against those after them, and what to do. */
function tooManyToCompare(left: readonly ReadRule[], add: Add): void {
  const [first] = left;
  if (first)
    add(
      'caution',
      'rules',
      first.rule.id,
      said('findings:rulesNotCompared', { first: first.rule.name, count: left.length - 1 }),
    );
}

function contraryAbout(a: readonly Action[], b: readonly Action[]): string | null {
  for (const one of a) {
    for (const other of b) {
      const isContrary = OPPOSITES.some(
        ([x, y]) => (one.do === x && other.do === y) || (one.do === y && other.do === x),
      );
      const shared = isContrary ? targetsOf(one).find((target) => targetsOf(other).includes(target)) : undefined;
      if (shared !== undefined && !(one.do === 'set' && other.do === 'set' && one.value === other.value)) return shared;
    }
  }
  return null;
}

function targetsOf(action: Action): readonly string[] {
  switch (action.do) {
    case 'show':
    case 'hide':
      return action.parts;
    case 'require':
    case 'lock':
    case 'clear':
      return action.fields;
    case 'set':
    case 'limit':
      return [action.field];
    default:
      return [];
  }
}

/** An action that names nothing yet. */
const isIdle = (action: Action): boolean =>
  'parts' in action ? action.parts.length === 0 : 'fields' in action && action.fields.length === 0;

const actsOn = (rule: FormRule, key: string): boolean =>
  [...rule.then, ...rule.otherwise].some((action) => targetsOf(action).includes(key));

function actionFindings(rule: FormRule, action: Action, design: FormDesign, scope: Scope, add: Add): void {
  const error = (message: Said, part?: string): void =>
    add('error', 'rules', rule.id, message, part === undefined ? undefined : { fix: 'drop-part', rule: rule.id, part });
  const { name } = rule;
  const fieldOf = (key: string): Field | undefined => design.fields.find((field) => field.key === key);
  const isAsked = (key: string): boolean => design.parts.some((part) => part.part === 'question' && part.field === key);
  switch (action.do) {
    case 'show':
    case 'hide':
      for (const key of action.parts)
        if (!design.parts.some((part) => partKey(part) === key))
          error(said('findings:rule.partGone', { rule: name }), key);
      return;
    case 'require':
    case 'lock':
    case 'clear':
      for (const key of action.fields) {
        if (!fieldOf(key)) error(said('findings:rule.fieldGone', { rule: name }), key);
        else if (action.do === 'require' && !isAsked(key) && rule.runs === 'filling')
          error(said('findings:rule.requiresUnasked', { rule: name, label: fieldOf(key)?.label ?? key }), key);
      }
      return;
    case 'set':
      setFindings({ action, rule: name }, fieldOf(action.field), scope, error);
      return;
    case 'limit': {
      const field = fieldOf(action.field);
      if (!field || (field.type.kind !== 'choice' && field.type.kind !== 'choices')) {
        error(said('findings:rule.limitsNoOptions', { rule: name }), action.field);
        return;
      }
      const { options } = field.type;
      const retired = action.options.filter((key) => !options.some((option) => option.key === key && !option.retired));
      if (retired.length > 0)
        add('caution', 'rules', rule.id, said('findings:ruleOffersRetired', { rule: rule.name, label: field.label }), {
          fix: 'drop-retired',
          rule: rule.id,
          field: field.key,
          options: retired,
        });
      if (action.options.length === retired.length)
        error(said('findings:rule.leavesNothing', { rule: name, label: field.label }));
      return;
    }
    case 'warn':
    case 'refuse':
      if (action.text.trim() === '')
        error(said(action.do === 'warn' ? 'findings:rule.warnsEmpty' : 'findings:rule.refusesEmpty', { rule: name }));
      if (action.field !== 'form' && !fieldOf(action.field))
        error(said('findings:rule.saysNowhere', { rule: name }), action.field);
      return;
    case 'jump':
      if (!isPage(action.after, design) || !isPage(action.to, design))
        error(said('findings:rule.jumpsNowhere', { rule: name }), action.to);
      return;
  }
}

function setFindings(
  { action, rule }: { readonly action: Extract<Action, { do: 'set' }>; readonly rule: string },
  field: Field | undefined,
  scope: Scope,
  error: (message: Said, part?: string) => void,
): void {
  if (!field || field.source === 'computed') {
    const message = field
      ? said('findings:rule.setsComputed', { rule, label: field.label })
      : said('findings:rule.fieldGone', { rule });
    error(message, action.field);
    return;
  }
  const { label } = field;
  const parsed = parseExpression(action.value);
  const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
  for (const { message } of problems) error(said('findings:rule.setsWrong', { rule, label, message }));
  if (!parsed.ok || problems.length > 0) return;
  const gives = kindOf(typeOf(parsed.value, scope));
  const wants = kindOf(scopeTypeOf(field));
  if (gives !== wants && gives !== 'unknown')
    error(said('findings:rule.setsOther', { rule, label, gives: kindSaid(gives), wants: kindSaid(wants) }));
}
