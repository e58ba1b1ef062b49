export { checkExpression, checkTests } from './check.ts';
export { type Compiled, type CompiledTests, compile, compileTests, type Slots } from './compile.ts';
export { type Explanation, explain, explainCell } from './explain.ts';
export type { ExpressionFinding } from './finding.ts';
export { BUILT_INS } from './functions.ts';
export { LIMITS, type Parsed, parseExpression, parseTests } from './parse.ts';
export { Scope, type ScopeName, type ScopeType } from './scope.ts';
export { type Node, namesRead, nodesOfTest, type Test } from './tree.ts';
export { CalendarDate, Duration, equal, inWords, order, type Ternary, type Value } from './value.ts';
