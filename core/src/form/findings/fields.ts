import { checkExpression, KIND_WORDS, kindOf, parseExpression, type Scope, typeOf } from '../../expression/index.ts';
import {
  type ChoiceOption,
  type Field,
  type FilledField,
  isFilled,
  itemScope,
  NOTHING_AROUND,
  type Preset,
  readAnswer,
  scopeTypeOf,
} from '../../register/index.ts';
import { type FormDesign, questionsOf } from '../design.ts';
import type { Add } from './finding.ts';

/**
 * What is wrong or doubtful in the fields: their names, options, scales, columns, formulas and
 * defaults.
 */
export function fieldFindings(design: FormDesign, scope: Scope, used: ReadonlySet<string>, add: Add): void {
  const labels = new Set<string>();
  const asked = new Set(questionsOf(design.parts).map((question) => question.field));
  for (const field of design.fields) {
    const label = field.label.trim().toLowerCase();
    if (label === '') add('error', 'questions', field.key, 'A field has no label.');
    else if (labels.has(label))
      add(
        'caution',
        'questions',
        field.key,
        `Two fields are called “${field.label}”; people can’t tell them apart in the ledger.`,
      );
    labels.add(label);
    kindFindings(field, add);
    if (field.source === 'computed') formulaFindings(field, field.formula, scope, add);
    else if (isFilled(field)) presetFindings(field, design, scope, add);
    if (field.source === 'asked' && !asked.has(field.key) && !used.has(field.key)) {
      add('caution', 'questions', field.key, `“${field.label}” is not asked, and nothing else reads it.`, {
        fix: 'ask-field',
        field: field.key,
      });
    }
    if (field.source !== 'asked' && asked.has(field.key)) {
      add('error', 'questions', field.key, `“${field.label}” is ${field.source}, so it can’t be asked.`, {
        fix: 'take-off',
        field: field.key,
      });
    }
  }
}

function optionFindings(
  field: Pick<Field, 'key' | 'label'>,
  options: readonly ChoiceOption[],
  add: Add,
  fixable: boolean,
): void {
  if (options.every((option) => option.retired))
    add(
      'error',
      'questions',
      field.key,
      `“${field.label}” offers no options.`,
      fixable ? { fix: 'offer-first', field: field.key } : undefined,
    );
  if (options.some((option) => option.label.trim() === ''))
    add('error', 'questions', field.key, `An option of “${field.label}” has no label.`);
}

function kindFindings(field: Field, add: Add): void {
  const { type } = field;
  if (type.kind === 'choice' || type.kind === 'choices') optionFindings(field, type.options, add, true);
  if (type.kind === 'level') {
    if (type.levels.filter((level) => !level.retired).length < 2)
      add('error', 'questions', field.key, `The scale of “${field.label}” needs two levels at least.`);
    if (type.levels.some((level, index) => index > 0 && level.worth <= (type.levels[index - 1]?.worth ?? 0)))
      add('error', 'questions', field.key, `The levels of “${field.label}” must rise from one to the next.`);
  }
  if (
    (type.kind === 'number' || type.kind === 'money') &&
    type.least !== undefined &&
    type.most !== undefined &&
    type.least > type.most
  )
    add('error', 'questions', field.key, `“${field.label}” allows nothing: its least is above its most.`);
  if (type.kind !== 'line-items') return;
  if (type.columns.every((column) => column.formula !== undefined))
    add('error', 'questions', field.key, `“${field.label}” asks nothing in its lines. Add a column.`);
  const scope = itemScope(type);
  for (const column of type.columns) {
    const name = { key: field.key, label: `${field.label}, ${column.label || 'a column'}` };
    if (column.label.trim() === '') add('error', 'questions', field.key, `A column of “${field.label}” has no label.`);
    if (column.type.kind === 'choice') optionFindings(name, column.type.options, add, false);
    if (column.formula !== undefined) formulaFindings({ ...name, type: column.type }, column.formula, scope, add);
  }
}

function formulaFindings(field: Pick<Field, 'key' | 'label' | 'type'>, formula: string, scope: Scope, add: Add): void {
  const parsed = parseExpression(formula);
  const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
  for (const problem of problems) add('error', 'questions', field.key, `“${field.label}”: ${problem.message}`);
  if (!parsed.ok || problems.length > 0) return;
  const gives = kindOf(typeOf(parsed.value, scope));
  const wants = kindOf(scopeTypeOf(field));
  if (gives !== wants && gives !== 'unknown')
    add(
      'error',
      'questions',
      field.key,
      `“${field.label}” is computed as ${KIND_WORDS[gives]}, but holds ${KIND_WORDS[wants]}.`,
    );
}

function presetFindings(field: FilledField, design: FormDesign, scope: Scope, add: Add): void {
  const { preset } = field;
  if (!preset) return;
  if (preset.from === 'formula') {
    formulaFindings({ ...field, label: `Default of ${field.label}` }, preset.formula, scope, add);
    return;
  }
  const objection = presetObjection(field, preset, design);
  if (objection) add('error', 'questions', field.key, `The default of “${field.label}”${objection}`);
}

/**
 * Kinds whose answers name something that is kept elsewhere: what can be chosen is looked at when
 * somebody asks.
 */
const NAMED_KINDS: ReadonlySet<string> = new Set(['person', 'people', 'term', 'terms', 'reference', 'references']);

/** The kinds that a default of the house fits, and what it is. */
const HOUSE_PRESETS: Readonly<
  Record<
    'today' | 'now' | 'me' | 'department',
    { readonly fits: readonly Field['type']['kind'][]; readonly is: string }
  >
> = {
  today: { fits: ['date', 'date-time'], is: 'a day' },
  now: { fits: ['date', 'date-time'], is: 'a moment' },
  me: { fits: ['person', 'people'], is: 'a person' },
  department: { fits: ['text', 'long-text'], is: 'a team’s name' },
};

/** What is wrong with a default, as the rest of the sentence; null when it fits. */
function presetObjection(
  field: Field,
  preset: Exclude<Preset, { from: 'formula' }>,
  design: FormDesign,
): string | null {
  const { kind } = field.type;
  if (preset.from === 'fixed') {
    // Days that have passed are looked at when somebody asks, and so is who can be picked.
    const read = NAMED_KINDS.has(kind) ? null : readAnswer(field, preset.value, NOTHING_AROUND);
    return read?.state === 'wrong' ? `: ${read.message} ${read.fix}` : null;
  }
  if (preset.from === 'field') {
    const other = design.fields.find((each) => each.key === preset.field);
    if (!other) return ' is a field that does not exist.';
    return kindOf(scopeTypeOf(other)) === kindOf(scopeTypeOf(field))
      ? null
      : ` is “${other.label}”, which does not fit.`;
  }
  const { fits, is } = HOUSE_PRESETS[preset.from];
  return fits.includes(kind) ? null : ` is ${is}, which does not fit.`;
}
