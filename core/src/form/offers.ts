import { said, type Words } from '@tolvek/words';
import {
  chainOf,
  checkExpression,
  compile,
  entriesRead,
  kindOf,
  type Node,
  namesIn,
  namesRead,
  parseExpression,
  Scope,
  type Slots,
  typeOf,
} from '../expression/index.ts';
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
export type OfferTest<Target extends OfferTarget = OfferTarget> = (
  target: Target,
  values: Values,
  facts: RequestFacts,
) => boolean;

/**
 * Prepares a reference’s condition. What is offered has to fulfil it: where it can’t be said, as an
 * answer it needs is empty, nothing is offered yet.
 */
export function prepareOffer(type: ReferenceKind, fields: readonly Field[], register: TargetRegister): OfferTest {
  if (!type.offered?.trim()) return () => true;
  const parsed = parseExpression(type.offered);
  if (!parsed.ok) return () => false;
  const holds = compile(parsed.value, offerScope(fields, register));
  const slots = slotsFor(fields, register);
  return (...asked) => holds(slots(...asked), null) === true;
}

/** The values of the names in `offerScope`, for one request that may be offered. */
function slotsFor(fields: readonly Field[], register: TargetRegister) {
  const open = openIn(register);
  return (target: OfferTarget, values: Values, facts: RequestFacts): Slots => {
    const it = {
      stage: target.stage,
      ...Object.fromEntries(open.map((field) => [field.key, expressionValue(field, own(target.values, field.key))])),
    };
    return [...requestSlots(fields, values, facts), it];
  };
}

/** What keeps a request from being offered. */
export interface Obstacles {
  /** `stage`, and the keys of its fields that decide the conditions which do not hold. */
  readonly things: readonly string[];
  /** The keys of questions that conditions wait for, which can’t be said yet. */
  readonly answers: readonly string[];
}

/** What keeps a request from being offered: nothing where it is, and where the answers alone decide it. */
export type OfferObstacles<Target extends OfferTarget = OfferTarget> = (
  target: Target,
  values: Values,
  facts: RequestFacts,
) => Obstacles;

const NOTHING_IN_THE_WAY: Obstacles = { things: [], answers: [] };

/** Prepares what `prepareOffer` refuses for: of conditions that all have to hold, those that do not. */
export function prepareObstacles(
  type: ReferenceKind,
  fields: readonly Field[],
  register: TargetRegister,
): OfferObstacles {
  const parsed = parseExpression(type.offered ?? '');
  if (!parsed.ok) return () => NOTHING_IN_THE_WAY;
  const scope = offerScope(fields, register);
  const known = new Set(['stage', ...openIn(register).map(({ key }) => key)]);
  const questions = new Set(fields.flatMap(({ key, source }) => (source === 'asked' ? [key] : [])));
  const all = parsed.value.kind === 'and' ? chainOf(parsed.value, 'and') : [parsed.value];
  const conditions = all.map((node: Node) => ({
    holds: compile(node, scope),
    reads: entriesRead(node, OFFERED).filter((key) => known.has(key)),
    answers: namesRead([node]).filter((name) => questions.has(name)),
  }));
  const slots = slotsFor(fields, register);
  return (...asked) => {
    const given = slots(...asked);
    const [, values] = asked;
    const found = conditions.map(({ holds, reads, answers }) => {
      const result = holds(given, null);
      if (result === true) return NOTHING_IN_THE_WAY;
      const awaited = result === null ? answers.filter((key) => own(values, key) === undefined) : [];
      return awaited.length > 0 ? { things: [], answers: awaited } : { things: reads, answers: [] };
    });
    return {
      things: [...new Set(found.flatMap(({ things }) => things))],
      answers: [...new Set(found.flatMap(({ answers }) => answers))],
    };
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

/** The fields of a register that whoever fills in a form is told of what a reference offers. */
export const fieldsTold = (design: Pick<FormDesign, 'fields'>, reference: Field): readonly string[] => [
  ...new Set([...fieldsBrought(design, reference), ...fieldsOnCards(reference.type)]),
];

/** The fields of a register that stand on the cards of a reference. */
export const fieldsOnCards = (type: Kind): readonly string[] =>
  isReferring(type) && type.cards
    ? [...type.cards.facts, ...(type.cards.picture === undefined ? [] : [type.cards.picture])]
    : [];

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
