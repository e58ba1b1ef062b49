export {
  both,
  canBothHold,
  cellSet,
  type Domain,
  domainOf,
  type Example,
  implies,
  isMember,
  isNothing,
  isWhole,
  type Outcome,
  outcomeOf,
  overlapOf,
  type Part,
  partition,
  rankOf,
  sampleOf,
  type ValueSet,
  type Verdict,
  verdictOn,
  wholeOf,
} from './analyse/index.ts';
export { CalendarDate, ClockTime, DateTime, Duration, Months } from './calendarTime.ts';
export { checkExpression, checkTests, iterationType, typeOf } from './check.ts';
export { columnsRead, type Lists } from './columnsRead.ts';
export { type Compiled, type CompiledTests, compile, compileTests, type Slots } from './compile.ts';
export { compileText } from './compileText.ts';
export { conditionFindings } from './conditionFindings.ts';
export { conditionOf } from './conditionOf.ts';
export { movePoint, roundTo } from './decimal.ts';
export { type Computed, type ComputingOrder, computingOrder, entriesIn, namesIn, orderOf } from './dependencies.ts';
export { type CellAsked, type Explanation, explain, explainCell, explainComputed } from './explain.ts';
export type { ExpressionFinding } from './finding.ts';
export { BUILT_INS, type BuiltIn } from './functions/index.ts';
export { type Rewriting, rewritten } from './habits.ts';
export { LIMITS } from './limits.ts';
export { type Parsed, parseExpression, parseTests } from './parse.ts';
export { printExpression, printTests } from './print.ts';
export {
  cellOfRow,
  expressionOfRows,
  firstRow,
  type Row,
  type RowGroup,
  type RowTest,
  type RowValue,
  rowOfCell,
  rowsOf,
  subjectsOf,
  testsFor,
  typeOfSubject,
  valuesOf,
} from './rows.ts';
export { cellInWords, conditionInWords, rowInWords, testInWords } from './rowWords.ts';
export { Scope, type ScopeName } from './scope.ts';
export { type Comparator, chainOf, entriesRead, type Node, namesRead, nodesOfTest, type Test } from './tree.ts';
export { type ContextEntry, kindOf, kindSaid, type Pick, picksOf, type ScopeType, type TypeKind } from './types.ts';
export { type Context, equal, isList, order, Range, type Ternary, type Value } from './value.ts';
export { valueInWords } from './valueWords.ts';
