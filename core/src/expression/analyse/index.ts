export { cellSet, type Example, implies, overlapOf, type Verdict, verdictOn } from './conditions.ts';
export { both, complement, type Domain, domainOf, isNothing, isWhole, sampleOf, type ValueSet, wholeOf } from './sets.ts';
