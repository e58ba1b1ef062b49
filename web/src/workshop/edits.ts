import type { FormDesign, Question } from '@tolvek/core/form';
import type { Field, Kind, KindName } from '@tolvek/core/register';

export const KIND_NAMES: readonly { readonly kind: KindName; readonly label: string }[] = [
  { kind: 'text', label: 'Text' },
  { kind: 'long-text', label: 'Long text' },
  { kind: 'number', label: 'Number' },
  { kind: 'money', label: 'Money' },
  { kind: 'date', label: 'Date' },
  { kind: 'duration', label: 'Length of time' },
  { kind: 'yes-no', label: 'Yes or no' },
  { kind: 'choice', label: 'Choice' },
  { kind: 'email', label: 'Mail address' },
  { kind: 'phone', label: 'Telephone' },
  { kind: 'link', label: 'Link' },
];

function freshType(kind: KindName): Kind {
  switch (kind) {
    case 'number':
      return { kind, places: 0 };
    case 'money':
      return { kind, currency: 'EUR' };
    case 'choice':
      return { kind, options: [{ key: 'first', label: 'First option' }] };
    default:
      return { kind };
  }
}

/** A key from a label that nothing here has yet: `Car plate` becomes `car_plate`, then `car_plate_2`. */
export function freshKey(label: string, taken: ReadonlySet<string>): string {
  const stem =
    label
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^[_0-9]+|_+$/g, '')
      .slice(0, 50) || 'field';
  if (!taken.has(stem)) return stem;
  for (let n = 2; ; n += 1) if (!taken.has(`${stem}_${n}`)) return `${stem}_${n}`;
}

/** Adds a question with a field of its own at the end of the form. */
export function addQuestion(design: FormDesign, kind: KindName): { design: FormDesign; key: string } {
  const named = KIND_NAMES.find((each) => each.kind === kind)?.label ?? 'Question';
  const key = freshKey(`${named} field`, new Set(design.fields.map((field) => field.key)));
  const field: Field = { key, label: `New ${named.toLowerCase()}`, type: freshType(kind), source: 'asked' };
  return { key, design: { ...design, fields: [...design.fields, field], questions: [...design.questions, { field: key, asks: '', help: '', required: false }] } };
}

export function moveQuestion(design: FormDesign, key: string, to: number): FormDesign {
  const from = design.questions.findIndex((question) => question.field === key);
  if (from < 0 || to < 0 || to >= design.questions.length || from === to) return design;
  const questions = [...design.questions];
  const [moved] = questions.splice(from, 1);
  if (moved) questions.splice(to, 0, moved);
  return { ...design, questions };
}

export const editField = (design: FormDesign, key: string, edit: Partial<Field>): FormDesign => ({
  ...design,
  fields: design.fields.map((field) => (field.key === key ? { ...field, ...edit } : field)),
});

export const editQuestion = (design: FormDesign, key: string, edit: Partial<Question>): FormDesign => ({
  ...design,
  questions: design.questions.map((question) => (question.field === key ? { ...question, ...edit } : question)),
});

/** Takes a question off the form. A field that was never released goes with it; a released one keeps its answers. */
export function dropQuestion(design: FormDesign, key: string, released: boolean): FormDesign {
  const questions = design.questions.filter((question) => question.field !== key);
  const rules = design.rules.map((rule) => ({ ...rule, show: rule.show.filter((each) => each !== key) }));
  return { ...design, questions, rules, fields: released ? design.fields : design.fields.filter((field) => field.key !== key) };
}
