export { fieldsShared } from './shared.ts';
export { calledIn, canGroup, canOrder, canSum, kindIn, type OrderWay, orderWay } from './subjects.ts';
export {
  isFact,
  MOST_OF_VIEW,
  subjectsOfView,
  VIEW_FACTS,
  VIEW_LOOKS_AT,
  type ViewColumn,
  type ViewDesign,
  type ViewFact,
  type ViewMark,
  type ViewOrder,
} from './view.ts';
export { type AroundView, VIEW } from './viewDesign.ts';
export { viewScope } from './viewScope.ts';
export { orderSaid, VIEW_PARTS, type ViewNames, type ViewPart, viewInParts, viewInWords } from './words.ts';
