export { compareDesigns } from './compare.ts';
export { type Completion, prepareCompletion } from './complete.ts';
export type { FormDesign, FormRule, Question } from './design.ts';
export { type Finding, findingsOf } from './findings.ts';
