import { said, type Words } from '@tolvek/words';
import { checkExpression, compile, kindOf, namesIn, parseExpression, Scope, typeOf } from '../expression/index.ts';
import { own } from '../own/index.ts';
import {
  expressionValue,
  type Field,
  type Kind,
  type Problem,
  type ReferenceKind,
  type RequestFacts,
  requestScope,
  requestSlots,
  scopeTypeOf,
  type Values,
} from '../register/index.ts';
import type { FormDesign } from './design.ts';

/** What a condition calls the request that is offered. */
export const OFFERED = 'it';

type Referring = Extract<Kind, { kind: 'reference' | 'references' }>;

export const isReferring = (type: Kind): type is Referring => type.kind === 'reference' || type.kind === 'references';

/** What a reference points into. */
export interface TargetRegister {
  readonly fields: readonly Field[];
  readonly stages: readonly { readonly key: string; readonly label: string }[];
  /** Keys of fields that are no names here: its plan hides them from somebody. */
  readonly restricted?: readonly string[];
}

/** One request that may be offered. */
export interface OfferTarget {
  readonly values: Values;
  readonly stage: string;
}

const openIn = ({ fields, restricted }: TargetRegister): readonly Field[] =>
  fields.filter((field) => !restricted?.includes(field.key));

/**
 * The names that the condition of a reference may use: those of the form, and under `it` the stage
 * and the fields of what is offered.
 */
export function offerScope(fields: readonly Field[], target: TargetRegister): Scope {
  const open = openIn(target);
  const entries = {
    stage: { label: said('reasons:stageOffered'), type: { kind: 'choice', options: target.stages } as const },
    ...Object.fromEntries(open.map((field) => [field.key, { label: field.label, type: scopeTypeOf(field) }])),
  };
  return new Scope([
    ...requestScope(fields).names,
    { name: OFFERED, label: said('reasons:entryOffered'), type: { kind: 'context', entries } },
  ]);
}

/** Whether a request is offered, with the other answers as they are. */
export type OfferTest = (target: OfferTarget, values: Values, facts: RequestFacts) => boolean;

/**
 * Prepares a reference’s condition. What is offered has to fulfil it: where it can’t be said, as an
 * answer it needs is empty, nothing is offered yet.
 */
export function prepareOffer(type: ReferenceKind, fields: readonly Field[], register: TargetRegister): OfferTest {
  if (!type.offered?.trim()) return () => true;
  const parsed = parseExpression(type.offered);
  if (!parsed.ok) return () => false;
  const holds = compile(parsed.value, offerScope(fields, register));
  const open = openIn(register);
  return (target, values, facts) => {
    const it = {
      stage: target.stage,
      ...Object.fromEntries(open.map((field) => [field.key, expressionValue(field, own(target.values, field.key))])),
    };
    return holds([...requestSlots(fields, values, facts), it], null) === true;
  };
}

/** What is wrong with the condition of a reference, in sentences. */
export function offerFindings(
  type: ReferenceKind,
  fields: readonly Field[],
  register: TargetRegister,
): readonly Words[] {
  if (!type.offered?.trim()) return [];
  const parsed = parseExpression(type.offered);
  if (!parsed.ok) return parsed.findings.map((finding) => finding.message);
  const scope = offerScope(fields, register);
  const problems = checkExpression(parsed.value, scope).map((finding) => finding.message);
  const gives = kindOf(typeOf(parsed.value, scope));
  return problems.length > 0 || gives === 'yes-no' || gives === 'unknown'
    ? problems
    : [said('findings:limitIsCondition')];
}

/**
 * What a form carries along and shows of the requests of a register: nothing else of them leaves
 * their own desk.
 */
export function fieldsBrought(design: Pick<FormDesign, 'fields'>, reference: Field): readonly string[] {
  const carried = design.fields.flatMap((field) =>
    field.source === 'carried' && field.reference === reference.key ? [field.field] : [],
  );
  return isReferring(reference.type) ? [...new Set([...reference.type.shows, ...carried])] : [];
}

/**
 * Fields whose answers only the house can look at, together: what no two requests may have, and a
 * reference with what limits its offer.
 */
export function lookedAtTogether({
  unique,
  fields,
}: Pick<FormDesign, 'unique' | 'fields'>): readonly (readonly string[])[] {
  const limited = fields.flatMap((field) => {
    const { type } = field;
    if (!isReferring(type) || !type.offered?.trim()) return [];
    const reads = namesIn(type.offered).filter((name) =>
      fields.some((each) => each.key === name && each.source === 'asked'),
    );
    return [[field.key, ...reads.filter((key) => key !== field.key)]];
  });
  return [...unique.map((rule) => rule.fields), ...limited];
}

/** The problem of a reference to something that is not offered with these answers; what it is is not named. */
export const notOffered = (field: Pick<Field, 'key' | 'label'>): Problem => ({
  field: field.key,
  message: said('answers:choiceNotOffered', { label: field.label }),
  fix: said('answers:chooseOrChange'),
});
