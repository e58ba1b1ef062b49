export type {
  ChoiceOption,
  Field,
  FieldValue,
  FileGroup,
  ItemColumn,
  ItemRow,
  Kind,
  KindName,
  KnownFile,
  KnownPerson,
  Level,
  Money,
  Preset,
  RawAnswer,
  RawAnswers,
  RawRow,
  RawSingle,
  Single,
  SingleKind,
  Values,
} from './field.ts';
export { dateInWords } from './kinds/date.ts';
export { isMailAddress } from './kinds/email.ts';
export { bytesInWords, endingsOf, FILE_LIMITS, fileId, fileName, fileObjection, mediaByName } from './kinds/files.ts';
export { expressionValue, itemScope, itemsShown, KIND_NAMES, readAnswer, scopeTypeOf, showValue, storedForm, typedForm, valueFromExpression } from './kinds/index.ts';
export type { Around, NameOf, ReadAnswer } from './kinds/kind.ts';
export type { ItemsShown } from './kinds/lineItems.ts';
export { orderProblems } from './orderProblems.ts';
export type { Problem } from './problem.ts';
export { FACT_NAMES, factSlots, type RequestFacts, requestScope, requestSlots } from './requestScope.ts';
export { type Phase, type Priority, priorities, type Stage, stagesToMoveTo } from './stage.ts';
