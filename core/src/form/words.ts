import { parseExpression, printExpression, type Scope } from '../expression/index.ts';
import { type Field, NOTHING_AROUND, type Preset, readAnswer, showValue } from '../register/index.ts';
import { type Action, END, FIRST_PAGE, type FormDesign, type FormRule, partKey } from './design.ts';

type Named = Pick<FormDesign, 'fields' | 'parts'>;

const quoted = (words: readonly string[]): string => words.map((word) => `“${word}”`).join(', ');

/** What a part is called where it is spoken of. */
export function partName({ fields, parts }: Named, key: string): string {
  const part = parts.find((each) => partKey(each) === key);
  if (part?.part === 'section' || part?.part === 'page') return part.title || `a ${part.part}`;
  if (part?.part === 'instruction') return `${part.text.slice(0, 40)}${part.text.length > 40 ? ' …' : ''}`;
  return fields.find((field) => field.key === key)?.label ?? key;
}

/** An expression with its names as people read them; as it is when it can’t be read. */
export function expressionInWords(text: string, scope: Scope): string {
  const parsed = parseExpression(text);
  return parsed.ok ? printExpression(parsed.value, scope) : text;
}

/** Whether the form asks for a field: what a rule sets stands in place of an answer then. */
const isAnswered = ({ parts }: Named, key: string): boolean =>
  parts.some((part) => part.part === 'question' && part.field === key);

/** What an action does, as the rest of a sentence: `asks for “Reason”`, `refuses: “…”`. */
export function actionInWords(action: Action, form: Named, scope: Scope): string {
  const name = (key: string): string => partName(form, key);
  const page = (key: string): string =>
    key === FIRST_PAGE ? 'the first page' : key === END ? 'the end' : `“${name(key)}”`;
  switch (action.do) {
    case 'show':
    case 'hide':
      return `${action.do} ${quoted(action.parts.map(name))}`;
    case 'require':
    case 'lock':
    case 'clear':
      return `${action.do} ${quoted(action.fields.map(name))}`;
    case 'set':
      return `set “${name(action.field)}” to ${expressionInWords(action.value, scope)}${isAnswered(form, action.field) ? ', whatever was answered' : ''}`;
    case 'limit': {
      const type = form.fields.find((field) => field.key === action.field)?.type;
      const options = type?.kind === 'choice' || type?.kind === 'choices' ? type.options : [];
      return `offer only ${quoted(action.options.map((key) => options.find((option) => option.key === key)?.label ?? key))} for “${name(action.field)}”`;
    }
    case 'warn':
      return `warn${action.field === 'form' ? '' : ` at “${name(action.field)}”`}: “${action.text}”`;
    case 'refuse':
      return `refuse${action.field === 'form' ? '' : ` at “${name(action.field)}”`}: “${action.text}”`;
    case 'jump':
      return `go on from ${page(action.after)} at ${page(action.to)}`;
  }
}

/** A whole rule in words. */
export function ruleInWords(rule: FormRule, form: Named, scope: Scope): string {
  const said = (actions: readonly Action[]): string =>
    actions.map((action) => actionInWords(action, form, scope)).join('; ');
  const otherwise = rule.otherwise.length > 0 ? `; otherwise ${said(rule.otherwise)}` : '';
  return `${rule.on ? '' : 'Off: '}when ${expressionInWords(rule.when, scope)}, ${said(rule.then) || 'nothing'}${otherwise}${rule.runs === 'saving' ? ' (at every saving)' : ''}`;
}

/** A field’s default in words. */
export function presetInWords(field: Field, preset: Preset, form: Named, scope: Scope): string {
  switch (preset.from) {
    case 'fixed': {
      const read = readAnswer(field, preset.value, NOTHING_AROUND);
      return read.state === 'value' ? showValue(field, read.value) : String(preset.value);
    }
    case 'today':
      return preset.plus === 0
        ? 'today'
        : preset.plus > 0
          ? `${preset.plus} days from today`
          : `${-preset.plus} days ago`;
    case 'now':
      return 'now';
    case 'me':
      return 'who asks';
    case 'department':
      return 'the team of who asks';
    case 'field':
      return `“${partName(form, preset.field)}”`;
    case 'formula':
      return expressionInWords(preset.formula, scope);
  }
}
