export { ASKS, type Chosen, chooseEdition, type Opening, type Verdict } from './choose.ts';
export { ASKING, aboutPart, differenceKey } from './edition.ts';
export { editionOf } from './editionOf.ts';
export { type Layout, layoutOf } from './layout.ts';
export { whoGets } from './whoGets.ts';
export { differenceInWords, verdictInWords, withOwnParts } from './words.ts';
