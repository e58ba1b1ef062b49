import { type Compiled, compile, parseExpression } from '../expression/index.ts';
import {
  type Field,
  type FieldValue,
  orderProblems,
  type Problem,
  type RawAnswers,
  type RequestFacts,
  readAnswer,
  requestScope,
  requestSlots,
  type Values,
} from '../register/index.ts';
import type { FormDesign, Question } from './design.ts';

/** What a set of answers comes to: which questions are asked, the values to store, and every problem. */
export interface Completion {
  readonly asked: readonly Question[];
  /** Values of asked questions only: the answer to a hidden question is never stored. */
  readonly values: Values;
  readonly problems: readonly Problem[];
}

/**
 * Prepares a form for completing answers, once per release. The browser runs the result at every keystroke, the server on
 * every submit; both get the same answer for the same input.
 */
export function prepareCompletion(design: Pick<FormDesign, 'fields' | 'questions' | 'rules'>): (answers: RawAnswers, facts: RequestFacts) => Completion {
  const scope = requestScope(design.fields);
  const fields = new Map(design.fields.map((field) => [field.key, field]));
  const rules = design.rules
    .filter((rule) => rule.on)
    .map((rule) => {
      const parsed = parseExpression(rule.when);
      const holds: Compiled = parsed.ok ? compile(parsed.value, scope) : () => null;
      return { show: rule.show, holds };
    });
  const governed = new Set(rules.flatMap((rule) => rule.show));
  const askedFields = new Set(design.questions.map((question) => question.field));

  return (answers, facts) => {
    const understood = new Map<string, FieldValue>();
    const wrong = new Map<string, Problem>();
    const strangers: Problem[] = [];
    for (const [key, raw] of Object.entries(answers)) {
      const field = fields.get(key);
      if (field?.source !== 'asked' || !askedFields.has(key)) {
        strangers.push({ field: key, message: `This form does not ask for “${key}”.`, fix: 'Leave it out.' });
        continue;
      }
      const result = readAnswer(field, raw, facts.today);
      if (result.state === 'value') understood.set(key, result.value);
      if (result.state === 'wrong') wrong.set(key, { field: key, message: result.message, fix: result.fix });
    }
    const shown = settleVisible(design, governed, askedFields, rules, understood, facts);
    const asked = design.questions.filter((question) => shown.has(question.field));
    const values: Record<string, FieldValue> = {};
    const problems: Problem[] = [];
    for (const question of asked) {
      const value = understood.get(question.field);
      const problem = wrong.get(question.field) ?? (value === undefined && question.required ? missing(question, fields) : undefined);
      if (problem) problems.push(problem);
      if (value !== undefined) values[question.field] = value;
    }
    return { asked, values, problems: [...problems, ...orderProblems(design.fields, values), ...strangers] };
  };
}

/**
 * Which questions are visible. A condition reads only answers to visible questions, so showing is repeated until nothing
 * changes; each round can only follow one more link of a chain, and a circle ends after as many rounds as there are rules.
 */
function settleVisible(
  design: Pick<FormDesign, 'fields' | 'questions'>,
  governed: ReadonlySet<string>,
  asked: ReadonlySet<string>,
  rules: readonly { readonly show: readonly string[]; readonly holds: Compiled }[],
  understood: ReadonlyMap<string, FieldValue>,
  facts: RequestFacts,
): ReadonlySet<string> {
  const always = design.questions.flatMap((question) => (governed.has(question.field) ? [] : [question.field]));
  let shown = new Set(always);
  const all = requestSlots(design.fields, Object.fromEntries(understood), facts);
  for (let round = 0; round <= rules.length; round += 1) {
    const slots = all.map((value, slot) => {
      const field = design.fields[slot];
      return field && !shown.has(field.key) ? null : value;
    });
    const next = new Set(always);
    for (const rule of rules) if (rule.holds(slots, null) === true) for (const key of rule.show) if (asked.has(key)) next.add(key);
    const settled = next.size === shown.size && [...next].every((key) => shown.has(key));
    shown = next;
    if (settled) break;
  }
  return shown;
}

function missing(question: Question, fields: ReadonlyMap<string, Field>): Problem {
  const field = fields.get(question.field);
  const asks = question.asks || field?.label || question.field;
  const pick = field?.type.kind === 'choice' || field?.type.kind === 'yes-no' || field?.type.kind === 'date';
  return { field: question.field, message: `“${asks}” has no answer yet.`, fix: pick ? 'Choose one.' : 'Fill it in.' };
}
