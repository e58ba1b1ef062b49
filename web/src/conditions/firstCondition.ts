import { expressionOfRows, firstRow, printExpression, type Scope, subjectsOf } from '@tolvek/core/expression';

/** A condition to begin with, as it is stored: over a yes or no where there is one, else over what comes first. */
export function firstCondition(scope: Scope): string {
  const subjects = subjectsOf(scope);
  const first = subjects.find((each) => each.type.kind === 'yes-no') ?? subjects[0];
  return first ? printExpression(expressionOfRows(firstRow(first.of, scope))) : 'true';
}
