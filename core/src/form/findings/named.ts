import { type Said, said } from '@tolvek/words';
import { entriesIn } from '../../expression/index.ts';
import {
  type Field,
  isFilled,
  type Kind,
  type ReferenceKind,
  termByKey,
  type Vocabulary,
} from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { fieldsOnCards, fieldsTold, isReferring, OFFERED, offerFindings } from '../offers.ts';
import type { Add, Finding } from './finding.ts';

/** A register as references from other forms may know it. */
export interface KnownRegister {
  readonly key: string;
  readonly name: string;
  readonly fields: readonly Field[];
  readonly stages: readonly { readonly key: string; readonly label: string }[];
  /**
   * Keys of the fields that a rule of its access plan restricts: nothing of them goes anywhere
   * else.
   */
  readonly restricted: readonly string[];
}

/** What of the house fields name: vocabularies and other registers. */
export interface Named {
  readonly vocabularies: readonly Vocabulary[];
  readonly registers: readonly KnownRegister[];
}

/**
 * What is wrong with fields that name something kept elsewhere: terms, references, what they carry
 * along, running numbers.
 */
export function namedFindings(
  design: FormDesign,
  { vocabularies, registers }: Named,
  outside: boolean,
  add: Add,
): void {
  for (const field of design.fields) {
    const error = (message: Said): void => add('error', 'questions', field.key, message);
    for (const type of termKinds(field.type)) {
      const vocabulary = vocabularies.find((each) => each.key === type.vocabulary);
      if (!vocabulary) error(said('findings:lostVocabulary', { label: field.label }));
      else if (type.under !== undefined && !termByKey(vocabulary, type.under))
        error(said('findings:lostBranch', { label: field.label, vocabulary: vocabulary.name }));
    }
    if (field.type.kind === 'running-number') {
      if (field.type.prefix.trim() === '') error(said('findings:numberNeedsPrefix', { label: field.label }));
      if (field.source !== 'given') error(said('findings:numberIsGiven', { label: field.label }));
    } else if (field.source === 'given') error(said('findings:onlyNumbersGiven', { label: field.label }));
    if (isReferring(field.type)) referenceFindings(field, design, registers, outside, add);
    if (field.source === 'carried') carriedFindings(field, design, registers, error);
  }
}

/** What one reference shows, asks by or brings along of a register that its plan closes to somebody. */
function broughtOf(
  field: Field & { readonly type: ReferenceKind },
  design: Pick<FormDesign, 'fields'>,
  { fields, name, restricted }: KnownRegister,
): readonly Finding[] {
  const asked = entriesIn(field.type.offered ?? '', OFFERED).filter((key) => restricted.includes(key));
  const brought = fieldsTold(design, field).filter((key) => restricted.includes(key));
  return [...new Set([...brought, ...asked])].map((key) => ({
    severity: 'error',
    page: 'questions',
    at: field.key,
    message: said(brought.includes(key) ? 'findings:wouldShow' : 'findings:wouldTest', {
      label: field.label,
      field: fields.find((each) => each.key === key)?.label ?? key,
      register: name,
    }),
  }));
}

/** The same for all references of a form. */
export const broughtFindings = (
  design: Pick<FormDesign, 'fields'>,
  registers: readonly KnownRegister[],
): readonly Finding[] =>
  design.fields.flatMap((field): readonly Finding[] => {
    const { type } = field;
    const register = isReferring(type) ? registers.find((each) => each.key === type.register) : undefined;
    return register && isReferring(type) ? broughtOf({ ...field, type }, design, register) : [];
  });

function termKinds(type: Kind): readonly Extract<Kind, { kind: 'term' | 'terms' }>[] {
  if (type.kind === 'term' || type.kind === 'terms') return [type];
  return type.kind === 'line-items'
    ? type.columns.flatMap((column) => (column.type.kind === 'term' ? [column.type] : []))
    : [];
}

function referenceFindings(
  field: Field,
  design: FormDesign,
  registers: readonly KnownRegister[],
  outside: boolean,
  add: Add,
): void {
  if (!isReferring(field.type)) return;
  const { type } = field;
  const register = registers.find((each) => each.key === type.register);
  if (!register) {
    add('error', 'questions', field.key, said('findings:lostRegister', { label: field.label }));
    return;
  }
  for (const key of [...type.shows, ...fieldsOnCards(type)]) {
    if (!register.fields.some((each) => each.key === key))
      add(
        'error',
        'questions',
        field.key,
        said('findings:showsLostField', { label: field.label, register: register.name }),
      );
  }
  for (const { severity, page, at, message } of broughtOf({ ...field, type }, design, register))
    add(severity, page, at, message);
  if (type.shows.length === 0)
    add(
      'caution',
      'questions',
      field.key,
      said('findings:showsOnlyNumbers', { label: field.label, register: register.name }),
    );
  const { picture } = type.cards ?? {};
  const kept = register.fields.find(({ key }) => key === picture);
  if (kept && kept.type.kind !== 'files')
    add('error', 'questions', field.key, said('findings:noPictures', { label: field.label, field: kept.label }));
  for (const message of offerFindings(type, design.fields, register))
    add('error', 'questions', field.key, said('findings:offerWrong', { label: field.label, message }));
  const isAsked = isFilled(field) && field.source === 'asked';
  if (isAsked && outside && type.among !== 'mine') {
    const told = [...new Set([...type.shows, ...(type.cards?.facts ?? [])])];
    const shown = told.map((key) => register.fields.find((each) => each.key === key)?.label ?? key);
    add(
      'caution',
      'questions',
      field.key,
      said('findings:outsideSearch', {
        label: field.label,
        register: register.name,
        fields: [...shown, said('findings:byNumber')],
      }),
    );
  }
}

function carriedFindings(
  field: Extract<Field, { source: 'carried' }>,
  design: FormDesign,
  registers: readonly KnownRegister[],
  error: (message: Said) => void,
): void {
  const pointer = design.fields.find((each) => each.key === field.reference);
  if (pointer?.type.kind !== 'reference') {
    error(said('findings:carriedLostReference', { label: field.label }));
    return;
  }
  const { register: key } = pointer.type;
  const register = registers.find((each) => each.key === key);
  const source = register?.fields.find((each) => each.key === field.field);
  if (register && !source) error(said('findings:carriedLostField', { label: field.label, register: register.name }));
  else if (source && source.type.kind !== field.type.kind)
    error(said('findings:carriedOtherKind', { label: field.label, source: source.label }));
}
