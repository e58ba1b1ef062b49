import { allQuestionsOf, type FormDesign, type FormRule } from '../form/index.ts';
import type { Field } from '../register/index.ts';

/** Lasting, among the rules of a form: that what it is about is shown and not asked. */
const LOCKS = 'given-by-mailing';

/** A field for which the value is known that it is asked about. */
function given(field: Field, value: string): Field {
  if (field.source !== 'asked') return field;
  const { type } = field;
  const preset = { from: 'fixed', value } as const;
  // Whoever sends it has chosen what it is about: it need not be among what the question offers otherwise.
  if (type.kind === 'reference') {
    const { offered: _, ...kind } = type;
    return { ...field, type: { ...kind, among: 'all' }, preset };
  }
  return type.kind === 'person' ? { ...field, type: { ...type, from: [] }, preset } : field;
}

/** A form as it is asked about something: the question for it is answered, and shown without being asked. */
export function askedAbout(design: FormDesign, field: string, value: string): FormDesign {
  const lock: FormRule = {
    ...{ id: LOCKS, name: '', says: '', when: 'true', otherwise: [], on: true, runs: 'filling' },
    then: [{ do: 'lock', fields: [field] }],
  };
  return {
    ...design,
    fields: design.fields.map((each) => (each.key === field ? given(each, value) : each)),
    rules: [...design.rules, lock],
  };
}

/** Whether a question of a form can say what it is about: a person, or a request of a register (by its key). */
export function canSay(
  design: Pick<FormDesign, 'fields' | 'parts' | 'editions'>,
  field: string,
  register: string | null,
): boolean {
  const found = design.fields.find(({ key }) => key === field);
  if (found?.source !== 'asked' || !allQuestionsOf(design).some((question) => question.field === field)) return false;
  const { type } = found;
  return register === null ? type.kind === 'person' : type.kind === 'reference' && type.register === register;
}
