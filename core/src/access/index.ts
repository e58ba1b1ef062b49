export { type Access, accessTo, type Relation } from './accessTo.ts';
export { relationTo, type RequestParties, restrictedKeys } from './relation.ts';
export type { AccessLevel, AccessPlan, AccessRule } from './plan.ts';
export {
  readableKeys,
  reveal,
  type Revealed,
  revealChanges,
  revealForLetter,
  revealReason,
  revealSubject,
  type ValueChange,
  type VisibleChange,
  type VisibleField,
  type VisibleReason,
  type VisibleValues,
} from './reveal.ts';
