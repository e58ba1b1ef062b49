import { allQuestionsOf, type FormDesign, type FormRule } from '../form/index.ts';
import type { Field, RawAnswer } from '../register/index.ts';
import { ITSELF } from './mailing.ts';

/** Lasting, among the rules of a form: that what it is about is shown and not asked. */
const LOCKS = 'given-by-mailing';

/** A field for which the value is known that it is asked about. */
function given(field: Field, value: RawAnswer): Field {
  if (field.source !== 'asked') return field;
  const { type } = field;
  const preset = { from: 'fixed', value } as const;
  // Whoever sends it has chosen what it is about: it need not be among what the question offers otherwise.
  if (type.kind === 'reference') {
    const { offered: _, ...kind } = type;
    return { ...field, type: { ...kind, among: 'all' }, preset };
  }
  return type.kind === 'person' ? { ...field, type: { ...type, from: [] }, preset } : { ...field, preset };
}

/** An answer that is known before a form is asked. */
export interface KnownAnswer {
  readonly field: string;
  readonly value: RawAnswer;
}

/** A form as it is asked where some answers are known: their questions are answered, and shown without being asked. */
export function askedAbout<Form extends Pick<FormDesign, 'fields' | 'rules'>>(
  design: Form,
  known: readonly KnownAnswer[],
): Form {
  const values = new Map(known.map(({ field, value }) => [field, value]));
  const lock: FormRule = {
    ...{ id: LOCKS, name: '', says: '', when: 'true', otherwise: [], on: true, runs: 'filling' },
    then: [{ do: 'lock', fields: [...values.keys()] }],
  };
  return {
    ...design,
    fields: design.fields.map((field) => {
      const value = values.get(field.key);
      return value === undefined ? field : given(field, value);
    }),
    rules: [...design.rules, lock],
  };
}

/** Whether a question of a form can say what it is about: a person, or a request of a register (by its key). */
export function canSay(
  design: Pick<FormDesign, 'fields' | 'parts' | 'editions' | 'updates'>,
  field: string,
  register: string | null,
  /** The register whose form it is: an update form is about what it changes. */
  own: string | null = null,
): boolean {
  if (field === ITSELF) return design.updates !== undefined && register !== null && register === own;
  const found = design.fields.find(({ key }) => key === field);
  if (found?.source !== 'asked' || !allQuestionsOf(design).some((question) => question.field === field)) return false;
  const { type } = found;
  return register === null ? type.kind === 'person' : type.kind === 'reference' && type.register === register;
}
