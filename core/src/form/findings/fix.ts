import { type Said, said, type Words } from '@tolvek/words';
import { type ApprovalPath, withAgain, withStepsOf } from '../../approval/index.ts';
import { parseExpression } from '../../expression/index.ts';
import { own } from '../../own/index.ts';
import { type Field, isFilled } from '../../register/index.ts';
import { type ComputedName, withFormula } from '../../routing/index.ts';
import type { Action, ActionName, Edition, FormDesign, FormRule } from '../design.ts';
import { differenceKey } from '../editions/index.ts';

/** A step that mends a finding. */
export type Fix =
  | { readonly fix: 'drop-rule' | 'preset-instead' | 'always-show'; readonly rule: string }
  | { readonly fix: 'drop-part'; readonly rule: string; readonly part: string }
  | { readonly fix: 'drop-field' | 'ask-field' | 'take-off' | 'offer-first'; readonly field: string }
  | { readonly fix: 'drop-retired'; readonly rule: string; readonly field: string; readonly options: readonly string[] }
  | { readonly fix: 'add-row'; readonly column: string; readonly option: string }
  /** One thing a rule does, about one field or part. */
  | { readonly fix: 'drop-action'; readonly rule: string; readonly does: ActionName; readonly about: string }
  | { readonly fix: 'drop-preset' | 'drop-limit' | 'drop-order'; readonly field: string }
  /** Requesters read fields by the desk’s names for them. */
  | { readonly fix: 'call-so'; readonly fields: readonly string[] }
  | { readonly fix: 'preset-profile'; readonly field: string; readonly profile: string }
  | { readonly fix: 'drop-unique'; readonly unique: string }
  | { readonly fix: 'drop-column'; readonly column: string }
  | { readonly fix: 'drop-formula'; readonly row: string; readonly of: ComputedName }
  /** A step of the approval that is asked whatever the answers are. */
  | { readonly fix: 'always-asked'; readonly step: string }
  /** An approval path by which a changed field asks nobody again. */
  | { readonly fix: 'not-again'; readonly path: string; readonly field: string }
  | { readonly fix: 'drop-word'; readonly part: string; readonly field: string }
  /** One thing that an edition has otherwise. */
  | { readonly fix: 'drop-difference'; readonly edition: string; readonly difference: string }
  | { readonly fix: 'drop-shown'; readonly edition: string; readonly fields: readonly string[] }
  | { readonly fix: 'drop-stage'; readonly edition: string; readonly stage: string }
  /**
   * The condition of a rule, written as the language has it; `shown`: with fields by their labels.
   */
  | { readonly fix: 'write-as'; readonly rule: string; readonly text: string; readonly shown: string };

/** The step in words, for its button. */
export function fixInWords(step: Fix): Said {
  switch (step.fix) {
    case 'write-as':
      return said('fixes:writeAs', { text: step.shown });
    case 'drop-rule':
      return said('fixes:removeRule');
    case 'preset-instead':
      return said('fixes:useDefault');
    case 'always-show':
      return said('fixes:alwaysShow');
    case 'drop-part':
      return said('fixes:removeFromRule');
    case 'drop-field':
      return said('fixes:removeField');
    case 'ask-field':
      return said('fixes:addQuestion');
    case 'take-off':
      return said('fixes:removeQuestion');
    case 'offer-first':
      return said('fixes:addOption');
    case 'drop-retired':
      return said('fixes:removeRetired');
    case 'add-row':
      return said('fixes:addRow');
    case 'drop-action':
      return said('fixes:removeFromRule');
    case 'drop-preset':
      return said('fixes:removeDefault');
    case 'drop-limit':
      return said('fixes:removeLimit');
    case 'drop-order':
      return said('fixes:removeOrder');
    case 'call-so':
      return said('fixes:callSo');
    case 'preset-profile':
      return said('fixes:presetProfile');
    case 'drop-unique':
      return said('fixes:removeUnique');
    case 'drop-column':
      return said('fixes:removeColumn');
    case 'drop-formula':
      return said('fixes:removeFormula');
    case 'always-asked':
      return said('fixes:alwaysAsk');
    case 'not-again':
      return said('fixes:notAgain');
    case 'drop-word':
      return said('fixes:removeFromText');
    case 'drop-difference':
      return said('fixes:removeDifference');
    case 'drop-shown':
      return said('fixes:removeShown');
    case 'drop-stage':
      return said('fixes:removeStage');
  }
}

/** A field that is filled in beforehand from the profile of whoever fills the form in. */
export const presetFromProfile = (design: FormDesign, key: string, profile: string): FormDesign => ({
  ...design,
  fields: design.fields.map((field) =>
    field.key === key && isFilled(field)
      ? { ...field, preset: { from: 'formula' as const, formula: `requester.${profile}` } }
      : field,
  ),
});

