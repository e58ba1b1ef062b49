export type { ChoiceOption, Field, FieldValue, Kind, KindName, Money, RawAnswer, RawAnswers, Values } from './field.ts';
export { dateInWords } from './kinds/date.ts';
export { isMailAddress } from './kinds/email.ts';
export { expressionValue, readAnswer, showValue, storedForm } from './kinds/index.ts';
export { orderProblems } from './orderProblems.ts';
export type { Problem } from './problem.ts';
export { FACT_NAMES, type RequestFacts, requestScope, requestSlots } from './requestScope.ts';
export { type Phase, type Priority, priorities, type Stage, stagesToMoveTo } from './stage.ts';
