export { type Access, accessTo, type Relation } from './accessTo.ts';
export { classesOf, classInWords, groupsTold, type ViewerClass } from './classes.ts';
export { type FlowInput, type Leak, leaksOf } from './flow.ts';
export { type MayAsk, mayAsk } from './mayAsk.ts';
export { Origins, type Step } from './origins.ts';
export type { AccessLevel, AccessPlan, AccessRule, Disclosure } from './plan.ts';
export { protect } from './protect.ts';
export type { Protection } from './protection.ts';
export { REGISTER, type RegisterContent } from './registerDesign.ts';
export { type RequestParties, relationTo } from './relation.ts';
export {
  fieldsNamed,
  isRestricted,
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
export { type Guard, type Read, type Readers, SINKS, type Sink, type SinkKind } from './sinks.ts';