/** A path that is not begun anew when a field changes. */
const againWithout = (path: ApprovalPath, field: string): ApprovalPath =>
  withAgain(path, path.again?.filter((key) => key !== field) ?? []);

/** The draft with one finding mended. A step that no longer fits changes nothing. */
export function applyFix(design: FormDesign, step: Fix, told: (words: Words) => string): FormDesign {
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
    case 'call-so':
      return {
        ...design,
        fields: design.fields.map((field) =>
          step.fields.includes(field.key) ? { ...field, called: field.label } : field,
        ),
      };
    case 'preset-profile':
      return presetFromProfile(design, step.field, step.profile);
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
                { key: freeKey(field.type.options.map((each) => each.key)), label: told(said('workshop:firstOption')) },
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
    case 'drop-action':
      return inRule(design, step.rule, (action) => withoutAction(action, step.does, step.about));
    case 'drop-preset':
    case 'drop-limit':
    case 'drop-order':
      return {
        ...design,
        fields: design.fields.map((field) => (field.key === step.field ? without(field, step.fix) : field)),
      };
    case 'drop-unique':
      return { ...design, unique: design.unique.filter((rule) => rule.id !== step.unique) };
    case 'drop-column':
      return withoutColumn(design, step.column);
    case 'drop-formula':
      return { ...design, routing: withoutFormula(design.routing, step.row, step.of) };
    case 'always-asked':
      return {
        ...design,
        approval: withStepsOf(design.approval, (each) => {
          const { when: _, ...always } = each;
          return each.id === step.step ? always : each;
        }),
      };
    case 'not-again':
      return {
        ...design,
        approval: {
          paths: design.approval.paths.map((path) => (path.id === step.path ? againWithout(path, step.field) : path)),
        },
      };
    case 'drop-word':
      return {
        ...design,
        parts: design.parts.map((part) =>
          part.part === 'instruction' && part.id === step.part
            ? { ...part, text: part.text.replaceAll(`{${step.field}}`, '').replace(/ {2,}/g, ' ').trim() }
            : part,
        ),
      };
    case 'drop-difference':
      return inEdition(design, step.edition, (edition) => ({
        ...edition,
        differences: edition.differences.filter((each) => differenceKey(each) !== step.difference),
      }));
    case 'drop-shown':
      return inEdition(design, step.edition, (edition) => ({
        ...edition,
        differences: edition.differences.map((each) =>
          each.does === 'only' ? { ...each, shows: each.shows.filter((key) => !step.fields.includes(key)) } : each,
        ),
      }));
    case 'drop-stage':
      return inEdition(design, step.edition, ({ stages = [], ...edition }) => {
        const left = stages.filter((key) => key !== step.stage);
        return left.length > 0 ? { ...edition, stages: left } : { ...edition, on: false };
      });
  }
}

const inEdition = (design: FormDesign, id: string, edit: (edition: Edition) => Edition): FormDesign => ({
  ...design,
  editions: (design.editions ?? []).map((edition) => (edition.id === id ? edit(edition) : edition)),
});

/** A field without its default, what limits its offer, or the field it may not be before. */
function without(field: Field, what: 'drop-preset' | 'drop-limit' | 'drop-order'): Field {
  if (what === 'drop-preset') {
    if (!isFilled(field)) return field;
    const { preset: _, ...plain } = field;
    return plain;
  }
  const { offered: _, notBefore: __, ...type } = field.type as Field['type'] & { offered?: string; notBefore?: string };
  return { ...field, type } as Field;
}

/** A draft whose routing no longer asks for something; rows that then ask for nothing go as well. */
function withoutColumn(design: FormDesign, column: string): FormDesign {
  const { routing } = design;
  const rows = routing.rows.flatMap((row) => {
    const dropped = own(row.cells, column) ?? '';
    const cells = Object.fromEntries(Object.entries(row.cells).filter(([id]) => id !== column));
    const asksNothing = Object.values(cells).every((cell) => cell.trim() === '');
    return dropped.trim() !== '' && asksNothing ? [] : [{ ...row, cells }];
  });
  return { ...design, routing: { ...routing, columns: routing.columns.filter((each) => each.id !== column), rows } };
}

/** A table of which a row no longer computes something: what stands beside it counts. */
function withoutFormula(routing: FormDesign['routing'], row: string, of: ComputedName): FormDesign['routing'] {
  return {
    ...routing,
    rows: routing.rows.map((each) =>
      each.id === row ? { ...each, outcome: withFormula(each.outcome, of, null) } : each,
    ),
    otherwise: row === 'otherwise' ? withFormula(routing.otherwise, of, null) : routing.otherwise,
  };
}

/** What is left of an action of one kind about a field or part. */
function withoutAction(action: Action, does: ActionName, about: string): Action | null {
  if (action.do !== does) return action;
  if (action.do === 'warn' || action.do === 'refuse') return action.field === about ? null : action;
  return withoutPart(action, about);
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
