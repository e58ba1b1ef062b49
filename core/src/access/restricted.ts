import { columnsOf, type Field } from '../register/index.ts';
import { planned } from './accessTo.ts';
import { classesOf } from './classes.ts';
import { ACTIVITIES, type AccessPlan, type AccessRule, type Activity, concernedWith, isPlaced } from './plan.ts';
import type { Protection } from './protection.ts';

const open = new WeakMap<Protection, Map<string, readonly Field[]>>();
const hidden = new WeakMap<AccessPlan, Map<string, boolean>>();

/**
 * Whether the plan hides a field, or a column of its lines, from anybody who may ever work at the desk, whatever becomes of
 * a request. `activities`: those that are looked at.
 */
export const isRestricted = (field: Field, plan: AccessPlan, activities: readonly Activity[] = ACTIVITIES): boolean =>
  [field, ...columnsOf(field)].some((part) => isHidden(part, plan, activities));

function isHidden(field: Field, plan: AccessPlan, activities: readonly Activity[]): boolean {
  let known = hidden.get(plan);
  if (!known) hidden.set(plan, (known = new Map()));
  const name = `${field.key} ${activities.join()}`;
  let found = known.get(name);
  if (found === undefined) {
    const concerned = concernedWith(plan, [field.key]);
    const isOpen = isPlaced(plan, field) && plan.base?.desk !== 'hidden' && !concerned.rules.some(mayHide);
    const classes = isOpen ? [] : classesOf(concerned, activities);
    // Kinds of viewer too many to be told apart: nothing is called open then.
    found =
      classes === null ||
      classes.some(
        (each) =>
          each.relation.isDesk &&
          !each.relation.isRequester &&
          planned(field, concerned, each, each.relation, each.at).level === 'hidden',
      );
    known.set(name, found);
  }
  return found;
}

const mayHide = ({ level, exceptions = [] }: AccessRule): boolean =>
  level === 'hidden' || exceptions.some((each) => each.level === 'hidden');

/**
 * The fields that the plan hides from nobody of the desk, nor any field they are made from: only
 * these leave the register’s own desk. `activities`: where only some of what is done with a request matters.
 */
export function openFields(protection: Protection, activities: readonly Activity[] = ACTIVITIES): readonly Field[] {
  let known = open.get(protection);
  if (!known) open.set(protection, (known = new Map()));
  const name = activities.join();
  let found = known.get(name);
  if (!found) {
    const { fields, plan, madeFrom, isClosedElsewhere } = protection;
    found = fields.filter(
      (field) =>
        ![field, ...columnsOf(field), ...madeFrom(field.key)].some(
          (each) => isClosedElsewhere(each.key) || isHidden(each, plan, activities),
        ),
    );
    known.set(name, found);
  }
  return found;
}
