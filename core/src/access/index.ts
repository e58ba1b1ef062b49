export { type Access, accessTo, type Relation } from './accessTo.ts';
export type { AccessLevel, AccessPlan, AccessRule } from './plan.ts';
export { type RequestParties, relationTo, restrictedKeys } from './relation.ts';
export {
  fieldsNamed,
  openFields,
  type Revealed,
  readableKeys,
  reveal,
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
