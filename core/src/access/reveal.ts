import type { Explanation } from '../expression/index.ts';
import type { Viewer } from '../people/index.ts';
import { FACT_NAMES, type Field, type FieldValue, type NameOf, showValue, type Values } from '../register/index.ts';
import { accessTo, planned, type Relation } from './accessTo.ts';
import { classesOf } from './classes.ts';
import type { AccessPlan } from './plan.ts';
import type { Protection } from './protection.ts';

declare const revealed: unique symbol;

/**
 * Only `reveal` and its kin make this type: whatever leaves the server with field values in it must
 * carry it.
 */
export type Revealed<T> = T & { readonly [revealed]: true };

export interface VisibleField {
  readonly key: string;
  readonly label: string;
  readonly value: FieldValue | null;
  readonly shown: string;
  readonly writable: boolean;
  readonly source: Field['source'];
}

export interface VisibleValues {
  readonly fields: readonly VisibleField[];
  /** Named for the desk, so that nobody wonders; requesters are not told what they can't see. */
  readonly withheld: readonly { readonly label: string; readonly rule: string }[];
}

export interface RevealInput {
  readonly protection: Protection;
  /** Those to project, when not all are wanted. */
  readonly only?: readonly Field[];
  readonly values: Values;
  readonly viewer: Viewer;
  readonly relation: Relation;
  /** How people are called. */
  readonly nameOf: NameOf;
}

/**
 * Projects a request's values to what one viewer may see. Nothing else in the house may hand values
 * out.
 */
export function reveal(input: RevealInput): Revealed<VisibleValues> {
  const fields: VisibleField[] = [];
  const withheld: { label: string; rule: string }[] = [];
  for (const field of input.only ?? input.protection.fields) {
    const access = accessTo(field, input.protection, input.viewer, input.relation);
    if (access.level === 'hidden') {
      if (input.relation.isDesk) withheld.push({ label: field.label, rule: access.rule });
      continue;
    }
    const value = Object.hasOwn(input.values, field.key) ? (input.values[field.key] ?? null) : null;
    fields.push({
      key: field.key,
      label: field.label,
      value,
      shown: value === null ? '' : showValue(field, value, input.nameOf),
      writable: access.level === 'write',
      source: field.source,
    });
  }
  return { fields, withheld } as unknown as Revealed<VisibleValues>;
}

/**
 * The same values without fields that the plan hides from somebody of the desk: what may go into a
 * letter to this viewer. Those stay in the house even for a reader who may see them there.
 */
export function revealForLetter(input: RevealInput): Revealed<VisibleValues> {
  return reveal({ ...input, only: openFields(input.protection) });
}

const open = new WeakMap<Protection, readonly Field[]>();
const hidden = new WeakMap<AccessPlan, Map<string, boolean>>();

/** Whether the plan hides a field from anybody who may ever work at the desk. */
export function isRestricted(field: Field, plan: AccessPlan): boolean {
  let known = hidden.get(plan);
  if (!known) hidden.set(plan, (known = new Map()));
  let found = known.get(field.key);
  if (found === undefined) {
    const concerned = { rules: plan.rules.filter((rule) => rule.fields === 'all' || rule.fields.includes(field.key)) };
    const classes = concerned.rules.some((rule) => rule.level === 'hidden') ? classesOf(concerned) : [];
    // Kinds of viewer too many to be told apart: nothing is called open then.
    found =
      classes === null ||
      classes.some(
        (each) =>
          each.relation.isDesk &&
          !each.relation.isRequester &&
          planned(field, concerned, each, each.relation).level === 'hidden',
      );
    known.set(field.key, found);
  }
  return found;
}

/**
 * The fields that the plan hides from nobody of the desk, nor any field they are made from: only
 * these leave the register’s own desk.
 */
export function openFields(protection: Protection): readonly Field[] {
  let found = open.get(protection);
  if (!found) {
    const { fields, plan, madeFrom, isClosedElsewhere } = protection;
    found = fields.filter(
      (field) =>
        ![field, ...madeFrom(field.key)].some((each) => isClosedElsewhere(each.key) || isRestricted(each, plan)),
    );
    open.set(protection, found);
  }
  return found;
}

/** The keys a viewer may read, for projecting what speaks of fields without being their values. */
export function readableKeys({
  protection,
  viewer,
  relation,
}: Pick<RevealInput, 'protection' | 'viewer' | 'relation'>): ReadonlySet<string> {
  return new Set(
    protection.fields
      .filter((field) => accessTo(field, protection, viewer, relation).level !== 'hidden')
      .map((field) => field.key),
  );
}

export interface VisibleReason {
  readonly words: string;
  readonly result: boolean | null;
  readonly parts: readonly VisibleReason[];
}

/**
 * An explanation as this viewer may read it: a part that read a hidden field keeps its verdict, not
 * its values.
 */
export function revealReason(reason: Explanation, readable: ReadonlySet<string>): Revealed<VisibleReason> {
  const open = reason.reads.every((name) => FACT_NAMES.has(name) || readable.has(name));
  const visible: VisibleReason = {
    words: open ? reason.words : reason.guarded,
    result: reason.result,
    parts: open ? reason.parts.map((part) => revealReason(part, readable)) : [],
  };
  return visible as unknown as Revealed<VisibleReason>;
}

export interface ValueChange {
  readonly field: string;
  readonly before: FieldValue | null;
  readonly after: FieldValue | null;
}

export interface VisibleChange {
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

/** The changes of a history entry that this viewer may read. */
export function revealChanges(
  changes: readonly ValueChange[],
  fields: readonly Field[],
  readable: ReadonlySet<string>,
  nameOf: NameOf,
): Revealed<readonly VisibleChange[]> {
  const visible = changes.flatMap((change) => {
    const field = fields.find((each) => each.key === change.field);
    if (!field || !readable.has(change.field)) return [];
    const show = (value: FieldValue | null): string => (value === null ? '' : showValue(field, value, nameOf));
    return [{ label: field.label, before: show(change.before), after: show(change.after) }];
  });
  return visible as unknown as Revealed<readonly VisibleChange[]>;
}

/** The fields a subject line is filled with. */
export const fieldsNamed = (template: string, fields: readonly Field[]): readonly Field[] =>
  fields.filter((field) => template.includes(`{${field.key}}`));

/**
 * The subject line of a request, filled only with what was revealed. Empty parts leave no stray
 * commas.
 */
export function revealSubject(template: string, visible: Revealed<VisibleValues>, fallback: string): Revealed<string> {
  const filled = template.replace(
    /\{(\w+)\}/g,
    (_, key: string) => visible.fields.find((field) => field.key === key)?.shown ?? '',
  );
  const tidy = filled
    .replace(/\s+/g, ' ')
    .replace(/(\s*[,·–-]\s*)+(?=[,·–-]|$)/g, '')
    .replace(/^[\s,·–-]+/, '')
    .trim();
  return (tidy || fallback) as Revealed<string>;
}
