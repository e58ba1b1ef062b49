export { cellSet, type Example, implies, overlapOf, type Verdict, verdictOn } from './conditions.ts';
export {
  both,
  type Domain,
  domainOf,
  isNothing,
  isWhole,
  type Part,
  partition,
  rankOf,
  sampleOf,
  type ValueSet,
  wholeOf,
} from './sets.ts';
