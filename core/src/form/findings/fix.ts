import { parseExpression } from '../../expression/index.ts';
import { type Field, isFilled } from '../../register/index.ts';
import type { Action, FormDesign, FormRule } from '../design.ts';

/** A step that mends a finding. */
export type Fix =
  | { readonly fix: 'drop-rule' | 'preset-instead' | 'always-show'; readonly rule: string }
  | { readonly fix: 'drop-part'; readonly rule: string; readonly part: string }
  | { readonly fix: 'drop-field' | 'ask-field' | 'take-off' | 'offer-first'; readonly field: string }
  | { readonly fix: 'drop-retired'; readonly rule: string; readonly field: string; readonly options: readonly string[] }
  | { readonly fix: 'add-row'; readonly column: string; readonly option: string }
  /**
   * The condition of a rule, written as the language has it; `shown`: with fields by their labels.
   */
  | { readonly fix: 'write-as'; readonly rule: string; readonly text: string; readonly shown: string };

/** The step in words, for its button. */
export function fixInWords(step: Fix): string {
  switch (step.fix) {
    case 'write-as':
      return `Write ${step.shown}`;
    case 'drop-rule':
      return 'Take the rule away';
    case 'preset-instead':
      return 'Use a default instead';
    case 'always-show':
      return 'Always ask, without the rule';
    case 'drop-part':
      return 'Take it out of the rule';
    case 'drop-field':
      return 'Take the field away';
    case 'ask-field':
      return 'Ask for it';
    case 'take-off':
      return 'Take it off the form';
    case 'offer-first':
      return 'Add an option';
    case 'drop-retired':
      return 'Take retired options out';
    case 'add-row':
      return 'Add a row for it';
  }
}

/** The draft with one finding mended. A step that no longer fits changes nothing. */
export function applyFix(design: FormDesign, step: Fix): FormDesign {
  switch (step.fix) {
    case 'drop-rule':
    case 'always-show':
      return { ...design, rules: design.rules.filter((rule) => rule.id !== step.rule) };
    case 'preset-instead':
      return presetInstead(design, step.rule);
    case 'drop-part':
      return inRule(design, step.rule, (action) => withoutPart(action, step.part));
    case 'drop-field':
      return { ...design, fields: design.fields.filter((field) => field.key !== step.field) };
    case 'ask-field':
      return design.parts.some((part) => part.part === 'question' && part.field === step.field)
        ? design
        : {
            ...design,
            parts: [...design.parts, { part: 'question', field: step.field, asks: '', help: '', required: false }],
          };
    case 'take-off':
      return withoutTarget(
        { ...design, parts: design.parts.filter((part) => part.part !== 'question' || part.field !== step.field) },
        step.field,
      );
    case 'offer-first':
      return {
        ...design,
        fields: design.fields.map((field): Field => {
          if (field.key !== step.field || (field.type.kind !== 'choice' && field.type.kind !== 'choices')) return field;
          return {
            ...field,
            type: {
              ...field.type,
              options: [
                ...field.type.options,
                { key: freeKey(field.type.options.map((each) => each.key)), label: 'First option' },
              ],
            },
          };
        }),
      };
    case 'drop-retired':
      return inRule(design, step.rule, (action) =>
        action.do === 'limit' && action.field === step.field
          ? { ...action, options: action.options.filter((key) => !step.options.includes(key)) }
          : action,
      );
    case 'add-row':
      return withRow(design, step.column, step.option);
    case 'write-as':
      return {
        ...design,
        rules: design.rules.map((rule) => (rule.id === step.rule ? { ...rule, when: step.text } : rule)),
      };
  }
}

/** A row for one option, before the last one, with the outcome it has now. */
function withRow(design: FormDesign, column: string, option: string): FormDesign {
  const { routing } = design;
  if (!routing.columns.some((each) => each.id === column)) return design;
  const taken = new Set(routing.rows.map((row) => row.id));
  let n = routing.rows.length + 1;
  while (taken.has(`row-${n}`)) n += 1;
  return {
    ...design,
    routing: {
      ...routing,
      rows: [
        ...routing.rows,
        { id: `row-${n}`, note: '', cells: { [column]: JSON.stringify(option) }, outcome: routing.otherwise },
      ],
    },
  };
}

const freeKey = (taken: readonly string[]): string => {
  let n = 1;
  while (taken.includes(`option_${n}`)) n += 1;
  return `option_${n}`;
};

/** A draft whose rules no longer name a part. */
export const withoutTarget = (design: FormDesign, part: string): FormDesign => ({
  ...design,
  rules: design.rules.map((rule) => mapActions(rule, (action) => withoutPart(action, part))),
});

const inRule = (design: FormDesign, id: string, edit: (action: Action) => Action | null): FormDesign => ({
  ...design,
  rules: design.rules.map((rule) => (rule.id === id ? mapActions(rule, edit) : rule)),
});

const mapActions = (rule: FormRule, edit: (action: Action) => Action | null): FormRule => ({
  ...rule,
  then: rule.then.flatMap((action) => edit(action) ?? []),
  otherwise: rule.otherwise.flatMap((action) => edit(action) ?? []),
});

/** An action without a part or field; null when nothing is left of it. */
function withoutPart(action: Action, part: string): Action | null {
  switch (action.do) {
    case 'show':
    case 'hide': {
      const parts = action.parts.filter((each) => each !== part);
      return parts.length > 0 ? { ...action, parts } : null;
    }
    case 'require':
    case 'lock':
    case 'clear': {
      const fields = action.fields.filter((each) => each !== part);
      return fields.length > 0 ? { ...action, fields } : null;
    }
    case 'set':
    case 'limit':
      return action.field === part ? null : action;
    case 'warn':
    case 'refuse':
      return action.field === part ? { ...action, field: 'form' } : action;
    case 'jump':
      return action.after === part || action.to === part ? null : action;
  }
}

/** The one value a rule does no more than fill in; null when it does anything else. */
export function onlyFills(rule: FormRule): { readonly field: string; readonly value: string } | null {
  const [only, ...more] = rule.then;
  if (only?.do !== 'set' || more.length > 0 || rule.otherwise.length > 0) return null;
  const parsed = parseExpression(rule.when);
  if (!parsed.ok) return null;
  const { value: node } = parsed;
  const always = node.kind === 'literal' && node.value === true;
  const whenEmpty =
    node.kind === 'compare' &&
    node.op === '=' &&
    node.left.kind === 'name' &&
    node.left.name === only.field &&
    node.right.kind === 'literal' &&
    node.right.value === null;
  return always || whenEmpty ? { field: only.field, value: only.value } : null;
}

function presetInstead(design: FormDesign, id: string): FormDesign {
  const rule = design.rules.find((each) => each.id === id);
  const fills = rule ? onlyFills(rule) : null;
  if (!fills) return design;
  return {
    ...design,
    rules: design.rules.filter((each) => each.id !== id),
    fields: design.fields.map(
      (field): Field =>
        field.key === fills.field && isFilled(field)
          ? { ...field, preset: { from: 'formula', formula: fills.value } }
          : field,
    ),
  };
}
