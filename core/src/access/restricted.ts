import type { Field } from '../register/index.ts';
import { planned } from './accessTo.ts';
import { classesOf } from './classes.ts';
import type { AccessPlan } from './plan.ts';
import type { Protection } from './protection.ts';

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
