import type { FormDesign, FormRule, Ground, Instruction, Page, Section } from '@tolvek/core/form';
import { type ChoiceOption, type Field, isFilled, type OptionColour } from '@tolvek/core/register';
import { english } from '@tolvek/words/english';

/** A form of the scenario, with what its making needs. */
export interface DemoForm {
  readonly prefix: string;
  /** The group that works at its desk. */
  readonly desk: string;
  readonly doors: { readonly staff: boolean; readonly outside: boolean };
  /** Whether its requests are things other forms point to. */
  readonly holds?: 'things';
  readonly design: FormDesign;
}

export const ground = (title: string, team: string, approvers = 'duty-managers'): Ground => ({
  told: english,
  title,
  team,
  approvers,
  calendar: 'desk',
});

export const options = (...labels: readonly (readonly [string, string, string?])[]): readonly ChoiceOption[] =>
  labels.map(([key, label, help]) => ({ key, label, ...(help === undefined ? {} : { help }) }));

/** Options with the colours they are marked by, in their order. */
export const coloured = (list: readonly ChoiceOption[], colours: readonly OptionColour[]): readonly ChoiceOption[] =>
  list.map((option, index) => ({ ...option, ...(colours[index] ? { colour: colours[index] } : {}) }));

export const section = (id: string, title: string, text = ''): Section => ({
  part: 'section',
  id: `section-${id}`,
  title,
  text,
});
export const page = (id: string, title: string, text = ''): Page => ({ part: 'page', id: `page-${id}`, title, text });
export const words = (id: string, text: string): Instruction => ({ part: 'instruction', id: `words-${id}`, text });

export const rule = (
  id: string,
  name: string,
  when: string,
  then: FormRule['then'],
  more: Partial<FormRule> = {},
): FormRule => ({
  id,
  name,
  says: '',
  when,
  then,
  otherwise: [],
  on: true,
  runs: 'filling',
  ...more,
});

/** A field with a default. */
export const withPreset = (
  design: FormDesign,
  key: string,
  preset: Extract<Field, { preset?: unknown }>['preset'],
): FormDesign => ({
  ...design,
  fields: design.fields.map((field) => (field.key === key && isFilled(field) && preset ? { ...field, preset } : field)),
});

export const computed = (key: string, label: string, type: Field['type'], formula: string): Field => ({
  key,
  label,
  type,
  source: 'computed',
  formula,
});
export const carried = (
  key: string,
  label: string,
  type: Field['type'],
  reference: string,
  field: string,
  live: boolean,
): Field => ({
  key,
  label,
  type,
  source: 'carried',
  reference,
  field,
  live,
});
/** A field that requesters read by the name that the desk has for it. */
export const calledSo = (field: Field): Field => ({ ...field, called: field.label });
export const deskOnly = (key: string, label: string, type: Field['type']): Field => ({
  key,
  label,
  type,
  source: 'desk-only',
});
