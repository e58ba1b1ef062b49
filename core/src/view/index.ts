export { conditionFor } from './conditionFor.ts';
export { beginOf, enoughIn, measured, nextOf, stretchesBetween } from './measures.ts';
export { fieldsShared } from './shared.ts';
export {
  calledIn,
  canBoard,
  canDate,
  canGroup,
  canMeasure,
  canOrder,
  canSum,
  kindIn,
  type OrderWay,
  orderWay,
} from './subjects.ts';
export {
  type BoardShape,
  type CalendarShape,
  CELLS,
  type ChartShape,
  type ChartStretch,
  isFact,
  type MatrixCell,
  type MatrixShape,
  MEASURES,
  type Measure,
  type MeasureKind,
  MOST_OF_VIEW,
  STRETCHES,
  subjectsOfShape,
  subjectsOfView,
  VIEW_FACTS,
  VIEW_LOOKS_AT,
  type ViewColumn,
  type ViewDesign,
  type ViewFact,
  type ViewMark,
  type ViewOrder,
  type ViewShape,
} from './view.ts';
export { type AroundView, VIEW } from './viewDesign.ts';
export { viewScope } from './viewScope.ts';
export {
  measureSaid,
  orderSaid,
  shapeSaid,
  VIEW_PARTS,
  type ViewNames,
  type ViewPart,
  viewInParts,
  viewInWords,
} from './words.ts';
