import { type Said, said, type Words } from '@tolvek/words';
import { conditionInWords, parseExpression, printExpression, type Scope, valueInWords } from '../expression/index.ts';
import { type Field, NOTHING_AROUND, type Preset, readAnswer, sayValue } from '../register/index.ts';
import { type Action, END, FIRST_PAGE, type FormDesign, type FormRule, partKey } from './design.ts';

type Named = Pick<FormDesign, 'fields' | 'parts'>;

/** Signs of a text where it is only spoken of. */
const START = 40;

/** How a text begins, where it is long. */
export const beginning = (text: string): string => (text.length > START ? `${text.slice(0, START)} …` : text);

/** What a part is called where it is spoken of. */
export function partName({ fields, parts }: Named, key: string): string {
  const part = parts.find((each) => partKey(each) === key);
  if (part?.part === 'section' || part?.part === 'page') return part.title || '…';
  if (part?.part === 'instruction') return beginning(part.text);
  return fields.find((field) => field.key === key)?.label ?? key;
}

/** An expression with its names as people read them; as it is when it can’t be read. */
export function expressionInWords(text: string, scope: Scope): Words {
  const parsed = parseExpression(text);
  if (!parsed.ok) return text;
  const { value } = parsed;
  if (value.kind === 'literal' || value.kind === 'moment') return valueInWords(value.value);
  return printExpression(value, scope);
}

/** A condition as a sentence says it. */
export function whenInWords(text: string, scope: Scope): Words {
  const parsed = parseExpression(text);
  return parsed.ok ? conditionInWords(parsed.value, scope) : text;
}

/** Whether the form asks for a field: what a rule sets stands in place of an answer then. */
const isAnswered = ({ parts }: Named, key: string): boolean =>
  parts.some((part) => part.part === 'question' && part.field === key);

/** What an action does, as the rest of a sentence: `require “Reason”`, `refuse: “…”`. */
export function actionInWords(action: Action, form: Named, scope: Scope): Said {
  const name = (key: string): string => partName(form, key);
  switch (action.do) {
    case 'show':
    case 'hide':
      return said(`rules:${action.do}`, { names: action.parts.map(name) });
    case 'require':
    case 'lock':
    case 'clear':
      return said(`rules:${action.do}`, { names: action.fields.map(name) });
    case 'set': {
      const given = { name: name(action.field), value: expressionInWords(action.value, scope) };
      return said(isAnswered(form, action.field) ? 'rules:setOver' : 'rules:set', given);
    }
    case 'limit': {
      const type = form.fields.find((field) => field.key === action.field)?.type;
      const options = type?.kind === 'choice' || type?.kind === 'choices' ? type.options : [];
      const labels = action.options.map((key) => options.find((option) => option.key === key)?.label ?? key);
      return said('rules:limit', { options: labels, name: name(action.field) });
    }
    case 'warn':
    case 'refuse':
      return action.field === 'form'
        ? said(`rules:${action.do}`, { text: action.text })
        : said(`rules:${action.do}At`, { text: action.text, name: name(action.field) });
    case 'jump':
      return said('rules:jump', { after: pageInWords(action.after, form), to: pageInWords(action.to, form) });
  }
}

function pageInWords(key: string, form: Named): Words {
  if (key === FIRST_PAGE) return said('rules:firstPage');
  return key === END ? said('rules:end') : said('designs:named', { name: partName(form, key) });
}

/** A whole rule in words. */
export function ruleInWords(rule: FormRule, form: Named, scope: Scope): Said {
  const does = (actions: readonly Action[]): readonly Said[] =>
    actions.length === 0 ? [said('rules:nothing')] : actions.map((action) => actionInWords(action, form, scope));
  const given = { condition: whenInWords(rule.when, scope), actions: does(rule.then) };
  const sentence =
    rule.otherwise.length > 0
      ? said('rules:whenElse', { ...given, otherwise: does(rule.otherwise) })
      : said('rules:when', given);
  const timed = rule.runs === 'saving' ? said('rules:atSaving', { sentence }) : sentence;
  return rule.on ? timed : said('rules:off', { sentence: timed });
}

/** A field’s default in words. */
export function presetInWords(field: Field, preset: Preset, form: Named, scope: Scope): Words {
  switch (preset.from) {
    case 'fixed': {
      const read = readAnswer(field, preset.value, NOTHING_AROUND);
      return read.state === 'value' ? sayValue(field, read.value) : String(preset.value);
    }
    case 'today':
      if (preset.plus === 0) return said('presets:today');
      return preset.plus > 0
        ? said('presets:daysFromToday', { count: preset.plus })
        : said('presets:daysAgo', { count: -preset.plus });
    case 'now':
      return said('presets:now');
    case 'me':
      return said('presets:requester');
    case 'department':
      return said('presets:requesterTeam');
    case 'field':
      return said('designs:named', { name: partName(form, preset.field) });
    case 'formula':
      return expressionInWords(preset.formula, scope);
  }
}
