import { type Said, said, type Words } from '@tolvek/words';
import { checkExpression, kindOf, kindSaid, parseExpression, type Scope, typeOf } from '../../expression/index.ts';
import {
  type Field,
  type FilledField,
  isFilled,
  itemScope,
  kindObjections,
  NOTHING_AROUND,
  optionObjections,
  type Preset,
  readAnswer,
  scopeTypeOf,
} from '../../register/index.ts';
import { allQuestionsOf, type FormDesign } from '../design.ts';
import type { Add } from './finding.ts';

/**
 * What is wrong or doubtful in the fields: their names, options, scales, columns, formulas and
 * defaults.
 */
export function fieldFindings(design: FormDesign, scope: Scope, used: ReadonlySet<string>, add: Add): void {
  const labels = new Set<string>();
  const asked = new Set(allQuestionsOf(design).map((question) => question.field));
  for (const field of design.fields) {
    const label = field.label.trim().toLowerCase();
    if (label === '') add('error', 'questions', field.key, said('findings:noLabel'));
    else if (labels.has(label))
      add('caution', 'questions', field.key, said('findings:sameLabel', { label: field.label }));
    labels.add(label);
    kindFindings(field, add);
    if (field.source === 'computed') formulaFindings(field, field.formula, scope, add);
    else if (isFilled(field)) presetFindings(field, design, scope, add);
    if (field.source === 'asked' && !asked.has(field.key) && !used.has(field.key)) {
      add('caution', 'questions', field.key, said('findings:unusedField', { label: field.label }), {
        fix: 'ask-field',
        field: field.key,
      });
    }
    if (field.source !== 'asked' && asked.has(field.key)) {
      add('error', 'questions', field.key, said(`findings:notAskable.${field.source}`, { label: field.label }), {
        fix: 'take-off',
        field: field.key,
      });
    }
  }
}

function kindFindings(field: Field, add: Add): void {
  const { type } = field;
  for (const { message, why } of kindObjections(field.label, type))
    add(
      'error',
      'questions',
      field.key,
      message,
      why === 'no-options' ? { fix: 'offer-first', field: field.key } : undefined,
    );
  if (type.kind !== 'line-items') return;
  if (type.columns.every((column) => column.formula !== undefined))
    add('error', 'questions', field.key, said('findings:linesAskNothing', { label: field.label }));
  const scope = itemScope(type);
  for (const column of type.columns) {
    const called = column.label || said('findings:aColumn');
    const name = { key: field.key, label: said('findings:columnOf', { field: field.label, column: called }) };
    if (column.label.trim() === '')
      add('error', 'questions', field.key, said('findings:columnNoLabel', { label: field.label }));
    if (column.type.kind === 'choice')
      for (const { message } of optionObjections(name.label, column.type.options))
        add('error', 'questions', field.key, message);
    if (column.formula !== undefined) formulaFindings({ ...name, type: column.type }, column.formula, scope, add);
  }
}

interface Computing extends Pick<Field, 'key' | 'type'> {
  readonly label: Words;
}

function formulaFindings(field: Computing, formula: string, scope: Scope, add: Add): void {
  const parsed = parseExpression(formula);
  const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
  for (const { message } of problems)
    add('error', 'questions', field.key, said('findings:formulaWrong', { label: field.label, message }));
  if (!parsed.ok || problems.length > 0) return;
  const gives = kindOf(typeOf(parsed.value, scope));
  const wants = kindOf(scopeTypeOf(field));
  if (gives !== wants && gives !== 'unknown')
    add(
      'error',
      'questions',
      field.key,
      said('findings:computedAs', { label: field.label, gives: kindSaid(gives), wants: kindSaid(wants) }),
    );
}

export function presetFindings(field: FilledField, design: FormDesign, scope: Scope, add: Add): void {
  const { preset } = field;
  if (!preset) return;
  if (preset.from === 'formula') {
    formulaFindings(
      { ...field, label: said('findings:defaultOf', { label: field.label }) },
      preset.formula,
      scope,
      add,
    );
    return;
  }
  const objection = presetObjection(field, preset, design);
  if (objection) add('error', 'questions', field.key, objection);
}

/**
 * Kinds whose answers name something that is kept elsewhere: what can be chosen is looked at when
 * somebody asks.
 */
const NAMED_KINDS: ReadonlySet<string> = new Set(['person', 'people', 'term', 'terms', 'reference', 'references']);

/** The kinds that a default of the house fits. */
const HOUSE_PRESETS: Readonly<Record<'today' | 'now' | 'me' | 'department', readonly Field['type']['kind'][]>> = {
  today: ['date', 'date-time'],
  now: ['date', 'date-time'],
  me: ['person', 'people'],
  department: ['text', 'long-text'],
};

/** What is wrong with a default; null when it fits. */
function presetObjection(field: Field, preset: Exclude<Preset, { from: 'formula' }>, design: FormDesign): Said | null {
  const { label } = field;
  const { kind } = field.type;
  if (preset.from === 'fixed') {
    // Days that have passed are looked at when somebody asks, and so is who can be picked.
    const read = NAMED_KINDS.has(kind) ? null : readAnswer(field, preset.value, NOTHING_AROUND);
    return read?.state === 'wrong'
      ? said('findings:presetWrong', { label, message: read.message, fix: read.fix })
      : null;
  }
  if (preset.from === 'field') {
    const other = design.fields.find((each) => each.key === preset.field);
    if (!other) return said('findings:presetLostField', { label });
    return kindOf(scopeTypeOf(other)) === kindOf(scopeTypeOf(field))
      ? null
      : said('findings:presetOtherField', { label, other: other.label });
  }
  return HOUSE_PRESETS[preset.from].includes(kind) ? null : said(`findings:presetOther.${preset.from}`, { label });
}
