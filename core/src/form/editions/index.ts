export {
  ASKS,
  type Chosen,
  chooseEdition,
  type Leading as LeadingEdition,
  leadsByAnswers,
  ledByAnswers,
  type Opening,
  type Verdict,
} from './choose.ts';
export { ASKING, aboutPart, differenceKey } from './edition.ts';
export { editionOf } from './editionOf.ts';
export { formsLedTo, type Leading, roundBy } from './elsewhere.ts';
export { type Layout, layoutOf } from './layout.ts';
export { whoGets } from './whoGets.ts';
export { differenceInWords, elsewhereInWords, verdictInWords, withOwnParts } from './words.ts';
